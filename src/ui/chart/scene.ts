/**
 * The chart of one tree as plain values: plates, pegs, wires, hosts. Where things are comes from the arrangement, what
 * they show from what stands in the tree. Drawn by components, measured by tests.
 */
import { priorityInForce } from '../../core/design';
import type { SolvedDesign, SolvedTree, Topology } from '../../core/trees';
import type { Arranged } from './arrange';
import { placeSpots, wireEnds } from './ends';
import type { Ends, WireEnd } from './ends';
import type { Point } from './geometry';
import { attachPegs } from './pegs';
import { regionsOf } from './regions';
import { routed } from './routing';
import type { Regions } from './regions';
import { solvedStands } from './stands';
import type { PortStands, Stands } from './stands';
import type { PlateItem, Standing, PegItem, WireState, WireItem, Scene } from './scene-items';

type FramePeg = Omit<PegItem, 'role'> & { readonly peer: boolean };
type FrameWire = Omit<WireItem, 'state' | 'blockedA' | 'blockedB' | 'round'> & { readonly peer: boolean };
type FramePlate = Omit<PlateItem, 'standing' | 'tag' | 'spoken'>;

/** A scene before anything is said about the tree: the same for every moment of a run. */
export interface SceneFrame extends Omit<Scene, 'plates' | 'pegs' | 'wires'> {
  readonly plates: readonly FramePlate[];
  readonly pegs: readonly FramePeg[];
  readonly wires: readonly FrameWire[];
}

const STANDING_WORD: Record<Standing, string> = {
  root: 'root',
  'mac-only-root': 'root by MAC address only',
  next: 'next',
  plain: '',
  outside: 'not in this tree',
  off: 'off',
  apart: '',
};

const TAG: Partial<Record<Standing, string>> = { 'mac-only-root': 'root', outside: 'not in tree' };

/** What stands at its ends makes of a wire. An end that is null is a host or a segment. */
export function wireState(
  a: PortStands['frames'] | null,
  b: PortStands['frames'] | null,
): Pick<WireItem, 'state' | 'blockedA' | 'blockedB'> {
  const state = (s: WireState, blockedA = false, blockedB = false) => ({ state: s, blockedA, blockedB });
  if (a === 'down' || b === 'down') return state('down');
  const [outA, outB] = [a === 'outside', b === 'outside'];
  if ((outA || a === null) && (outB || b === null) && (outA || outB)) return state('outside');
  if (outA || outB) return state('half', outA, outB);
  const [blockedA, blockedB] = [a === 'blocked', b === 'blocked'];
  return state(blockedA || blockedB ? 'blocked' : 'open', blockedA, blockedB);
}

/** A bundle to a pair of switches has a peg on each wire: the second and later ones have numbers. */
function pegsOf(
  { ports }: Topology,
  regions: Regions,
  ends: readonly Ends[],
  { anchors, crowded }: ReturnType<typeof attachPegs>,
) {
  const pegged = new Map<string, number>();
  const pegs: FramePeg[] = [];
  const leg = ends.map((end, i) => {
    for (const [side, { x, y, nx, ny }] of [
      [end.a, anchors[i]![0]],
      [end.b, anchors[i]![1]],
    ] as const) {
      if (!('port' in side)) continue;
      const { id } = ports[side.port]!.element;
      const seen = pegged.get(id) ?? 0;
      pegged.set(id, seen + 1);
      const boundary = regions.boundary(side.port);
      const key = seen === 0 ? id : `${id} ${seen}`;
      const where = boundary === 0 ? {} : { boundary };
      pegs.push({ key, x, y, nx, ny, id, peer: end.peer === true, ...where, crowded: crowded[side.home]! });
    }
    return 'port' in end.a && 'port' in end.b && pegged.get(ports[end.a.port]!.element.id)! > 1;
  });
  return { pegs, leg };
}

/** Where everything of a tree is in an arrangement. */
export function frameOf(solved: SolvedDesign, of: SolvedTree, arranged: Arranged): SceneFrame {
  const { topology } = solved;
  const { design } = topology;
  const spots = placeSpots(topology, arranged, arranged.ruler.length === 0);
  const ends = wireEnds(topology, new Map(spots.map((s, i) => [s.id, i])));
  const place = (end: WireEnd): Point => ('port' in end ? arranged.at[end.home]! : spots[end.spot]!);
  const attached = (end: WireEnd) => ({
    bridge: 'port' in end ? end.home : null,
    port: 'port' in end ? end.port : -1,
    at: place(end),
  });
  const attachedPegs = attachPegs(
    arranged.at,
    ends.map(({ a, b }) => ({ a: attached(a), b: attached(b) })),
  );
  const { anchors, width } = attachedPegs;
  const regions = regionsOf(solved);
  const { pegs, leg } = pegsOf(topology, regions, ends, attachedPegs);
  const home = (end: WireEnd) => ('port' in end ? end.home : null);
  const ways = routed(
    arranged.at.map((at, i) => ({ ...at, width: width[i]! })),
    ends.map((end, i) => ({ a: anchors[i]![0], b: anchors[i]![1], from: home(end.a), to: home(end.b) })),
  );
  const wires = ends.map((end, i): FrameWire => {
    const [portA, portB] = [end.a, end.b].map((e) => ('port' in e ? topology.ports[e.port]!.element.id : null));
    return {
      key: `${end.kind} ${portA ?? portB}${leg[i] ? ` ${portB}` : ''}`,
      id: end.id,
      portA: portA ?? null,
      portB: portB ?? null,
      kind: end.kind,
      a: anchors[i]![0],
      b: anchors[i]![1],
      ...(ways[i]!.length > 0 ? { via: ways[i]! } : {}),
      label: end.unseen ? 'one end only' : end.label,
      ...(end.unseen ? { alarm: true, unseen: true } : {}),
      peer: end.peer === true,
    };
  });
  const plates = design.switches.map((s, i): FramePlate => {
    const region = regions.of(i);
    return {
      id: s.id,
      name: s.name,
      ...arranged.at[i]!,
      width: width[i]!,
      note: String(priorityInForce(design, s, of.tree).value),
      ...(region ? { region } : {}),
    };
  });
  return { plates, pegs, wires, spots, ruler: arranged.ruler, outside: arranged.outside };
}

function wireIn(stands: Stands, { peer, ...wire }: FrameWire): WireItem {
  if (peer) return { ...wire, state: 'open', blockedA: false, blockedB: false };
  const [a, b] = [wire.portA, wire.portB].map((id) => (id === null ? null : stands.port(id)));
  const either = (mark: 'inconsistent' | 'shut') => a?.[mark] === true || b?.[mark] === true;
  const looping = [a, b].every((end) => !end || end.looping === true);
  return {
    ...wire,
    ...(either('inconsistent') && !wire.unseen ? { label: 'inconsistent', alarm: true } : {}),
    ...(either('shut') ? { label: 'BPDU guard', alarm: true } : {}),
    ...(looping ? { round: true, label: 'loop', alarm: true } : {}),
    ...wireState(a?.frames ?? null, b?.frames ?? null),
  };
}

function plateIn(standing: Standing, plate: FramePlate): PlateItem {
  const word = STANDING_WORD[standing];
  const spoken = [plate.name, word, `priority ${plate.note}`].filter(Boolean).join(', ');
  return { ...plate, standing, tag: TAG[standing] ?? word, spoken };
}

/** The scene of what stands in a tree. */
export function buildScene({ plates, pegs, wires, ...rest }: SceneFrame, stands: Stands): Scene {
  return {
    ...rest,
    plates: plates.map((plate, i) => plateIn(stands.switch(i), plate)),
    pegs: pegs.map(({ peer, ...peg }) => ({ ...peg, role: peer ? 'port' : stands.port(peg.id).role })),
    wires: wires.map((wire) => wireIn(stands, wire)),
  };
}

/** The scene of a tree at rest, in an arrangement. */
export const sceneOf = (solved: SolvedDesign, of: SolvedTree, arranged: Arranged): Scene =>
  buildScene(frameOf(solved, of, arranged), solvedStands(solved, of));
