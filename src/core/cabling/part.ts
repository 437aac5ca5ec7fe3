/** Parts of a network, taken out and put in again elsewhere: copy and paste, and one more like this one. */
import { addElement, bundleAt, linkAt, portById, portsOf, setField, switchById } from '../design';
import type {
  Bundle,
  Design,
  Edit,
  Host,
  Link,
  LinkEnd,
  Port,
  Region,
  Segment,
  Switch,
  SwitchPair,
  Vlan,
} from '../design';
import { z } from 'zod';
import {
  SHEET_EDGE,
  bundleSchema,
  hostSchema,
  linkSchema,
  pairSchema,
  portSchema,
  regionSchema,
  segmentSchema,
  switchSchema,
  vlanSchema,
} from '../design';
import { PAIR_DOMAIN } from '../standard';
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
  // Parts that releases before copied have neither.
  pairs: z.array(pairSchema).default([]),
  regions: z.array(regionSchema).default([]),
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
  readonly pairs: readonly SwitchPair[];
  /** Regions that the switches name. */
  readonly regions: readonly Region[];
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
  const pairs = design.pairs.filter((p) => p.switches.every((id) => switches.has(id)));
  const paired = new Set<string>(pairs.flatMap((p) => p.switches));
  const regions = new Set(design.switches.flatMap((s) => (switches.has(s.id) && s.region ? [s.region] : [])));
  return {
    format: 'knot-path-part',
    switches: design.switches.filter((s) => switches.has(s.id)),
    ports,
    links: design.links.filter((l) => inside(l.a) && inside(l.b)),
    segments: design.segments
      .filter((s) => chosenSegments.has(s.id))
      .map((s) => ({ ...s, ports: s.ports.filter((p) => own.has(p)) })),
    // Half a pair is none: its bundles end on one switch alone.
    bundles: design.bundles
      .filter((b) => switches.has(b.switch))
      .map((b) => (paired.has(b.switch) || b.shared === undefined ? b : withoutShared(b))),
    pairs,
    regions: design.regions.filter((r) => regions.has(r.id)),
    hosts: design.hosts.filter((h) => hosts.has(h.id)),
    vlans: design.vlans,
  };
}

function withoutShared(bundle: Bundle): Bundle {
  const { shared: _, ...rest } = bundle;
  return rest;
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
  /** New id of each old port. */
  readonly ports: ReadonlyMap<string, string>;
}

export interface PasteOptions {
  readonly dx: number;
  readonly dy: number;
}

/**
 * Edits that put a part into a design: new ids, names that are free, stand-in MAC addresses where the part's own are
 * taken, VLANs that the design lacks.
 */
export function pastePart(design: Design, part: Part, newId: NewId, by: PasteOptions): Pasted {
  const paste = new Paste(design, newId, by);
  paste.vlans(part.vlans);
  paste.regions(part.regions);
  paste.switches(part.switches);
  paste.ports(part.ports);
  paste.bundles(part.bundles);
  paste.hosts(part.hosts);
  paste.links(part.links);
  paste.segments(part.segments);
  paste.pairs(part.pairs);
  return { edits: paste.edits, ports: paste.renamed('port'), made: paste.made };
}

type Renamed = 'switch' | 'port' | 'host' | 'link' | 'region';
const PREFIX = { switch: 's', port: 'p', host: 'h', link: 'l', region: 'r' } as const;

/** One pasting: new names, addresses and ids, by kind, since ids are unique within their list only. */
class Paste {
  readonly edits: Edit[] = [];
  readonly made: Chosen[] = [];
  private readonly macs: Macs;
  private readonly takenMacs: Set<string>;
  private readonly names: Record<Chosen['kind'], Names>;
  private readonly ids: Record<Renamed, Map<string, string>> = {
    switch: new Map(),
    port: new Map(),
    host: new Map(),
    link: new Map(),
    region: new Map(),
  };

  constructor(
    private readonly design: Design,
    private readonly newId: NewId,
    private readonly by: PasteOptions,
  ) {
    this.macs = new Macs(design);
    this.takenMacs = new Set(design.switches.map((s) => s.mac));
    this.names = {
      switch: new Names(design.switches.map((s) => s.name)),
      host: new Names(design.hosts.map((h) => h.name)),
      segment: new Names(design.segments.map((s) => s.name)),
    };
  }

  renamed(kind: Renamed): ReadonlyMap<string, string> {
    return this.ids[kind];
  }

  private fresh(kind: Renamed, id: string): string {
    const next = this.newId(PREFIX[kind]);
    this.ids[kind].set(id, next);
    return next;
  }

  /** The new id; the old one where the part does not hold what it names, so that the fault names it. */
  private of(kind: Renamed, id: string): string {
    return this.ids[kind].get(id) ?? id;
  }

  private shifted(item: { x?: number | undefined; y?: number | undefined }): { x?: number; y?: number } {
    const onSheet = (value: number) => Math.min(SHEET_EDGE, Math.max(-SHEET_EDGE, value));
    return {
      ...(item.x === undefined ? {} : { x: onSheet(item.x + this.by.dx) }),
      ...(item.y === undefined ? {} : { y: onSheet(item.y + this.by.dy) }),
    };
  }

  vlans(list: readonly Vlan[]): void {
    const numbers = new Set(this.design.vlans.map((v) => v.number));
    for (const vlan of list) {
      if (numbers.has(vlan.number)) continue;
      numbers.add(vlan.number);
      this.edits.push(addElement('vlan', { ...vlan, id: this.newId('v') }));
    }
  }

  /** A region that the design has with the same name, revision and map is the same region. */
  regions(list: readonly Region[]): void {
    const same = (a: Region, b: Region) =>
      a.name === b.name && a.revision === b.revision && JSON.stringify(a.map) === JSON.stringify(b.map);
    for (const region of list) {
      const known = this.design.regions.find((r) => same(r, region));
      if (known) this.ids.region.set(region.id, known.id);
      else this.edits.push(addElement('region', { ...region, id: this.fresh('region', region.id) }));
    }
  }

  switches(list: readonly Switch[]): void {
    for (const s of list) {
      const mac = this.takenMacs.has(s.mac) ? this.macs.next() : s.mac;
      this.takenMacs.add(mac);
      const id = this.fresh('switch', s.id);
      const region = s.region === undefined ? {} : { region: this.of('region', s.region) };
      const name = this.names.switch.claim(s.name);
      this.edits.push(addElement('switch', { ...s, id, name, mac, ...region, ...this.shifted(s) }));
      this.made.push({ kind: 'switch', id });
    }
  }

  ports(list: readonly Port[]): void {
    for (const p of list)
      this.edits.push(addElement('port', { ...p, id: this.fresh('port', p.id), switch: this.of('switch', p.switch) }));
  }

  bundles(list: readonly Bundle[]): void {
    for (const b of list)
      this.edits.push(
        addElement('bundle', {
          ...b,
          id: this.newId('b'),
          switch: this.of('switch', b.switch),
          members: b.members.map((m) => this.of('port', m)),
        }),
      );
  }

  hosts(list: readonly Host[]): void {
    for (const h of list) {
      const id = this.fresh('host', h.id);
      this.edits.push(addElement('host', { ...h, id, name: this.names.host.claim(h.name), ...this.shifted(h) }));
      this.made.push({ kind: 'host', id });
    }
  }

  links(list: readonly Link[]): void {
    const end = (e: LinkEnd): LinkEnd =>
      'port' in e ? { port: this.of('port', e.port) } : { ...e, host: this.of('host', e.host) };
    for (const l of list)
      this.edits.push(addElement('link', { ...l, id: this.fresh('link', l.id), a: end(l.a), b: end(l.b) }));
  }

  segments(list: readonly Segment[]): void {
    for (const s of list) {
      const id = this.newId('g');
      const name = this.names.segment.claim(s.name);
      const ports = s.ports.map((p) => this.of('port', p));
      this.edits.push(addElement('segment', { ...s, id, name, ports, ...this.shifted(s) }));
      this.made.push({ kind: 'segment', id });
    }
  }

  /** Each pair keeps its domain where that is free, else takes the lowest free one. */
  pairs(list: readonly SwitchPair[]): void {
    const taken = new Set(this.design.pairs.map((p) => p.domain));
    for (const pair of list) {
      let { domain } = pair;
      if (taken.has(domain)) for (domain = PAIR_DOMAIN.min; taken.has(domain);) domain++;
      taken.add(domain);
      const [a, b] = pair.switches;
      this.edits.push(
        addElement('pair', {
          ...pair,
          id: this.newId('pair'),
          domain,
          switches: [this.of('switch', a), this.of('switch', b)],
          peer: pair.peer.flatMap((id) => this.ids.link.get(id) ?? []),
          ...(pair.keepalive === undefined ? {} : { keepalive: this.of('link', pair.keepalive) }),
        }),
      );
    }
  }
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
  const right = xs.reduce((a, b) => Math.max(a, b), -Infinity);
  const width = right - xs.reduce((a, b) => Math.min(a, b), Infinity) + 190;
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
      wiring.link({ port: twin }, { port: pasted.ports.get(port.id)! });
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
