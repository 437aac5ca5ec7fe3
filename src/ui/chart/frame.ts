/** Where everything of a tree is: plates, pegs, wires and spots in an arrangement, before anything is said about the tree. */
import { priorityInForce } from '../../core/design';
import { systemIdExtension } from '../../core/network';
import { priorityWords } from '../../core/standard';
import type { SolvedDesign, SolvedTree, Topology } from '../../core/trees';
import type { Arranged } from './arrange';
import { placeSpots, spotIds, wireEnds } from './ends';
import type { Ends, WireEnd } from './ends';
import { isFold, unfolded } from './cells';
import type { Cell, Folding } from './cells';
import type { Point } from './geometry';
import { labelPlaces } from './labels';
import { single } from './merging';
import type { MergedEnds } from './merging';
import { notesIn } from './notes';
import { attachPegs } from './pegs';
import { regionsOf } from './regions';
import type { Regions } from './regions';
import { routed } from './routing';
import type { PegItem, PlateItem, Scene, WireItem } from './scene-items';

type FramePeg = Omit<PegItem, 'role'> & { readonly peer: boolean };
type FrameWire = Omit<WireItem, 'state' | 'blockedA' | 'blockedB' | 'round'> & { readonly peer: boolean };
type FramePlate = Omit<PlateItem, 'standing' | 'tag' | 'spoken'> & {
  /** Switch that stands for the plate, by index. */
  readonly bridge: number;
};

/** A scene before anything is said about the tree: the same for every moment of a run. */
export interface SceneFrame extends Omit<Scene, 'plates' | 'pegs' | 'wires'> {
  readonly plates: readonly FramePlate[];
  readonly pegs: readonly FramePeg[];
  readonly wires: readonly FrameWire[];
}

const identify =
  ({ ports }: Topology) =>
  (port: number) =>
    ports[port]!.element.id;

/** What a drawing is made from: which plates there are, and the wires between them. */
export interface Drawn {
  readonly folding: Folding;
  readonly ends: readonly MergedEnds[];
}

/** All plates and wires of a design. */
export const allDrawn = ({ topology }: SolvedDesign): Drawn => ({
  folding: unfolded(topology.design),
  ends: allEnds(topology).map(single),
});

/** Every wire of a design. */
export const allEnds = (topology: Topology): readonly Ends[] =>
  wireEnds(topology, new Map(spotIds(topology).map((id, i) => [id, i])));

/** A bundle to a pair of switches has a peg on each wire: the second and later ones have numbers. */
function pegsOf(
  topology: Topology,
  regions: Regions,
  ends: readonly MergedEnds[],
  cellOf: readonly number[],
  { anchors, crowded }: ReturnType<typeof attachPegs>,
) {
  const idOf = identify(topology);
  const pegged = new Map<string, number>();
  const pegs: FramePeg[] = [];
  const leg = ends.map((end, i) => {
    for (const [side, behind, { x, y, nx, ny }] of [
      [end.a, end.behindA, anchors[i]![0]],
      [end.b, end.behindB, anchors[i]![1]],
    ] as const) {
      if (!('port' in side)) continue;
      const id = idOf(side.port);
      const seen = pegged.get(id) ?? 0;
      pegged.set(id, seen + 1);
      const boundary = regions.boundary(side.port);
      const key = seen === 0 ? id : `${id} ${seen}`;
      const where = boundary === 0 ? {} : { boundary };
      const also = behind.length > 0 ? { also: behind.map(idOf) } : {};
      const isCrowded = crowded[cellOf[side.home]!]!;
      pegs.push({ key, x, y, nx, ny, id, peer: end.peer === true, ...where, ...also, crowded: isCrowded });
    }
    return 'port' in end.a && 'port' in end.b && pegged.get(idOf(end.a.port))! > 1;
  });
  return { pegs, leg };
}

/** The number of wires stands near the plate that stands for several; those of one plate at different heights. */
function usualLabels({ cells, cellOf }: Folding, ends: readonly MergedEnds[]): number[] {
  const seen = cells.map(() => 0);
  return ends.map(({ a, b, count }) => {
    const [first, second] = [a, b].map((end) => ('port' in end && isFold(cells[cellOf[end.home]!]!) ? end : null));
    const at = second ?? first;
    if (count === 1 || !at || !('port' in at)) return 0.5;
    const away = LABEL.near + LABEL.step * (seen[cellOf[at.home]!]!++ % LABEL.steps);
    return second ? 1 - away : away;
  });
}

const LABEL = { near: 0.26, step: 0.1, steps: 4 } as const;

const labelOf = ({ unseen, label }: MergedEnds): string | null => (unseen ? 'one end only' : label);

function frameWire(idOf: (port: number) => string, end: MergedEnds, isLeg: boolean, labelAt: number) {
  const [portA, portB] = [end.a, end.b].map((e) => ('port' in e ? idOf(e.port) : null));
  return {
    key: `${end.kind} ${portA ?? portB}${isLeg ? ` ${portB}` : ''}`,
    id: end.id,
    portA: portA ?? null,
    portB: portB ?? null,
    kind: end.kind,
    label: labelOf(end),
    labelAt,
    ...(end.count > 1 ? { count: end.count } : {}),
    ...(end.unseen ? { alarm: true, unseen: true } : {}),
    peer: end.peer === true,
  };
}

/** Second line of a plate: the priority of a switch, of a fold how many switches it is. */
function secondOf({ topology: { design } }: SolvedDesign, of: SolvedTree, cell: Cell): string {
  if (!isFold(cell)) {
    const { value } = priorityInForce(design, design.switches[cell.members[0]!]!, of.tree);
    return priorityWords(value + systemIdExtension(of.tree));
  }
  if (cell.kind === 'alike') return cell.blocked > 0 ? `${cell.blocked} blocked` : 'none blocked';
  return `${cell.members.length} switches`;
}

/** The plate of a cell, where it stands. */
function framePlate(
  solved: SolvedDesign,
  of: SolvedTree,
  regions: Regions,
  cell: Cell,
  at: Point & { readonly width: number },
): FramePlate {
  const { design } = solved.topology;
  const [region, ...others] = cell.members.map(regions.of);
  const isOne = others.every((r) => r?.name === region?.name);
  return {
    id: cell.id,
    bridge: cell.members[0]!,
    name: cell.name,
    ...at,
    second: secondOf(solved, of, cell),
    ...(isFold(cell) ? { fold: { switches: cell.members.map((m) => design.switches[m]!.id), kind: cell.kind } } : {}),
    ...(cell.unlike === null ? {} : { unlike: cell.unlike }),
    ...(region && isOne ? { region } : {}),
  };
}

/** Where everything of a tree is in an arrangement. */
export function frameOf(
  solved: SolvedDesign,
  of: SolvedTree,
  arranged: Arranged,
  { folding, ends }: Drawn = allDrawn(solved),
): SceneFrame {
  const { topology } = solved;
  const { design } = topology;
  const { cells, cellOf } = folding;
  const spots = placeSpots(topology, arranged, folding, arranged.ruler.length === 0);
  const spotAt = new Map(spots.map((s) => [s.id, s]));
  const ids = spotIds(topology);
  const place = (end: WireEnd): Point =>
    'port' in end ? arranged.at[cellOf[end.home]!]! : spotAt.get(ids[end.spot]!)!;
  const attached = (end: Ends['a']) => ({
    bridge: 'port' in end ? cellOf[end.home]! : null,
    port: 'port' in end ? end.port : -1,
    at: place(end),
  });
  const attachedPegs = attachPegs(
    arranged.at,
    ends.map(({ a, b }) => ({ a: attached(a), b: attached(b) })),
  );
  const { anchors, width } = attachedPegs;
  const regions = regionsOf(solved);
  const { pegs, leg } = pegsOf(topology, regions, ends, cellOf, attachedPegs);
  const home = (end: WireEnd) => ('port' in end ? cellOf[end.home]! : null);
  const ways = routed(
    arranged.at.map((at, i) => ({ ...at, width: width[i]! })),
    ends.map((end, i) => ({ a: anchors[i]![0], b: anchors[i]![1], from: home(end.a), to: home(end.b) })),
  );
  const usual = usualLabels(folding, ends);
  const labels = labelPlaces(
    ends.map((end, i) => {
      const [a, b] = anchors[i]!;
      return { a, b, via: ways[i]!, label: labelOf(end), usual: usual[i]!, kept: true };
    }),
    arranged.at.map((at, i) => ({ ...at, width: width[i]! })),
    spots,
  );
  const wires = ends.map((end, i): FrameWire => ({
    ...frameWire(identify(topology), end, leg[i]!, labels[i]!.share),
    a: anchors[i]![0],
    b: anchors[i]![1],
    ...(ways[i]!.length > 0 ? { via: ways[i]! } : {}),
  }));
  const plates = cells.map((cell, i) =>
    framePlate(solved, of, regions, cell, { ...arranged.at[i]!, width: width[i]! }),
  );
  const free = arranged.ruler.length === 0 && !cells.some(isFold);
  const notes = notesIn(design, { plates, wires, spots }, free);
  return { plates, pegs, wires, spots, notes, ruler: arranged.ruler, outside: arranged.outside };
}
