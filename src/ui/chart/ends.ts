/** What a chart draws between and beside switches: the ends of its wires, and where hosts and shared segments stand. */
import { bundleVerdicts, isPeerPort, sharedWith } from '../../core/network';
import type { Bundle, Design, Link } from '../../core/design';
import { linkSpeed, portById } from '../../core/design';
import type { Topology } from '../../core/trees';
import type { Arranged } from './arrange';
import type { Folding } from './cells';
import { PLATE } from './geometry';
import type { Point } from './geometry';
import type { SpotItem, WireItem } from './scene-items';

const HOST = { dx: PLATE.width / 2 + 62, dy: 26, below: PLATE.height / 2 + 40 } as const;

/** `2 × 10G`, or `1 of 2 × 1G` when members are missing. */
function bundleLabel(active: number, members: number, speed: number): string {
  const count = active === members ? `${active}` : `${active} of ${members}`;
  return `${count} × ${speedLabel(speed)}`;
}

/** Members that the bundle of a wire has on the switches that the wire joins. */
function memberCount({ design, ports }: Topology, { a, b }: Ends): number {
  const counts = [a, b].map((end) => {
    if (!('port' in end)) return 0;
    const { element } = ports[end.port]!;
    const home = design.switches[end.home]!.id;
    const bundle = element.switch === home ? element : sharedWith(design, element as Bundle);
    return bundle && 'members' in bundle ? bundle.members.length : 0;
  });
  return Math.min(...counts);
}

/** Members of bundles of which only one end forwards: frames arrive twice, come back or are lost there, unseen by the trees. */
const oneSidedMembers = (design: Design): ReadonlySet<string> =>
  new Set(bundleVerdicts(design).flatMap((v) => (v.outcome === 'one-sided' ? v.members.map((m) => m.port) : [])));

/** `100M`, `2.5G` */
export function speedLabel(speed: number): string {
  return speed >= 1000 ? `${speed / 1000}G` : `${speed}M`;
}

/** A port with the switch that it sits on: of a pair that acts as one bridge, that may be the second. */
export type WireEnd = { port: number; home: number } | { spot: number };

export interface Ends {
  id: string;
  kind: WireItem['kind'];
  a: WireEnd;
  b: WireEnd;
  label: string | null;
  /** A peer link: inside a pair that acts as one bridge switch. */
  peer?: boolean;
  /** Bundles that forward at one end only, which spanning tree does not see. */
  unseen?: boolean;
}

/** Wires to draw: each link outside a bundle, each bundle once, each attachment of a segment, each host's cable. */
export function wireEnds(topology: Topology, spotIndex: ReadonlyMap<string, number>): Ends[] {
  const { design, portIndex, ports } = topology;
  const homeIndex = new Map(design.switches.map((s, i) => [s.id, i]));
  const ends: Ends[] = [];
  const legs = new Map<string, { end: Ends; active: number; members: number; speed: number }>();
  const index = (id: string) => portIndex.get(id)!;
  const at = (id: string): WireEnd => ({ port: index(id), home: homeIndex.get(portById(design, id)!.switch)! });
  const end = (e: Link['a']): WireEnd => ('port' in e ? at(e.port) : { spot: spotIndex.get(e.host)! });
  const blind = oneSidedMembers(design);
  for (const link of design.links) {
    const [a, b] = [end(link.a), end(link.b)];
    const unseen = [link.a, link.b].some((e) => 'port' in e && blind.has(e.port)) ? { unseen: true } : {};
    if (!('port' in a && 'port' in b)) {
      ends.push({ id: link.id, kind: 'host', a, b, label: null, ...unseen });
    } else if (ports[a.port]!.kind === 'bundle' && ports[b.port]!.kind === 'bundle') {
      const key = [a, b]
        .map((e) => `${e.port} ${e.home}`)
        .sort()
        .join('\n');
      const leg = legs.get(key);
      if (leg) leg.active++;
      else {
        const { element } = ports[a.port]!;
        const own = { id: element.id, kind: 'bundle' as const, a, b, label: null };
        legs.set(key, { end: own, active: 1, members: 0, speed: linkSpeed(design, link) });
        ends.push(own);
      }
    } else {
      const peer = 'port' in link.a && isPeerPort(design, link.a.port) ? { peer: true } : {};
      // One word for all cables of a peer link.
      const named = 'peer' in peer && !ends.some((e) => e.peer && 'port' in e.a && e.a.home === a.home);
      ends.push({ id: link.id, kind: 'link', a, b, label: named ? 'peer link' : null, ...peer, ...unseen });
    }
  }
  for (const { end: own, active, speed } of legs.values())
    own.label = bundleLabel(active, memberCount(topology, own), speed);
  for (const segment of design.segments)
    for (const port of segment.ports)
      ends.push({
        id: segment.id,
        kind: 'segment',
        a: at(port),
        b: { spot: spotIndex.get(segment.id)! },
        label: null,
      });
  return ends;
}

/** Distance below the middle of a plate at which wires reach a segment from above. */
const BELOW = PLATE.height + 15;

/** A place as near as can be at which a segment stands on no plate, and beside none. */
function besidePlates(middle: Point, plates: readonly Point[]): Point {
  const taken = (p: Point) =>
    plates.find(({ x, y }) => Math.abs(x - p.x) < PLATE.width / 2 + 24 && Math.abs(y - p.y) < BELOW - 1);
  let at = middle;
  for (let tries = 0; tries < 8; tries++) {
    const plate = taken(at);
    if (!plate) return at;
    at = { x: at.x, y: plate.y + BELOW };
  }
  return at;
}

/** The port at which the first cable of each host ends. */
function portsOfHosts({ links }: Design): Map<string, string> {
  const ports = new Map<string, string>();
  for (const { a, b } of links) {
    if ('host' in a && 'port' in b) ports.set(a.host, b.port);
    if ('host' in b && 'port' in a) ports.set(b.host, a.port);
  }
  return ports;
}

/** Hosts that are plugged in, and segments, in the order in which `wireEnds` counts them. */
export function spotIds({ design }: Topology): string[] {
  const ports = portsOfHosts(design);
  return [...design.hosts.filter((h) => ports.has(h.id)), ...design.segments].map((s) => s.id);
}

/** Hosts beside their switch, or where they were put, none of a plate that stands for several; segments in the middle of what they join. */
export function placeSpots(topology: Topology, arranged: Arranged, folding: Folding, free: boolean): SpotItem[] {
  const { design } = topology;
  const { cells, cellOf } = folding;
  const homeIndex = new Map(design.switches.map((s, i) => [s.id, i]));
  const cellAt = (portId: string) => cellOf[homeIndex.get(portById(design, portId)!.switch)!]!;
  const beside = new Map<number, number>();
  const portOfHost = portsOfHosts(design);
  const hosts = design.hosts.flatMap((host): SpotItem[] => {
    const port = portOfHost.get(host.id);
    if (port === undefined) return [];
    const cell = cellAt(port);
    if (cells[cell]!.kind !== 'switch') return [];
    if (free && host.x !== undefined && host.y !== undefined)
      return [{ id: host.id, kind: 'host', name: host.name, x: host.x, y: host.y }];
    const at = arranged.at[cell]!;
    const n = beside.get(cell) ?? 0;
    beside.set(cell, n + 1);
    const [dx, dy] = arranged.leaves.has(cell) ? [0, HOST.below + n * HOST.dy] : [HOST.dx, n * HOST.dy];
    return [{ id: host.id, kind: 'host', name: host.name, x: at.x + dx, y: at.y + dy }];
  });
  const segments = design.segments.map((segment): SpotItem => {
    const around = segment.ports.map((id) => arranged.at[cellAt(id)]!);
    const mean = (k: 'x' | 'y') => around.reduce((sum, p) => sum + p[k], 0) / Math.max(1, around.length);
    const own = free && segment.x !== undefined && segment.y !== undefined;
    const middle = { x: mean('x'), y: mean('y') + (around.length < 2 ? 80 : 0) };
    const at = own ? { x: segment.x!, y: segment.y! } : besidePlates(middle, arranged.at);
    return { id: segment.id, kind: 'segment', name: segment.name, ...at };
  });
  return [...hosts, ...segments];
}
