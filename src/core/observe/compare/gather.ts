/** Differences that are the same in many trees, as one. */
import { treeWordsOf } from '../tree-words';
import type { Difference } from './difference';

/** One or more differences that say the same, each of another tree. */
export interface GatheredDifference {
  readonly of: readonly [Difference, ...Difference[]];
  /** Where, and in what they differ, in words: `cost in VLANs 110-130`. */
  readonly where: string;
  readonly what: string;
}

const ROOTED = new Set(['root', 'tree']);

/** The field without the tree that it holds in, and that tree; null for one of no tree. */
function treeOf({ kind, field, device }: Difference): { field: string; tree: string | null } {
  if (kind === 'tree' && ROOTED.has(field)) return { field, tree: device };
  const match = /^(.*) in (\S+)$/.exec(field);
  return match ? { field: match[1]!, tree: match[2]! } : { field, tree: null };
}

/** Differences by what they say; the order is that of the first of each. */
export function gatherTrees(differences: readonly Difference[]): GatheredDifference[] {
  const groups = new Map<string, [Difference, ...Difference[]]>();
  differences.forEach((d, nth) => {
    const { field, tree } = treeOf(d);
    const where = tree === d.device ? '' : d.device;
    const key = tree === null ? String(nth) : JSON.stringify([where, field, d.verdict, d.designed, d.observed]);
    const group = groups.get(key);
    if (group) group.push(d);
    else groups.set(key, [d]);
  });
  return [...groups.values()].map((of) => {
    const { field, tree } = treeOf(of[0]);
    if (tree === null) return { of, where: of[0].device, what: field };
    const words = treeWordsOf(of.map((d) => treeOf(d).tree!));
    return of[0].device === tree
      ? { of, where: words, what: field }
      : { of, where: of[0].device, what: `${field} in ${words}` };
  });
}
