/** Edits that make bundles of cables, add and take out members, and split them again: always at both ends. */
import { bundlingMessages as say } from '../messages';
import {
  bundleAt,
  bundlesOf,
  farEnd,
  groupBy,
  hostById,
  linkById,
  linkSpeed,
  pairOf,
  portById,
  portLabel,
  portsOf,
  switchById,
} from './look-ups';
import { setField } from './edits';
import type { Design, Link, Port } from './schema';
import type { Bundle, SwitchPair } from './bundle-schema';
import type { Edit } from './edits';

export type BundleEdits =
  { readonly ok: true; readonly edits: Edit[] } | { readonly ok: false; readonly sentence: string };
const refuse = (sentence: string): BundleEdits => ({ ok: false, sentence });

/** Ports of a link between switches; null for one that ends at a host. */
function portsOfLink(design: Design, link: Link): readonly [Port, Port] | null {
  if (!('port' in link.a) || !('port' in link.b)) return null;
  return [portById(design, link.a.port)!, portById(design, link.b.port)!];
}

/** Next port number that neither a port nor a bundle of the switch has, from 101 on as bundles are numbered. */
function freeNumber(design: Design, switchId: string): number {
  const taken = new Set([...portsOf(design, switchId), ...bundlesOf(design, switchId)].map((p) => p.number));
  let number = 101;
  while (taken.has(number)) number++;
  return number;
}

function freeName(design: Design, switchId: string, wish: string): string {
  const taken = new Set([...portsOf(design, switchId), ...bundlesOf(design, switchId)].map((p) => p.name));
  let name = wish;
  for (let n = 2; taken.has(name); n++) name = `${wish}-${n}`;
  return name;
}

/** What members must have alike: they could not join otherwise, or would carry different VLANs. */
function unlike(design: Design, members: readonly Port[]): string | null {
  const [first] = members;
  for (const p of members.slice(1)) {
    const ports = `${portLabel(design, p.id)} and ${portLabel(design, first!.id)}`;
    if (p.speed !== first!.speed) return say['unlike-speed']({ ports, speeds: `${p.speed} and ${first!.speed}` });
    if ((p.duplex ?? 'full') !== (first!.duplex ?? 'full')) return say['unlike-duplex']({ ports });
    if ((p.vlans ?? 'all') !== (first!.vlans ?? 'all') || p.native !== first!.native)
      return say['unlike-vlans']({ ports });
  }
  return null;
}

/** Next number in common that no bundle of the pair has. */
export function freeShared(design: Design, pair: SwitchPair): number {
  const taken = new Set(design.bundles.flatMap((b) => (pair.switches.includes(b.switch) ? (b.shared ?? []) : [])));
  let number = 1;
  while (taken.has(number)) number++;
  return number;
}

/** One switch on one side, and on the other one switch or both of a pair; null when the cables join others. */
function sidesOf(
  design: Design,
  cables: readonly (readonly [Port, Port])[],
): { sides: Port[][]; pair: SwitchPair | null } | null {
  const switches = new Set(cables.flatMap((ports) => ports.map((p) => p.switch)));
  for (const alone of switches) {
    const others = [...switches].filter((id) => id !== alone);
    const pair = others.length === 2 ? pairOf(design, others[0]!) : null;
    if (others.length === 0 || others.length > 2) return null;
    if (others.length === 2 && !pair?.switches.includes(others[1]!)) continue;
    if (!cables.every((ports) => ports.some((p) => p.switch === alone) && ports[0].switch !== ports[1].switch))
      continue;
    const facing = cables.map((ports) => (ports[0].switch === alone ? ports : ([ports[1], ports[0]] as const)));
    const far = others.map((id) => facing.map((ports) => ports[1]).filter((p) => p.switch === id));
    return { sides: [facing.map((ports) => ports[0]), ...far], pair: pair ?? null };
  }
  return null;
}

/**
 * Bundles the given cables with LACP, active at every end; the reason when they cannot be one. They lead from one
 * switch to one other, or to both switches of a pair; or from a host to one of these.
 */
export function bundleLinks(
  design: Design,
  linkIds: readonly string[],
  newId: (prefix: string) => string,
): BundleEdits {
  const links = linkIds.flatMap((id) => linkById(design, id) ?? []);
  if (links.length === 0) return refuse(say['no-cables']());
  const cables = links.flatMap((l) => {
    const ports = portsOfLink(design, l);
    return ports ? [ports] : [];
  });
  if (cables.length < links.length) return bundleCards(design, links, newId);
  const found = sidesOf(design, cables);
  if (!found) {
    const switches = new Set(cables.flatMap((ports) => ports.map((p) => p.switch)));
    const names = [...switches].map((id) => switchById(design, id)?.name).join(', ');
    return refuse(say['several-ends']({ names }));
  }
  const { sides, pair } = found;
  const taken = sides.flat().find((p) => bundleAt(design, p.id));
  if (taken)
    return refuse(
      say['port-in-bundle']({ port: portLabel(design, taken.id), bundle: bundleAt(design, taken.id)!.name }),
    );
  const [near, ...far] = sides as [Port[], ...Port[][]];
  const fault = unlike(design, near) ?? unlike(design, far.flat());
  if (fault) return refuse(fault);
  const shared = pair ? freeShared(design, pair) : undefined;
  const nameOf = (side: readonly Port[]) => switchById(design, side[0]!.switch)!.name;
  const edits = sides.map((side, i) => {
    const to = i === 0 ? far.map(nameOf).join('-') : nameOf(near);
    return endOf(design, side, { id: newId('bundle'), to, shared: i > 0 ? shared : undefined });
  });
  return { ok: true, edits };
}

interface NewEnd {
  readonly id: string;
  readonly to: string;
  readonly shared: number | undefined;
  /** Settings of the end that it faces. */
  readonly alike?: Partial<Pick<Bundle, 'kind' | 'timeout' | 'minActive' | 'maxActive'>>;
}

/** One end of a new bundle: the given ports of one switch. */
export function endOf(design: Design, members: readonly Port[], { id, to, shared, alike }: NewEnd): Edit {
  const [first] = members;
  const at = first!.switch;
  const value: Bundle = {
    id,
    switch: at,
    name: freeName(design, at, `to-${to}`),
    number: freeNumber(design, at),
    members: members.map((p) => p.id),
    kind: 'lacp',
    ...alike,
    ...(shared === undefined ? {} : { shared }),
    ...(first!.vlans === undefined ? {} : { vlans: first!.vlans }),
    ...(first!.native === undefined ? {} : { native: first!.native }),
    // What faces a host stays an edge port as its members were.
    ...(members.every((p) => p.edge) ? { edge: true } : {}),
  };
  return { type: 'add', kind: 'bundle', value };
}

/** Bundles the cards of a host: at one switch, or over both switches of a pair; the host then speaks LACP, unless it is set otherwise. */
function bundleCards(design: Design, links: readonly Link[], newId: (prefix: string) => string): BundleEdits {
  const hosts = new Set(links.map((l) => [l.a, l.b].flatMap((end) => ('host' in end ? end.host : []))[0]));
  const [id] = hosts;
  const host = hosts.size === 1 && id !== undefined ? hostById(design, id) : undefined;
  if (!host) return refuse(say['cable-to-host']());
  const ports = links.flatMap((l) => [l.a, l.b].flatMap((end) => ('port' in end ? portById(design, end.port)! : [])));
  const sides = [...groupBy(ports, (p) => p.switch).values()];
  const pair = sides.length === 2 ? pairOf(design, sides[0]![0]!.switch) : undefined;
  if (sides.length > 2 || (sides.length === 2 && !pair?.switches.includes(sides[1]![0]!.switch))) {
    const names = sides.map(([p]) => switchById(design, p!.switch)?.name).join(', ');
    return refuse(say['several-ends']({ names }));
  }
  const taken = ports.find((p) => bundleAt(design, p.id));
  if (taken)
    return refuse(
      say['port-in-bundle']({ port: portLabel(design, taken.id), bundle: bundleAt(design, taken.id)!.name }),
    );
  const fault = unlike(design, ports);
  if (fault) return refuse(fault);
  const shared = pair ? freeShared(design, pair) : undefined;
  const edits = sides.map((side) => endOf(design, side, { id: newId('bundle'), to: host.name, shared }));
  return { ok: true, edits: [...edits, ...(host.bond ? [] : [setField('host', host.id, 'bond', 'lacp-active')])] };
}

/** Lowest domain that no pair has. */
function freeDomain(design: Design): number {
  const taken = new Set(design.pairs.map((p) => p.domain));
  let domain = 1;
  while (taken.has(domain)) domain++;
  return domain;
}

/** Makes two switches a pair: all cables between them but the slowest are its peer link, that one the keepalive. */
export function makePair(
  design: Design,
  first: string,
  second: string,
  newId: (prefix: string) => string,
): BundleEdits {
  const between = design.links.filter((l) => {
    const switches = portsOfLink(design, l)?.map((p) => p.switch) ?? [];
    return switches.includes(first) && switches.includes(second) && first !== second;
  });
  if (between.length === 0) return refuse(say['pair-without-cable']());
  const speed = (id: string) => linkSpeed(design, linkById(design, id)!);
  const ids = between.map((l) => l.id).sort((a, b) => speed(b) - speed(a));
  const keepalive = ids.length > 2 || (ids.length === 2 && speed(ids[0]!) > speed(ids[1]!)) ? ids.pop() : undefined;
  const value: SwitchPair = {
    id: newId('pair'),
    domain: freeDomain(design),
    switches: [first, second],
    peer: ids,
    ...(keepalive === undefined ? {} : { keepalive }),
  };
  return { ok: true, edits: [{ type: 'add', kind: 'pair', value }] };
}

/** Takes bundles apart; their members stand as single ports again. */
export const splitBundles = (ids: readonly string[]): Edit[] =>
  ids.map((id) => ({ type: 'remove', kind: 'bundle', id }));

/** Groups of two or more cables that join the same two switches and are in no bundle. */
export function parallelLinks(
  design: Design,
): { readonly a: string; readonly b: string; readonly links: readonly string[] }[] {
  const groups = new Map<string, string[]>();
  for (const link of design.links) {
    const pair = portsOfLink(design, link);
    if (!pair || pair.some((p) => bundleAt(design, p.id)) || pair[0].switch === pair[1].switch) continue;
    const key = pair
      .map((p) => p.switch)
      .sort()
      .join('\n');
    groups.set(key, [...(groups.get(key) ?? []), link.id]);
  }
  return [...groups].flatMap(([key, links]) => {
    const [a, b] = key.split('\n') as [string, string];
    return links.length > 1 ? [{ a, b, links }] : [];
  });
}

/** Cables beside a bundle that could join it: between the same two switches and in no bundle. */
export function joinable(design: Design, near: Bundle, far: Bundle): readonly string[] {
  return design.links.flatMap((link) => {
    const pair = portsOfLink(design, link);
    if (!pair || pair.some((p) => bundleAt(design, p.id))) return [];
    const switches = pair.map((p) => p.switch);
    return switches.includes(near.switch) && switches.includes(far.switch) && near.switch !== far.switch
      ? [link.id]
      : [];
  });
}

/** Adds a cable to both ends of a bundle; the reason when it would differ from the members. */
export function addMember(design: Design, near: Bundle, far: Bundle, linkId: string): BundleEdits {
  const pair = portsOfLink(design, linkById(design, linkId)!);
  if (!pair) return refuse(say['host-cannot-join']());
  const edits: Edit[] = [];
  for (const bundle of [near, far]) {
    const port = pair.find((p) => p.switch === bundle.switch)!;
    const fault = unlike(design, [...bundle.members.flatMap((m) => portById(design, m) ?? []), port]);
    if (fault) return refuse(fault);
    edits.push(setField('bundle', bundle.id, 'members', [...bundle.members, port.id]));
  }
  return { ok: true, edits };
}

/** Takes a member out at this end and, where its cable leads to the partner, at the other. */
export function removeMember(design: Design, near: Bundle, far: Bundle | null, portId: string): Edit[] {
  const without = (b: Bundle, port: string) =>
    setField(
      'bundle',
      b.id,
      'members',
      b.members.filter((m) => m !== port),
    );
  const link = design.links.find((l) => [l.a, l.b].some((e) => 'port' in e && e.port === portId));
  const end = link && farEnd(link, portId);
  const other = end && 'port' in end ? end.port : null;
  return [without(near, portId), ...(far && other && far.members.includes(other) ? [without(far, other)] : [])];
}
