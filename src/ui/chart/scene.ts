/**
 * The chart of one tree as plain values: plates, pegs, wires, hosts. Built from a solved design, drawn by components,
 * measured by tests.
 */
import type { Design, Link } from '../../core/design';
import { portById, priorityInForce } from '../../core/design';
import { isAccidentalRoot, nextRoot, roleAt, rootsOf } from '../../core/trees';
import type { Role, SolvedDesign, SolvedTree, Topology } from '../../core/trees';
import type { Arranged } from './arrange';
import { attachPegs } from './pegs';
import type { Attachment } from './pegs';
import { PLATE } from './geometry';
import { regionsOf } from './regions';
import type { Regions } from './regions';
import type { Anchor, Point } from './geometry';

export interface PlateItem extends Point {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  /** Second line: what is worth knowing of the switch in this view. */
  readonly note: string;
  /** Word at the right of the second line; empty for none. */
  readonly tag: string;
  /** The plate in words, for those who do not see it. */
  readonly spoken: string;
  readonly standing: Standing;
  /** MST region, where there are any: its name and its hue. */
  readonly region?: { readonly name: string; readonly hue: number };
}
export type Standing = 'root' | 'accidental-root' | 'next' | 'plain' | 'outside' | 'off' | 'apart';

export interface PegItem extends Anchor {
  /** Port or bundle. */
  readonly id: string;
  readonly role: Role | 'port';
  /** Name of the port, where the view shows it. */
  readonly name?: string | undefined;
  /** Faces another MST region: 1 where the link is the neighbour's, 2 where it is one's own. */
  readonly boundary?: 1 | 2;
  /** Smaller where many ports crowd on one edge. */
  readonly crowded: boolean;
}

/** How a wire is drawn in the tree in view. */
export type WireState = 'open' | 'cut' | 'down' | 'half' | 'outside';

export interface WireItem {
  /** Unique among the wires; a segment has one a port. */
  readonly key: string;
  readonly id: string;
  /** Ports or bundles at the ends; null where a host or segment is. */
  readonly portA: string | null;
  readonly portB: string | null;
  readonly kind: 'link' | 'bundle' | 'segment' | 'host' | 'ghost';
  readonly a: Anchor;
  readonly b: Anchor;
  readonly state: WireState;
  readonly cutA: boolean;
  readonly cutB: boolean;
  readonly label: string | null;
  /** Share of the way at which the label stands; the middle when absent. */
  readonly labelAt?: number;
  /** Whether the label tells of something wrong. */
  readonly alarm?: boolean;
  /** Weight of the line by rate, 1 to 4, where the view shows it. */
  readonly weight?: number;
}

export interface SpotItem extends Point {
  readonly id: string;
  readonly kind: 'host' | 'segment';
  readonly name: string;
  /** Whether it is cut off from what it belongs to. */
  readonly alarm?: boolean;
}

export interface Scene {
  readonly plates: readonly PlateItem[];
  readonly pegs: readonly PegItem[];
  readonly wires: readonly WireItem[];
  readonly spots: readonly SpotItem[];
  readonly ruler: Arranged['ruler'];
  readonly outside: number | null;
}

const HOST = { dx: PLATE.width / 2 + 62, dy: 26, below: PLATE.height / 2 + 40 } as const;

/** `2 × 10G`, or `1 of 2 × 1G` when members are missing. */
function bundleLabel(design: Design, members: readonly string[], active: number): string {
  const speed = portById(design, members[0]!)?.speed ?? 0;
  const count = active === members.length ? `${active}` : `${active} of ${members.length}`;
  return `${count} × ${speedLabel(speed)}`;
}

/** `100M`, `2.5G` */
export function speedLabel(speed: number): string {
  return speed >= 1000 ? `${speed / 1000}G` : `${speed}M`;
}

type WireEnd = { port: number } | { spot: number };

interface Ends {
  id: string;
  kind: WireItem['kind'];
  a: WireEnd;
  b: WireEnd;
  label: string | null;
}

/** Wires to draw: each link outside a bundle, each bundle once, each attachment of a segment, each host's cable. */
function wireEnds(topology: Topology, spotIndex: ReadonlyMap<string, number>): Ends[] {
  const { design, portIndex, ports } = topology;
  const ends: Ends[] = [];
  const bundlesDone = new Set<number>();
  const index = (id: string) => portIndex.get(id)!;
  const end = (e: Link['a']): WireEnd => ('port' in e ? { port: index(e.port) } : { spot: spotIndex.get(e.host)! });
  for (const link of design.links) {
    const [a, b] = [end(link.a), end(link.b)];
    if ('port' in a && 'port' in b && ports[a.port]!.kind === 'bundle' && ports[b.port]!.kind === 'bundle') {
      if (bundlesDone.has(a.port)) continue;
      bundlesDone.add(a.port).add(b.port);
      const bundle = ports[a.port]!.element;
      const active = 'members' in bundle ? bundle.members.filter((m) => index(m) === a.port).length : 0;
      const label = 'members' in bundle ? bundleLabel(design, bundle.members, active) : null;
      ends.push({ id: bundle.id, kind: 'bundle', a, b, label });
    } else ends.push({ id: link.id, kind: 'spot' in a || 'spot' in b ? 'host' : 'link', a, b, label: null });
  }
  for (const segment of design.segments)
    for (const port of segment.ports)
      ends.push({
        id: segment.id,
        kind: 'segment',
        a: { port: index(port) },
        b: { spot: spotIndex.get(segment.id)! },
        label: null,
      });
  return ends;
}

/** Hosts beside their switch, or where they were put; segments in the middle of what they join. */
function placeSpots(topology: Topology, arranged: Arranged, free: boolean): SpotItem[] {
  const { design } = topology;
  const bridgeAt = (portId: string) => arranged.at[topology.bridgeIndex.get(portById(design, portId)!.switch)!]!;
  const beside = new Map<Point, number>();
  const portOfHost = new Map<string, string>();
  for (const { a, b } of design.links) {
    if ('host' in a && 'port' in b) portOfHost.set(a.host, b.port);
    if ('host' in b && 'port' in a) portOfHost.set(b.host, a.port);
  }
  const hosts = design.hosts.flatMap((host): SpotItem[] => {
    const port = portOfHost.get(host.id);
    if (port === undefined) return [];
    if (free && host.x !== undefined && host.y !== undefined)
      return [{ id: host.id, kind: 'host', name: host.name, x: host.x, y: host.y }];
    const bridge = topology.bridgeIndex.get(portById(design, port)!.switch)!;
    const at = arranged.at[bridge]!;
    const n = beside.get(at) ?? 0;
    beside.set(at, n + 1);
    const [dx, dy] = arranged.leaves.has(bridge) ? [0, HOST.below + n * HOST.dy] : [HOST.dx, n * HOST.dy];
    return [{ id: host.id, kind: 'host', name: host.name, x: at.x + dx, y: at.y + dy }];
  });
  const segments = design.segments.map((segment): SpotItem => {
    const around = segment.ports.map(bridgeAt);
    const mean = (k: 'x' | 'y') => around.reduce((sum, p) => sum + p[k], 0) / Math.max(1, around.length);
    const own = free && segment.x !== undefined && segment.y !== undefined;
    const at = own ? { x: segment.x!, y: segment.y! } : { x: mean('x'), y: mean('y') + (around.length < 2 ? 80 : 0) };
    return { id: segment.id, kind: 'segment', name: segment.name, ...at };
  });
  return [...hosts, ...segments];
}

/** What the roles at its ends make of a wire. An end that is null is a host or a segment. */
function wireState(a: Role | null, b: Role | null): { state: WireState; cutA: boolean; cutB: boolean } {
  const cut = (role: Role | null) => role === 'alternate' || role === 'backup';
  if (a === 'disabled' || b === 'disabled') return { state: 'down', cutA: false, cutB: false };
  if (a === 'none' && (b === 'none' || b === null)) return { state: 'outside', cutA: false, cutB: false };
  if (b === 'none' && a === null) return { state: 'outside', cutA: false, cutB: false };
  if (a === 'none' || b === 'none') return { state: 'half', cutA: a === 'none', cutB: b === 'none' };
  return { state: cut(a) || cut(b) ? 'cut' : 'open', cutA: cut(a), cutB: cut(b) };
}

/** What a switch is in a tree, in words. */
const STANDING_WORD: Record<Standing, string> = {
  root: 'root',
  'accidental-root': 'root by accident',
  next: 'next',
  plain: '',
  outside: 'not in this tree',
  off: 'off',
  apart: '',
};

function standings(solved: SolvedDesign, of: SolvedTree): Standing[] {
  const { design } = solved.topology;
  const standing = design.switches.map((s, b): Standing =>
    s.off ? 'off' : of.outcome.root[b]! < 0 ? 'outside' : 'plain',
  );
  for (const root of rootsOf(of)) {
    standing[root] = isAccidentalRoot(solved, of, root) ? 'accidental-root' : 'root';
    const next = nextRoot(solved, of, root);
    if (next >= 0) standing[next] = 'next';
  }
  return standing;
}

function boundaryAt(regions: Regions, port: number): Pick<PegItem, 'boundary'> {
  const boundary = regions.boundary(port);
  return boundary === 0 ? {} : { boundary };
}

function regionAt(regions: Regions, bridge: number): Pick<PlateItem, 'region'> {
  const region = regions.of(bridge);
  return region ? { region } : {};
}

/** The scene of a tree in an arrangement. */
export function buildScene(solved: SolvedDesign, of: SolvedTree, arranged: Arranged): Scene {
  const { topology } = solved;
  const { design } = topology;
  const spots = placeSpots(topology, arranged, arranged.ruler.length === 0);
  const ends = wireEnds(topology, new Map(spots.map((s, i) => [s.id, i])));
  const bridgeOf = (end: WireEnd) => ('port' in end ? topology.portBridge[end.port]! : null);
  const place = (end: WireEnd): Point =>
    'port' in end ? arranged.at[topology.portBridge[end.port]!]! : spots[end.spot]!;
  const attachments = ends.map(({ a, b }): Attachment => ({
    a: { bridge: bridgeOf(a), port: 'port' in a ? a.port : -1, at: place(a) },
    b: { bridge: bridgeOf(b), port: 'port' in b ? b.port : -1, at: place(b) },
  }));
  const { anchors, width, crowded } = attachPegs(arranged.at, attachments);
  const roleOf = (end: WireEnd) => ('port' in end ? roleAt(of, end.port) : null);

  const regions = regionsOf(solved);
  const pegs: PegItem[] = [];
  const wires = ends.map((end, i): WireItem => {
    const [a, b] = anchors[i]!;
    for (const [side, anchor] of [
      [end.a, a],
      [end.b, b],
    ] as const)
      if ('port' in side) {
        const { id } = topology.ports[side.port]!.element;
        pegs.push({
          x: anchor.x,
          y: anchor.y,
          nx: anchor.nx,
          ny: anchor.ny,
          id,
          role: roleAt(of, side.port),
          ...boundaryAt(regions, side.port),
          crowded: crowded[topology.portBridge[side.port]!]!,
        });
      }
    const [portA, portB] = [end.a, end.b].map((e) => ('port' in e ? topology.ports[e.port]!.element.id : null));
    const { state, cutA, cutB } = wireState(roleOf(end.a), roleOf(end.b));
    return {
      key: `${end.kind} ${portA ?? portB}`,
      id: end.id,
      portA: portA ?? null,
      portB: portB ?? null,
      kind: end.kind,
      a,
      b,
      label: end.label,
      state,
      cutA,
      cutB,
    };
  });
  const standing = standings(solved, of);
  const plates = design.switches.map((s, i): PlateItem => {
    const priority = String(priorityInForce(design, s, of.tree).value);
    const word = STANDING_WORD[standing[i]!];
    return {
      id: s.id,
      name: s.name,
      ...arranged.at[i]!,
      width: width[i]!,
      note: priority,
      tag: standing[i] === 'accidental-root' ? 'root' : standing[i] === 'outside' ? 'no part' : word,
      spoken: [s.name, word, `priority ${priority}`].filter(Boolean).join(', '),
      standing: standing[i]!,
      ...regionAt(regions, i),
    };
  });
  return { plates, pegs, wires, spots, ruler: arranged.ruler, outside: arranged.outside };
}
