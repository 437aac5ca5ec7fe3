/** Parts of a network, taken out and put in again elsewhere: copy and paste, and one more like this one. */
import { addElement, bundleAt, linkAt, portById, portsOf, setField, switchById } from '../design';
import type { Bundle, Design, Edit, Host, Link, LinkEnd, Port, Segment, Switch, Vlan } from '../design';
import { z } from 'zod';
import { bundleSchema, hostSchema, linkSchema, portSchema, segmentSchema, switchSchema, vlanSchema } from '../design';
import { Macs, Names } from './names';
import { Wiring, portSettings } from './wiring';
import type { NewId } from './wiring';

/** A part: what was chosen, with the cables among it. Read back from the clipboard, so it has a schema. */
export const partSchema = z.strictObject({
  format: z.literal('knot-path-part'),
  switches: z.array(switchSchema),
  ports: z.array(portSchema),
  links: z.array(linkSchema),
  segments: z.array(segmentSchema),
  bundles: z.array(bundleSchema),
  hosts: z.array(hostSchema),
  vlans: z.array(vlanSchema),
});
export interface Part {
  readonly format: 'knot-path-part';
  readonly switches: readonly Switch[];
  readonly ports: readonly Port[];
  readonly links: readonly Link[];
  readonly segments: readonly Segment[];
  readonly bundles: readonly Bundle[];
  readonly hosts: readonly Host[];
  readonly vlans: readonly Vlan[];
}

export interface Chosen {
  readonly kind: 'switch' | 'host' | 'segment';
  readonly id: string;
}

const ids = (chosen: readonly Chosen[], kind: Chosen['kind']) =>
  new Set(chosen.filter((c) => c.kind === kind).map((c) => c.id));

/** The chosen switches, hosts and segments with every cable between two of them. */
export function partOf(design: Design, chosen: readonly Chosen[]): Part {
  const [switches, hosts] = [ids(chosen, 'switch'), ids(chosen, 'host')];
  const ports = design.ports.filter((p) => switches.has(p.switch));
  const own = new Set(ports.map((p) => p.id));
  const inside = (end: LinkEnd) => ('port' in end ? own.has(end.port) : hosts.has(end.host));
  const chosenSegments = ids(chosen, 'segment');
  return {
    format: 'knot-path-part',
    switches: design.switches.filter((s) => switches.has(s.id)),
    ports,
    links: design.links.filter((l) => inside(l.a) && inside(l.b)),
    segments: design.segments
      .filter((s) => chosenSegments.has(s.id))
      .map((s) => ({ ...s, ports: s.ports.filter((p) => own.has(p)) })),
    bundles: design.bundles.filter((b) => switches.has(b.switch)),
    hosts: design.hosts.filter((h) => hosts.has(h.id)),
    vlans: design.vlans,
  };
}

/** A part as clipboard text, and back; null when the text is something else. */
export const partText = (part: Part): string => JSON.stringify(part);
export function readPart(text: string): Part | null {
  if (!text.includes('knot-path-part')) return null;
  try {
    const read = partSchema.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

export interface Pasted {
  readonly edits: Edit[];
  /** What came into being, to be selected. */
  readonly made: Chosen[];
  /** New id of each old one. */
  readonly ids: ReadonlyMap<string, string>;
}

export interface PasteOptions {
  readonly dx: number;
  readonly dy: number;
}

/**
 * Edits that put a part into a design: new ids, names that are free, stand-in MAC addresses where the part's own are
 * taken, VLANs that the design lacks.
 */
export function pastePart(design: Design, part: Part, newId: NewId, { dx, dy }: PasteOptions): Pasted {
  const macs = new Macs(design);
  const names = {
    switch: new Names(design.switches.map((s) => s.name)),
    host: new Names(design.hosts.map((h) => h.name)),
    segment: new Names(design.segments.map((s) => s.name)),
  };
  const takenMacs = new Set(design.switches.map((s) => s.mac));
  const renamed = new Map<string, string>();
  const fresh = (prefix: string, id: string) => {
    const next = newId(prefix);
    renamed.set(id, next);
    return next;
  };
  const shifted = <T extends { x?: number; y?: number }>(item: T) => ({
    ...(item.x === undefined ? {} : { x: item.x + dx }),
    ...(item.y === undefined ? {} : { y: item.y + dy }),
  });
  const edits: Edit[] = [];
  const numbers = new Set(design.vlans.map((v) => v.number));
  for (const vlan of part.vlans)
    if (!numbers.has(vlan.number)) edits.push(addElement('vlan', { ...vlan, id: newId('v') }));
  for (const s of part.switches) {
    const mac = takenMacs.has(s.mac) ? macs.next() : s.mac;
    takenMacs.add(mac);
    edits.push(
      addElement('switch', { ...s, id: fresh('s', s.id), name: names.switch.claim(s.name), mac, ...shifted(s) }),
    );
  }
  for (const p of part.ports)
    edits.push(addElement('port', { ...p, id: fresh('p', p.id), switch: renamed.get(p.switch)! }));
  for (const b of part.bundles)
    edits.push(
      addElement('bundle', {
        ...b,
        id: fresh('b', b.id),
        switch: renamed.get(b.switch)!,
        members: b.members.map((m) => renamed.get(m)!),
      }),
    );
  for (const h of part.hosts)
    edits.push(addElement('host', { ...h, id: fresh('h', h.id), name: names.host.claim(h.name), ...shifted(h) }));
  const end = (e: LinkEnd): LinkEnd =>
    'port' in e ? { port: renamed.get(e.port)! } : { ...e, host: renamed.get(e.host)! };
  for (const l of part.links) edits.push(addElement('link', { ...l, id: fresh('l', l.id), a: end(l.a), b: end(l.b) }));
  for (const s of part.segments)
    edits.push(
      addElement('segment', {
        ...s,
        id: fresh('g', s.id),
        name: names.segment.claim(s.name),
        ports: s.ports.map((p) => renamed.get(p)!),
        ...shifted(s),
      }),
    );
  const made = (kind: Chosen['kind'], list: readonly { id: string }[]) =>
    list.map(({ id }) => ({ kind, id: renamed.get(id)! }));
  return {
    edits,
    ids: renamed,
    made: [...made('switch', part.switches), ...made('host', part.hosts), ...made('segment', part.segments)],
  };
}

/** Hosts whose every cable ends on one of these switches. */
function hostsOn(design: Design, switches: ReadonlySet<string>): Chosen[] {
  const seats = new Map<string, boolean>();
  for (const { a, b } of design.links)
    for (const [host, far] of [
      [a, b],
      [b, a],
    ] as const)
      if ('host' in host && 'port' in far) {
        const on = switches.has(portById(design, far.port)!.switch);
        seats.set(host.host, (seats.get(host.host) ?? true) && on);
      }
  return [...seats].filter(([, all]) => all).map(([id]) => ({ kind: 'host' as const, id }));
}

/** Room to the right that a copy needs: the width of what is copied and a gap. */
function stepAside(design: Design, switches: ReadonlySet<string>): number {
  const xs = design.switches.filter((s) => switches.has(s.id)).map((s) => s.x ?? 0);
  const width = Math.max(...xs) - Math.min(...xs) + 190;
  const right = Math.max(...xs);
  const ys = new Set(design.switches.filter((s) => switches.has(s.id)).map((s) => s.y ?? 0));
  // A free place in the row: as many steps as it takes to come past the last switch that stands there.
  const last = Math.max(...design.switches.filter((s) => ys.has(s.y ?? 0)).map((s) => s.x ?? 0));
  return Math.max(width, last - right + width);
}

/**
 * One more closet like the chosen switches: copies them with their hosts and settings, and cables the copy to the same
 * switches as the original, on ports of its own with the same settings; bundles towards them included.
 */
export function oneMore(design: Design, switchIds: readonly string[], newId: NewId): Pasted {
  const own = new Set(switchIds);
  const chosen: Chosen[] = [...switchIds.map((id) => ({ kind: 'switch' as const, id })), ...hostsOn(design, own)];
  const pasted = pastePart(design, partOf(design, chosen), newId, { dx: stepAside(design, own), dy: 0 });
  const wiring = new Wiring(design, newId);
  /** New upstream ports of each upstream bundle. */
  const members = new Map<string, string[]>();
  for (const id of switchIds)
    for (const port of portsOf(design, id)) {
      const link = linkAt(design, port.id);
      const farEnd = link && ('port' in link.a && link.a.port === port.id ? link.b : link.a);
      const far = farEnd && 'port' in farEnd ? portById(design, farEnd.port) : undefined;
      if (!link || !far || own.has(far.switch)) continue;
      const twin = wiring.newPort(far.switch, { speed: far.speed, settings: portSettings(far) });
      wiring.link({ port: twin }, { port: pasted.ids.get(port.id)! });
      const bundle = bundleAt(design, far.id);
      if (bundle) members.set(bundle.id, [...(members.get(bundle.id) ?? []), twin]);
    }
  for (const [id, ports] of members) {
    const bundle = design.bundles.find((b) => b.id === id)!;
    const names = new Names(design.bundles.filter((b) => b.switch === bundle.switch).map((b) => b.name));
    wiring.edits.push(
      addElement('bundle', {
        ...bundle,
        id: newId('b'),
        name: names.claim(bundle.name),
        number: wiring.freeNumber(bundle.switch, bundle.number + 1),
        members: ports,
      }),
    );
  }
  return { ...pasted, edits: [...pasted.edits, ...wiring.edits] };
}

/** Edits that move things by a distance; what has no place of its own yet gets one from `at`. */
export function moveThings(
  design: Design,
  things: readonly Chosen[],
  at: (thing: Chosen) => { x: number; y: number } | null,
): Edit[] {
  return things.flatMap((thing) => {
    const to = at(thing);
    if (!to) return [];
    const now = thing.kind === 'switch' ? switchById(design, thing.id) : undefined;
    const rounded = { x: Math.round(to.x), y: Math.round(to.y) };
    if (now && now.x === rounded.x && now.y === rounded.y) return [];
    return (['x', 'y'] as const).map((axis) => setField(thing.kind, thing.id, axis, rounded[axis]));
  });
}
