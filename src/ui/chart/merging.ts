/** Wires between plates that stand for several switches: those that are alike are one, with their number. */
import type { Ends, WireEnd } from './ends';
import { isFold } from './cells';
import type { Folding } from './cells';
import type { MarksOf } from './marks';

export interface MergedEnds extends Ends {
  /** Wires that it stands for. */
  readonly count: number;
  /** Ports that stand behind the first at each end. */
  readonly behindA: readonly number[];
  readonly behindB: readonly number[];
}

const NONE: readonly number[] = [];
/** Wires that are fewer are not numbered: there are many of those, between groups. */
const NUMBERED = 3;

/** A wire that stands for itself. */
export const single = (end: Ends): MergedEnds => ({ ...end, count: 1, behindA: NONE, behindB: NONE });

/** The wires to draw: none within a plate, no hosts of one that stands for several, and those alike between two plates as one. */
export function mergedEnds(ends: readonly Ends[], { cells, cellOf }: Folding, marks: MarksOf): MergedEnds[] {
  if (!cells.some(isFold)) return ends.map(single);
  const folded = (end: WireEnd) => 'port' in end && isFold(cells[cellOf[end.home]!]!);
  const place = (end: WireEnd) => ('port' in end ? `cell ${cellOf[end.home]}` : `spot ${end.spot}`);
  const standing = (end: WireEnd) => ('port' in end ? marks(end.port).standing : '');
  const merged = new Map<string, MergedEnds & { behindA: number[]; behindB: number[]; count: number }>();
  const result: MergedEnds[] = [];
  for (const end of ends) {
    const { a, b } = end;
    if (!folded(a) && !folded(b)) {
      result.push(single(end));
      continue;
    }
    if (end.kind === 'host' || place(a) === place(b)) continue;
    const sides = [a, b].map((e) => ({ e, key: `${place(e)} ${standing(e)}` }));
    // Whichever end a cable was drawn from first.
    const [first, second] = sides[0]!.key <= sides[1]!.key ? sides : [sides[1]!, sides[0]!];
    const key = [first!.key, second!.key, end.kind, end.unseen, end.peer].join('\n');
    const known = merged.get(key);
    if (!known) {
      const own = { ...end, a: first!.e, b: second!.e, count: 1, behindA: [], behindB: [] };
      merged.set(key, own);
      result.push(own);
      continue;
    }
    known.count++;
    if ('port' in first!.e) known.behindA.push(first!.e.port);
    if ('port' in second!.e) known.behindB.push(second!.e.port);
  }
  return result.map((end) => (end.count > 1 ? { ...end, label: end.count < NUMBERED ? null : `× ${end.count}` } : end));
}

/** How many wires end at each plate. */
export function wireCounts(ends: readonly Ends[], { cells, cellOf }: Folding): number[] {
  const counts = cells.map(() => 0);
  for (const { a, b } of ends) for (const end of [a, b]) if ('port' in end) counts[cellOf[end.home]!]!++;
  return counts;
}
