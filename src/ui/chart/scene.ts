/**
 * The chart of one tree as plain values: plates, pegs, wires, hosts. Built from a solved design, drawn by components,
 * measured by tests.
 */
import { priorityInForce } from '../../core/design';
import { heldIn, isAccidentalRoot, nextRoot, roleAt, rootsOf } from '../../core/trees';
import type { Role, SolvedDesign, SolvedTree } from '../../core/trees';
import type { Arranged } from './arrange';
import { attachPegs } from './pegs';
import type { Attachment } from './pegs';
import { placeSpots, wireEnds } from './ends';
import type { Ends, WireEnd } from './ends';
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
