/** What a drawing has a plate for: a switch, or several that are drawn as one. */
import type { Design } from '../../core/design';

export const FOLDS = ['none', 'alike', 'groups', 'groups-alike'] as const;
/** How far a drawing is folded: each also folds what the one before does, but for the groups that are open. */
export type FoldBy = (typeof FOLDS)[number];

export interface Cell {
  /** The switch, or of a fold a word that stays as long as the fold does. */
  readonly id: string;
  readonly name: string;
  readonly kind: 'switch' | 'alike' | 'group' | 'groups';
  /** Switches by index; the first stands for all. */
  readonly members: readonly number[];
  /** Switches, or groups, that are alike and drawn as one; 1 for a single switch and a single group. */
  readonly count: number;
  /** Blocked ends at its switches. */
  readonly blocked: number;
  /** In what it differs from those that are otherwise alike; null where it does not. */
  readonly unlike: string | null;
}

export interface Folding {
  readonly cells: readonly Cell[];
  /** Cell of each switch. */
  readonly cellOf: readonly number[];
}

/** A folding in which every switch is a cell of its own. */
export function unfolded(design: Design): Folding {
  const cells = design.switches.map((s, i): Cell => ({
    id: s.id,
    name: s.name,
    kind: 'switch',
    members: [i],
    count: 1,
    blocked: 0,
    unlike: null,
  }));
  return { cells, cellOf: cells.map((_, i) => i) };
}

/** Whether a plate stands for several switches. */
export const isFold = (cell: Cell): boolean => cell.kind !== 'switch';
