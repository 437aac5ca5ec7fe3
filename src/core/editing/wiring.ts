/** Laying cables: ports come into being as they are needed, with the next free name and number. */
import {
  addElement,
  bundleAt,
  bundlesOf,
  hostById,
  linkAt,
  linksOfHost,
  portsOf,
  segmentAt,
  setField,
} from '../design';
import type { Design, Edit, LinkEnd, Port } from '../design';
import { PORT_NUMBER, VLAN_ID } from '../standard';

/** Gives an id that nothing in the design has; the prefix tells the kind. */
export type NewId = (prefix: string) => string;

/** Where a cable can end. */
export interface CableEnd {
  readonly kind: 'switch' | 'host' | 'segment';
  readonly id: string;
}

export interface NewPort {
  /** Mb/s. */
  readonly speed: number;
  readonly name?: string;
  readonly number?: number;
  readonly settings?: Partial<Omit<Port, 'id' | 'switch' | 'name' | 'number' | 'speed'>>;
}

interface Taken {
  readonly numbers: Set<number>;
  readonly names: Map<string, string>;
  /** State before the number in the names of this switch's ports. */
  prefix: string;
}

/** `Te1/0/` of `Te1/0/3` when 3 is the port's number; empty for a name that does not end in it. */
function namePrefix(port: Pick<Port, 'name' | 'number'> | undefined): string {
  const match = port ? /^(.*?)(\d+)$/.exec(port.name) : null;
  return match && Number(match[2]) === port!.number ? match[1]! : '';
}

/** Collects the edits of one piece of wiring; what it has planned counts as taken. */
export class Wiring {
  readonly edits: Edit[] = [];
  private readonly taken = new Map<string, Taken>();
  private readonly cabled = new Set<string>();
  private readonly segmentPorts = new Map<string, string[]>();
  private readonly cards = new Map<string, number>();

  constructor(
    readonly design: Design,
    readonly newId: NewId,
  ) {}

  private at(switchId: string): Taken {
    let known = this.taken.get(switchId);
    if (!known) {
      const ports = portsOf(this.design, switchId);
      const all = [...ports, ...bundlesOf(this.design, switchId)];
      known = {
        numbers: new Set(all.map((p) => p.number)),
        names: new Map(all.map((p) => [p.name, p.id])),
        prefix: namePrefix(ports.at(-1)),
      };
      this.taken.set(switchId, known);
    }
    return known;
  }

  /** The port or bundle of that name, planned ones included. */
  named(switchId: string, name: string): string | undefined {
    return this.at(switchId).names.get(name);
  }

  /** Whether a cable or a segment ends on the port, planned ones included. */
  isCabled(portId: string): boolean {
    return (
      this.cabled.has(portId) ||
      linkAt(this.design, portId) !== undefined ||
      segmentAt(this.design, portId) !== undefined
    );
  }

  /** Lowest free number from a wish upwards; from 1 when all above are taken. */
  freeNumber(switchId: string, from: number = PORT_NUMBER.min): number {
    const { numbers } = this.at(switchId);
    const start = from >= PORT_NUMBER.min && from <= PORT_NUMBER.max ? from : PORT_NUMBER.min;
    for (let n = start; n <= PORT_NUMBER.max; n++) if (!numbers.has(n)) return n;
    for (let n = PORT_NUMBER.min; n < start; n++) if (!numbers.has(n)) return n;
    return PORT_NUMBER.max;
  }

  /** A port that comes into being. Without a name it is called by its number, as its neighbours are. */
  newPort(switchId: string, { speed, name, number, settings = {} }: NewPort): string {
    const at = this.at(switchId);
    const wished = number ?? Number(/(\d+)$/.exec(name ?? '')?.[1] ?? PORT_NUMBER.min);
    const own = number ?? this.freeNumber(switchId, wished);
    let called = name ?? `${at.prefix}${own}`;
    for (let n = own + 1; name === undefined && at.names.has(called); n++) called = `${at.prefix}${n}`;
    const id = this.newId('p');
    at.numbers.add(own);
    at.names.set(called, id);
    this.edits.push(addElement('port', { ...settings, id, switch: switchId, name: called, number: own, speed }));
    return id;
  }

  /** A port without a cable that suits a trunk: lowest number first; one that waits in a bundle is left to it. */
  private freePort(switchId: string, speed: number): string | undefined {
    return portsOf(this.design, switchId)
      .filter((p) => p.speed === speed && !p.down && !p.edge && !this.isCabled(p.id) && !bundleAt(this.design, p.id))
      .sort((a, b) => a.number - b.number)[0]?.id;
  }

  /** A cable between two ends that are there. */
  link(a: LinkEnd, b: LinkEnd): string {
    const id = this.newId('l');
    for (const end of [a, b]) if ('port' in end) this.cabled.add(end.port);
    this.edits.push(addElement('link', { id, a, b }));
    return id;
  }

  attach(segmentId: string, port: string): void {
    const before =
      this.segmentPorts.get(segmentId) ?? this.design.segments.find((s) => s.id === segmentId)?.ports ?? [];
    const ports = [...before, port];
    this.segmentPorts.set(segmentId, ports);
    this.cabled.add(port);
    this.edits.push(setField('segment', segmentId, 'ports', ports));
  }

  /** The next card of a host: none named for its first cable. */
  card(host: string): { card?: string } {
    const n = (this.cards.get(host) ?? linksOfHost(this.design, host).length) + 1;
    this.cards.set(host, n);
    return n === 1 ? {} : { card: `card ${n}` };
  }

  private trunkPort(switchId: string, speed: number, like: NewPort['settings']): string {
    const free = this.freePort(switchId, speed);
    if (free === undefined) return this.newPort(switchId, { speed, settings: like });
    this.cabled.add(free);
    return free;
  }

  /**
   * A cable from one thing to another, with the ports it needs. Two switches get trunk ports with the VLANs that their
   * other trunks have; a host gets an edge port in its VLAN. Returns the link's id, null when a port joined a segment.
   * Two hosts, or two segments, have no port to meet at: null, and no edits.
   */
  cable(a: CableEnd, b: CableEnd, speed: number): string | null {
    const order = { switch: 0, segment: 1, host: 2 };
    const [first, second] = order[a.kind] <= order[b.kind] ? [a, b] : [b, a];
    if (first.kind !== 'switch') return null;
    if (second.kind === 'segment') {
      this.attach(second.id, this.trunkPort(first.id, speed, trunkSettings(this.design, [first.id])));
      return null;
    }
    if (second.kind === 'host') {
      const vlan = hostById(this.design, second.id)?.vlan;
      const settings = { edge: true, ...(vlan === undefined ? {} : { vlans: `${vlan}`, native: vlan }) };
      const port = this.newPort(first.id, { speed, settings });
      return this.link({ port }, { host: second.id, ...this.card(second.id) });
    }
    const like = trunkSettings(this.design, [a.id, b.id]);
    const from = this.trunkPort(a.id, speed, like);
    return this.link({ port: from }, { port: this.trunkPort(b.id, speed, like) });
  }
}

/** What a port is set to, without who it is: for another port that is to be like it. */
export function portSettings(port: Port): NonNullable<NewPort['settings']> {
  const settings: Partial<Port> = { ...port };
  for (const field of ['id', 'switch', 'name', 'number', 'speed'] as const) delete settings[field];
  return settings;
}

/** VLANs that the trunks of these switches carry, when they have trunks and all of them carry the same. */
export function trunkSettings(
  design: Design,
  switchIds: readonly string[],
): { vlans?: string; native?: number; duplex?: 'full' } {
  const trunks = switchIds.flatMap((id) =>
    portsOf(design, id).filter((p) => {
      const link = linkAt(design, p.id);
      return !p.edge && link && 'port' in link.a && 'port' in link.b;
    }),
  );
  const [first] = trunks;
  if (!first || !trunks.every((p) => p.vlans === first.vlans && p.native === first.native)) return {};
  return {
    ...(first.vlans === undefined ? {} : { vlans: first.vlans }),
    ...(first.native === undefined ? {} : { native: first.native }),
  };
}

/** Lowest VLAN number that the design does not have yet. */
export function freeVlan(design: Design): number | null {
  const taken = new Set(design.vlans.map((v) => v.number));
  for (let n: number = VLAN_ID.min; n <= VLAN_ID.max; n++) if (!taken.has(n)) return n;
  return null;
}
