/** Folds a drawing by a given choice, or so that it can be read. */
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { arrangeByDepth, arrangeFolded } from './arrange';
import type { Area, Arranged, Plates } from './arrange';
import { FOLDS, isFold, unfolded } from './cells';
import type { Cell, FoldBy, Folding } from './cells';
import { priorityInForce } from '../../core/design';
import type { Design } from '../../core/design';
import type { FoldChoice } from '../session/view';
import type { Ends } from './ends';
import { sceneBox } from './finding';
import { cablesOf, foldingOf } from './folding';
import type { FoldInput } from './folding';
import { allEnds, frameOf } from './frame';
import type { Drawn, SceneFrame } from './frame';
import { portMarks } from './marks';
import type { MarksOf } from './marks';
import { mergedEnds, wireCounts } from './merging';
import { regionsOf } from './regions';
import { buildScene } from './scene';
import type { Scene } from './scene-items';
import { solvedStands } from './stands';
import type { Stands } from './stands';

export interface Sheet {
  readonly scene: Scene;
  readonly frame: SceneFrame;
  readonly stands: Stands;
  readonly drawn: Drawn;
  /** How far it is folded. */
  readonly by: FoldBy;
  /** Whether folding would join anything. */
  readonly canFold: boolean;
}

export interface SheetInput extends Pick<FoldInput, 'groups' | 'keep' | 'open'> {
  readonly moved: ReadonlySet<string>;
  readonly solved: SolvedDesign;
  readonly of: SolvedTree;
  readonly cabled: Arranged;
  readonly byDepth: boolean;
  readonly area: Area;
  readonly fold: FoldChoice;
}

/** A drawing with more plates than this is folded. */
export const MOST_PLATES = 60;
/** Fewer than this are never folded unasked. */
const FEW = 24;
/** Names are read at this scale and above. */
const READABLE = 0.95;
/** So many switches with something wrong stand by themselves; of more, the first ones. */
const MOST_WRONG = 24;

/** Scale at which all of a drawing is in sight. */
function scaleOf(scene: Scene, area: Area): number {
  const { left, right, top, bottom } = sceneBox(scene);
  return Math.min(area.width / (right - left), area.height / (bottom - top));
}

/** Whether a drawing is folded at all, as it is asked for. */
export const mayFold = (switches: number, fold: FoldChoice): boolean =>
  fold !== 'none' && (fold !== 'auto' || switches > FEW);

interface Told extends Pick<FoldInput, 'groups'> {
  readonly moved: ReadonlySet<string>;
  readonly solved: SolvedDesign;
  readonly of: SolvedTree;
}

/** Switches with something wrong: a cable that does not carry, a port that is shut, held or in a loop, a bundle that forwards at one end. */
function troubled(ends: readonly Ends[], marks: MarksOf): number[] {
  return ends.flatMap(({ kind, a, b, unseen }) => {
    if (kind === 'host') return [];
    const own = [a, b].flatMap((end) => ('port' in end ? [end] : []));
    return unseen || own.some((end) => marks(end.port).wrong) ? own.map((end) => end.home) : [];
  });
}

/** What folding looks at. */
function foldBase({ solved, of, groups, moved }: Told) {
  const { topology } = solved;
  const { design, actsAs } = topology;
  const cost = (i: number) => (of.outcome.root[actsAs[i]!]! < 0 ? Infinity : of.outcome.rootPathCost[actsAs[i]!]!);
  const stands = solvedStands(solved, of);
  const idOf = (port: number) => topology.ports[port]!.element.id;
  const ends = allEnds(topology);
  const regions = regionsOf(solved);
  const settings = (i: number) =>
    `${priorityInForce(design, design.switches[i]!, of.tree).value} ${regions.of(i)?.name ?? ''}`;
  const marks = portMarks(stands, idOf, moved);
  const wrong = [...new Set(troubled(ends, marks))].slice(0, MOST_WRONG);
  const cables = cablesOf(design, ends, marks);
  return { design, groups, cost, settings, ends, stands, wrong, marks, cables };
}

const NOTHING: ReadonlySet<never> = new Set<never>();

/** The plates of a tree folded by a given choice, with nothing held out. */
export const foldedCells = (told: Omit<Told, 'moved'> & { readonly by: FoldBy }): readonly Cell[] =>
  foldingOf({ ...foldBase({ ...told, moved: NOTHING }), keep: NOTHING, open: NOTHING, by: told.by }).cells;

/** The drawing of a tree, folded. */
export function sheetOf(input: SheetInput): Sheet {
  const { solved, of, cabled, byDepth, area, fold, groups, keep, open, moved } = input;
  const { design } = solved.topology;
  const told = foldBase({ solved, of, groups, moved });
  const base = { ...told, keep: new Set([...keep, ...told.wrong]), open };
  const { stands } = base;
  const foldingBy = (by: FoldBy) => (by === 'none' ? unfolded(design) : foldingOf({ ...base, by }));
  const made = (by: FoldBy, folding = foldingBy(by)): Made => {
    const drawn: Drawn = { folding, ends: mergedEnds(base.ends, folding, base.marks) };
    const plates: Plates = { folding, wires: wireCounts(drawn.ends, folding) };
    const isFolded = folding.cells.some(isFold);
    const arranged = byDepth
      ? arrangeByDepth(solved, of, cabled.at, area, isFolded ? plates : undefined)
      : arrangeFolded(cabled, plates, area);
    const frame = frameOf(solved, of, arranged, drawn);
    return { scene: buildScene(frame, stands), frame, stands, drawn, by, isFolded };
  };
  const few = design.switches.length <= FEW;
  const canFold = () => foldingOf({ ...base, by: 'groups-alike' }).cells.some(isFold);
  if (fold !== 'auto' || few) {
    const own = made(fold === 'auto' ? 'none' : fold);
    return { ...own, canFold: own.isFolded || (!few && canFold()) };
  }
  // Folded as before the last change of a setting, while that still fits as well as it did.
  const way = byDepth ? 'depth' : 'cabling';
  const before = lastFold.get(design.links)?.[way];
  const again = before && made(before.by);
  if (again && scaleOf(again.scene, area) >= Math.min(READABLE, before.scale * AS_WELL))
    return { ...again, canFold: true };
  const own = fitting(input, made, foldingBy);
  const last = { by: own.by, scale: scaleOf(own.scene, area) };
  lastFold.set(design.links, { ...lastFold.get(design.links), [way]: last });
  return { ...own, canFold: own.isFolded || canFold() };
}

/** How far the drawing of a cabling was folded last. */
const lastFold = new WeakMap<Design['links'], { readonly depth?: LastFold; readonly cabling?: LastFold }>();

interface LastFold {
  readonly by: FoldBy;
  readonly scale: number;
}
/** A drawing that became smaller than this share of what it was is folded again. */
const AS_WELL = 0.9;

type Made = Omit<Sheet, 'canFold'> & { readonly isFolded: boolean };

/** The least folded drawing that can be read, or the one that comes nearest to it. */
function fitting(
  { area }: SheetInput,
  made: (by: FoldBy, folding: Folding) => Made,
  foldingBy: (by: FoldBy) => Folding,
): Made {
  let best: Made | null = null;
  for (const by of FOLDS) {
    const folding = foldingBy(by);
    // Too many are not laid out, unless there is nothing smaller.
    if (folding.cells.length > MOST_PLATES && by !== FOLDS.at(-1)) continue;
    const own = made(by, folding);
    const fits = scaleOf(own.scene, area) >= READABLE;
    if (fits) return own;
    if (!best || scaleOf(own.scene, area) > scaleOf(best.scene, area)) best = own;
  }
  return best!;
}
