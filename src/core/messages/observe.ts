/** Sentences about networks that are read: what could not be read, what is inferred, and what deviates. */
import { count, grouped } from '../standard';

const listed = (names: readonly string[]): string => {
  const MOST = 8;
  const shown = names.slice(0, MOST);
  const rest = names.length - shown.length;
  if (rest > 0) return `${shown.join(', ')} and ${grouped(rest)} more`;
  return shown.length < 2 ? shown.join('') : `${shown.slice(0, -1).join(', ')} and ${shown.at(-1)}`;
};

const EVIDENCE = { lacp: 'LACP', bpdu: 'BPDUs', lldp: 'LLDP' } as const;

export const observeMessages = {
  'wrong-value': ({ object, index, wanted }: { object: string; index: string; wanted: string }) =>
    `Row ${index} of ${object} was left out: it is not ${wanted}.`,
  'no-objects': ({ source }: { source: string }) =>
    `The answers of ${source} hold no object that tells of a bridge: walk from .1 on, or from .1.0.8802, .1.2.840.10006, .1.3.6.1.2.1 and .1.3.111.2.802.`,
  'one-name': ({ name, macs }: { name: string; macs: readonly string[] }) =>
    `${macs.length} devices call themselves ${name}: ${listed(macs)}. They are kept apart by their addresses; give each a name of its own.`,
  contradicts: ({
    name,
    field,
    a,
    b,
    from,
    against,
  }: {
    name: string;
    field: string;
    a: string;
    b: string;
    from: string;
    against: string;
  }) => `Of the ${field} of ${name}, ${from} says ${a} and ${against} says ${b}: ${a} is taken.`,
  'several-heard': ({ ends }: { ends: readonly string[] }) =>
    `The ports ${listed(ends)} hear each other on one LAN: a hub or an unmanaged switch is drawn between them. If there is none, one of them was unplugged a moment ago: read again.`,
  'inferred-links': ({ links, certainty }: { links: readonly string[]; certainty: 'lldp' | 'lacp' | 'bpdu' }) =>
    `No neighbour tells of ${listed(links)}: ${links.length === 1 ? 'the link is' : 'these links are'} inferred from ${EVIDENCE[certainty]}. Compare with the cables.`,
  'open-ends': ({ name, ports }: { name: string; ports: readonly string[] }) =>
    `${count(ports.length, 'port')} of ${name} ${ports.length === 1 ? 'is' : 'are'} up and no neighbour is known there: ${listed(ports)}. Find out what is plugged in.`,
  'many-behind': ({ port, n }: { port: string; n: number }) =>
    `Port ${port} reports no neighbour, and ${count(n, 'address', 'addresses')} are learned there: a switch that was not read, or does not speak LLDP, is probably behind it.`,
  'neighbours-only': ({ name }: { name: string }) =>
    `Switch ${name} was not read: only its neighbours tell of it. Read it too, for its settings.`,
  'not-drawn': ({ at, why }: { at: string; why: string }) => `${why} At ${at} it was left out of the drawing.`,
  'no-map': ({ names }: { names: readonly string[] }) =>
    `Nothing tells which VLANs are in which instance at ${listed(names)}: the region is drawn without them.`,

  'designated-twice': ({ tree, ends }: { tree: string; ends: readonly string[] }) =>
    `In ${tree}, ${listed(ends)} are designated on one LAN: one of them receives no BPDU of the other, or ignores it.`,
  'designated-none': ({ tree, ends }: { tree: string; ends: readonly string[] }) =>
    `In ${tree}, none of ${listed(ends)} is designated on their LAN: read again, and if it stays so, look at filters and guards there.`,
  'one-way': ({ near, far }: { near: string; far: string }) =>
    `LLDP of ${near} arrives at ${far}, and none of ${far} arrives at ${near}: look for a cable that carries one way only, or for LLDP that is switched off at one end.`,
  'unlike-digest': ({
    name,
    region,
    digest,
    others,
    usual,
  }: {
    name: string;
    region: string;
    digest: string;
    others: readonly string[];
    usual: string;
  }) =>
    `Switch ${name} is in region ${region} by name and not by digest: ${digest} there, ${usual} at ${listed(others)}. Compare which VLANs are in which instance.`,
  'decides-otherwise': ({ name, tree, ports }: { name: string; tree: string; ports: readonly string[] }) =>
    `In ${tree}, ${name} decides otherwise than the standard makes of what was read: ${listed(ports)}.`,

  'not-a-capture': ({ file }: { file: string }) =>
    `The file ${file} is no capture: it begins neither as pcap nor as pcapng. Save it again in one of the two.`,
  'capture-cut': ({ file, frames }: { file: string; frames: number }) =>
    `The file ${file} ends in the middle of a frame: ${count(frames, 'frame')} before that ${frames === 1 ? 'was' : 'were'} read.`,
  'capture-link-type': ({ file, type }: { file: string; type: number }) =>
    `Frames of link type ${type} in ${file} are passed over: Ethernet (1) and Linux cooked (113 and 276) can be read.`,
  'capture-empty': ({ file }: { file: string }) =>
    `The capture ${file} holds no BPDU, LACPDU or LLDP frame: capture at a port that leads to a switch, for at least two hello times.`,
  'file-too-large': ({ file, size, most }: { file: string; size: number; most: number }) =>
    `The file ${file} has ${grouped(Math.round(size / 1_000_000))} MB, and at most ${grouped(most / 1_000_000)} MB can be read: take a part of it, or capture control frames alone.`,
  'unknown-source': ({ file }: { file: string }) =>
    `The file ${file} is none of what can be read: output of a walk, JSON of ip, bridge or LLDP, the state of a bond, a capture, or JSON after OpenConfig or RFC 8345.`,
  'no-source': ({ path }: { path: string }) => `There is no file and no folder called ${path}.`,
  'broken-source': ({ file, where }: { file: string; where: string }) =>
    `The file ${file} is not complete JSON: ${where}`,

  'no-answer': ({ address, seconds }: { address: string; seconds: number }) =>
    `No answer came from ${address} within ${count(seconds, 'second')}: wrong address, wrong community or user, or a filter on the way.`,
  'stopped-answering': ({ address, object }: { address: string; object: string }) =>
    `The device at ${address} stopped answering below ${object}; what it told before that is kept.`,
  'walk-loops': ({ address, object }: { address: string; object: string }) =>
    `The answers of ${address} below ${object} repeat in a loop; the walk went on behind them.`,
  'walk-long': ({ address, object, most }: { address: string; object: string; most: number }) =>
    `The device at ${address} has more than ${grouped(most)} objects below ${object}; what came first was read.`,
  'refused-key': ({ address, why }: { address: string; why: string }) =>
    `The device at ${address} refused the credentials: ${why}. Check user, protocols and keys.`,
  'bad-address': ({ text }: { text: string }) =>
    `The text '${text}' is no address to ask: write 192.0.2.10, or 192.0.2.10:1161 with a port.`,
  'beyond-fence': ({ n, fence }: { n: number; fence: string }) =>
    `${count(n, 'neighbour')} beyond ${fence} ${n === 1 ? 'was' : 'were'} not asked.`,
  'no-credentials': () =>
    'No credentials: set KNOT_PATH_SNMP_COMMUNITY, or KNOT_PATH_SNMP_USER with its keys, or name a file with --credentials.',
};

/** A role against another one: it stands inside a sentence. */
export const roleMessages = {
  'role-against': ({ port, reported, solved }: { port: string; reported: string; solved: string }) =>
    `${reported} in place of ${solved} at ${port}`,
};

/** What changed between two readings. */
export const changeMessages = {
  root: ({ tree, before, after }: { tree: string; before: string; after: string }) =>
    `The root of ${tree} is ${after} in place of ${before}.`,
  port: ({ tree, port, before, after }: { tree: string; port: string; before: string; after: string }) =>
    `Port ${port} is ${after} in ${tree}; it was ${before}.`,
  members: ({ bundle, before, after, of }: { bundle: string; before: number; after: number; of: number }) =>
    `Bundle ${bundle} has ${after} of ${count(of, 'member')} active; it had ${before}.`,
  silent: ({ name }: { name: string }) => `Switch ${name} does not answer any more.`,
  answers: ({ name }: { name: string }) => `Switch ${name} answers.`,
  unplugged: ({ link }: { link: string }) => `The link ${link} is gone.`,
  plugged: ({ link }: { link: string }) => `The link ${link} is there.`,
};

/** What frames of a capture show over time. */
export const captureMessages = {
  root: ({ tree, sender, root }: { tree: string; sender: string; root: string }) =>
    `In ${tree}, ${sender} names ${root} as root.`,
  role: ({ tree, port, before, after }: { tree: string; port: string; before: string; after: string }) =>
    `In ${tree}, port ${port} is ${after}; it was ${before}.`,
  change: ({ tree, port }: { tree: string; port: string }) => `In ${tree}, port ${port} signals a topology change.`,
  notified: ({ sender }: { sender: string }) => `Switch ${sender} notifies its root of a topology change.`,
  silent: ({ tree, port, seconds }: { tree: string; port: string; seconds: number | null }) =>
    seconds === null
      ? `In ${tree}, port ${port} sends no BPDU any more.`
      : `In ${tree}, port ${port} sends no BPDU for ${seconds.toFixed(1)} s.`,
  lacp: ({ port, now, before }: { port: string; now: readonly string[]; before: readonly string[] }) => {
    const came = now.filter((w) => !before.includes(w));
    const went = before.filter((w) => !now.includes(w));
    const parts = [came.length > 0 && `sets ${came.join(', ')}`, went.length > 0 && `clears ${went.join(', ')}`];
    return `In LACP, port ${port} ${parts.filter(Boolean).join(' and ')}.`;
  },
};
