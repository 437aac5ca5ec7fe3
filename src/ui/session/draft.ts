/** A change that is tried out: what it leads to on the network in view, and what becomes of it when that changes. */
import { applyEdits } from '../../core/design';
import type { Edit, Fault } from '../../core/design';
import { movedBetween, solveDesign } from '../../core/trees';
import type { MovedTree, SolvedDesign } from '../../core/trees';
import type { LastChange } from './session';

/** A change that is looked at before it is made. */
export interface Draft {
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly solved: SolvedDesign;
  readonly moved: readonly MovedTree[];
  readonly side: 'before' | 'after';
}

export interface Held extends Draft {
  /** The solution that it was tried on. */
  readonly base: SolvedDesign;
}

export type Tried = { readonly ok: true; readonly held: Held } | { readonly ok: false; readonly fault: Fault };

/** What edits lead to from `base`; the first fault when they do not fit. */
export function tryEdits(base: SolvedDesign, label: string, edits: readonly Edit[]): Tried {
  const applied = applyEdits(base.topology.design, edits);
  if (!applied.ok) return { ok: false, fault: applied.faults[0]! };
  const solved = solveDesign(applied.design, base);
  return { ok: true, held: { label, edits, solved, moved: movedBetween(base, solved), side: 'after', base } };
}

const OWN: readonly LastChange['kind'][] = ['edit', 'undo', 'redo'];

/**
 * The change that is tried out on the network as it is now; null when there is none any more. What another one changed
 * leaves it standing as long as it fits; a change made in this window ends it.
 */
export function draftOn(held: Held | null, solved: SolvedDesign, last: LastChange | null): Held | null {
  if (!held || held.base === solved) return held;
  if (last && last.before === held.base && OWN.includes(last.kind)) return null;
  const again = tryEdits(solved, held.label, held.edits);
  return again.ok ? { ...again.held, side: held.side } : null;
}
