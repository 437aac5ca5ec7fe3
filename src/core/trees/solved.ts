/** A solved design: its trees with their outcomes. */
import type { Tree } from '../network';
import type { TreeProblem } from './problem';
import type { Topology } from './topology';
import type { TreeOutcome } from './outcome';

export interface SolvedTree {
  readonly tree: Tree;
  readonly problem: TreeProblem;
  /** LANs as this tree sees them; those of the design but in a network where trees per VLAN meet others. */
  readonly topology: Topology;
  readonly outcome: TreeOutcome;
  /** Equal for trees whose roots, roles and costs are all the same. */
  readonly fold: number;
}

export interface SolvedDesign {
  readonly topology: Topology;
  readonly trees: readonly SolvedTree[];
  readonly byId: ReadonlyMap<string, SolvedTree>;
  /** Number of problems that had to be solved; the others were lent or shared. */
  readonly solvedCount: number;
}

/** A tree with its problem and outcome, before equal outcomes are folded. */
export interface Solution {
  readonly trees: readonly Tree[];
  readonly problem: TreeProblem;
  readonly topology: Topology;
  readonly outcome: TreeOutcome;
}
