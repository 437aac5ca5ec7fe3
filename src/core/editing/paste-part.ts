/** A part of a network put into a design: new ids, names and addresses, and everything that hangs together. */
import { addElement } from '../design';
import { SHEET_EDGE } from '../messages';
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
import { PAIR_DOMAIN } from '../standard';
import { Macs, Names } from './names';
import type { Chosen, Part } from './part';
import type { NewId } from './wiring';

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
