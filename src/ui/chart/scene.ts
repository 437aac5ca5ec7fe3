/**
 * The chart of one tree as plain values: plates, pegs, wires, hosts. Built from a solved design, drawn by components,
 * measured by tests.
 */
import { bundleVerdicts, isPeerPort, sharedWith } from '../../core/bundles';
import type { Bundle, Design, Link } from '../../core/design';
import { linkSpeed, portById, priorityInForce } from '../../core/design';
import { heldIn, isAccidentalRoot, nextRoot, roleAt, rootsOf } from '../../core/trees';
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
  /** Unique among the pegs. */
  readonly key: string;
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
  /** A bundle here forwards at one end only: a loop or a black hole that the trees do not see. */
  readonly unseen?: boolean;
  /** Frames go round over it at the moment. */
  readonly round?: boolean;
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

/** Members of bundles of which only one end forwards: frames go round or are lost there, unseen by the trees. */
const oneSidedMembers = (design: Design): ReadonlySet<string> =>
  new Set(bundleVerdicts(design).flatMap((v) => (v.outcome === 'one-sided' ? v.members.map((m) => m.port) : [])));

/** `100M`, `2.5G` */
export function speedLabel(speed: number): string {
  return speed >= 1000 ? `${speed / 1000}G` : `${speed}M`;
}

/** A port with the switch that it sits on: of a pair that acts as one, that may be the second. */
type WireEnd = { port: number; home: number } | { spot: number };

interface Ends {
  id: string;
  kind: WireItem['kind'];
  a: WireEnd;
  b: WireEnd;
  label: string | null;
  /** A peer link: inside a pair that acts as one switch. */
  peer?: boolean;
  /** Bundles that forward at one end only, which spanning tree does not see. */
  unseen?: boolean;
}

/** Wires to draw: each link outside a bundle, each bundle once, each attachment of a segment, each host's cable. */
function wireEnds(topology: Topology, spotIndex: ReadonlyMap<string, number>): Ends[] {
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

/** Hosts beside their switch, or where they were put; segments in the middle of what they join. */
function placeSpots(topology: Topology, arranged: Arranged, free: boolean): SpotItem[] {
  const { design } = topology;
  const homeIndex = new Map(design.switches.map((s, i) => [s.id, i]));
  const bridgeAt = (portId: string) => arranged.at[homeIndex.get(portById(design, portId)!.switch)!]!;
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
    const bridge = homeIndex.get(portById(design, port)!.switch)!;
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
  const { design, actsAs } = solved.topology;
  const standing = design.switches.map((s, b): Standing =>
    s.off ? 'off' : of.outcome.root[actsAs[b]!]! < 0 ? 'outside' : 'plain',
  );
  for (const root of rootsOf(of)) {
    standing[root] = isAccidentalRoot(solved, of, root) ? 'accidental-root' : 'root';
    const next = nextRoot(solved, of, root);
    if (next >= 0) standing[next] = 'next';
  }
  actsAs.forEach((acts, b) => (standing[b] = standing[acts]!));
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
  const bridgeOf = (end: WireEnd) => ('port' in end ? end.home : null);
  const place = (end: WireEnd): Point => ('port' in end ? arranged.at[end.home]! : spots[end.spot]!);
  const attachments = ends.map(({ a, b }): Attachment => ({
    a: { bridge: bridgeOf(a), port: 'port' in a ? a.port : -1, at: place(a) },
    b: { bridge: bridgeOf(b), port: 'port' in b ? b.port : -1, at: place(b) },
  }));
  const { anchors, width, crowded } = attachPegs(arranged.at, attachments);
  const roleOf = (end: WireEnd) => ('port' in end ? roleAt(of, end.port) : null);

  const held = new Set(heldIn(topology, of.tree.vlan));
  const isHeld = ({ a, b }: Ends) => [a, b].some((end) => 'port' in end && held.has(end.port));
  const regions = regionsOf(solved);
  const pegs: PegItem[] = [];
  // A bundle to a pair of switches has a peg on each wire.
  const pegged = new Map<string, number>();
  const wires = ends.map((end, i): WireItem => {
    const [a, b] = anchors[i]!;
    for (const [side, anchor] of [
      [end.a, a],
      [end.b, b],
    ] as const)
      if ('port' in side) {
        const { id } = topology.ports[side.port]!.element;
        const seen = pegged.get(id) ?? 0;
        pegged.set(id, seen + 1);
        pegs.push({
          key: seen === 0 ? id : `${id} ${seen}`,
          x: anchor.x,
          y: anchor.y,
          nx: anchor.nx,
          ny: anchor.ny,
          id,
          role: end.peer ? 'port' : roleAt(of, side.port),
          ...boundaryAt(regions, side.port),
          crowded: crowded[side.home]!,
        });
      }
    const [portA, portB] = [end.a, end.b].map((e) => ('port' in e ? topology.ports[e.port]!.element.id : null));
    const { state, cutA, cutB } = end.peer
      ? { state: 'open' as const, cutA: false, cutB: false }
      : wireState(roleOf(end.a), roleOf(end.b));
    const leg = 'port' in end.a && 'port' in end.b && pegged.get(portA!)! > 1 ? ` ${portB}` : '';
    return {
      key: `${end.kind} ${portA ?? portB}${leg}`,
      id: end.id,
      portA: portA ?? null,
      portB: portB ?? null,
      kind: end.kind,
      a,
      b,
      label: end.unseen ? 'one end only' : isHeld(end) ? 'inconsistent' : end.label,
      ...(end.unseen ? { alarm: true, unseen: true } : isHeld(end) ? { alarm: true } : {}),
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
