/** Every tree of a design, solved by class, with what an earlier solution can still lend. */
import type { Design } from '../design';
import { adjustCosts } from './adjust';
import { Reuse, costIsIdle, sameNumbers, sameStructure } from './reuse';
import type { Tree } from './list';
import { classesOf } from './problem';
import type { TreeProblem } from './problem';
import { ROLE, ROLES, solveTree } from './solve';
import type { Role, TreeOutcome } from './solve';
import { topologyOf } from './topology';
import type { Topology } from './topology';

export interface SolvedTree {
  readonly tree: Tree;
  readonly problem: TreeProblem;
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

/** Ports whose LAN joins two or more: only they can tell two trees apart. */
function joiningPorts({ portLan, lanStart }: Topology): Int32Array {
  let joining = joiningOf.get(portLan);
  if (!joining) {
    joining = Int32Array.from(portLan.keys()).filter((p) => {
      const lan = portLan[p]!;
      return lan >= 0 && lanStart[lan + 1]! - lanStart[lan]! > 1;
    });
    joiningOf.set(portLan, joining);
  }
  return joining;
}
const joiningOf = new WeakMap<Int32Array, Int32Array>();

/** Whether two outcomes of one topology are the same in every root and cost, and in every role where ports meet. */
export function sameOutcome(
  topology: Topology,
  a: TreeOutcome,
  b: TreeOutcome,
  joining = joiningPorts(topology),
): boolean {
  if (a === b) return true;
  if (!sameNumbers(a.root, b.root) || !sameNumbers(a.rootPathCost, b.rootPathCost)) return false;
  return joining.every((port) => a.role[port] === b.role[port]);
}

/** Gives each class the number of the first class with the same outcome. */
function foldNumbers(topology: Topology, outcomes: readonly TreeOutcome[]): number[] {
  const joining = joiningPorts(topology);
  const hash = ({ role, root }: TreeOutcome): number => {
    let value = 2166136261;
    for (const port of joining) value = Math.imul(value ^ role[port]!, 16777619);
    for (const bridge of root) value = Math.imul(value ^ bridge, 16777619);
    return value;
  };
  const byHash = new Map<number, number[]>();
  return outcomes.map((outcome, i) => {
    const key = hash(outcome);
    const bin = byHash.get(key);
    const twin = bin?.find((j) => sameOutcome(topology, outcomes[j]!, outcome, joining));
    if (twin !== undefined) return twin;
    if (bin) bin.push(i);
    else byHash.set(key, [i]);
    return i;
  });
}

/**
 * Solves all trees of a design. Given the solution of the design before an edit, only the trees that the edit can
 * have moved are solved again.
 */
export function solveDesign(design: Design, before?: SolvedDesign): SolvedDesign {
  const topology = topologyOf(design, before?.topology);
  const lenders = before && sameStructure(before.topology, topology) ? before.byId : null;
  const reuse = new Reuse();
  let solvedCount = 0;
  const classes = classesOf(topology);
  const outcomes = classes.map(({ trees, problem }) => {
    const lender = lenders?.get(trees[0]!.id);
    const costs = lender ? reuse.changedCosts(lender.problem, problem) : null;
    const telling = costs?.filter((port) => !costIsIdle(topology, problem, lender!.outcome, port));
    if (telling?.length === 0) return lender!.outcome;
    solvedCount++;
    return telling ? adjustCosts(topology, problem, lender!.outcome, telling) : solveTree(topology, problem);
  });
  const folds = foldNumbers(topology, outcomes);
  const trees = classes.flatMap(({ trees: members, problem }, i) =>
    members.map((tree) => ({ tree, problem, outcome: outcomes[i]!, fold: folds[i]! })),
  );
  trees.sort((a, b) => (a.tree.vlan ?? 0) - (b.tree.vlan ?? 0));
  return { topology, trees, byId: new Map(trees.map((t) => [t.tree.id, t])), solvedCount };
}

export type PortState = 'forwarding' | 'learning' | 'discarding' | 'disabled';

/** State that a role has come to once nothing moves any more. */
export function settledState(role: Role): PortState {
  switch (role) {
    case 'root':
    case 'designated':
      return 'forwarding';
    case 'alternate':
    case 'backup':
      return 'discarding';
    case 'none':
    case 'disabled':
      return 'disabled';
  }
}

export const roleAt = (solved: SolvedTree, port: number): Role => ROLES[solved.outcome.role[port]!]!;

/** Ports of a tree that discard although they are up: its cuts. */
export function cutsOf(solved: SolvedTree): number[] {
  const cuts: number[] = [];
  solved.outcome.role.forEach((role, port) => {
    if (role === ROLE.alternate || role === ROLE.backup) cuts.push(port);
  });
  return cuts;
}

/** Roots of a tree, best first: one for each part of the network that holds together. */
export function rootsOf(solved: SolvedTree): number[] {
  const roots = [...solved.outcome.root.keys()].filter((b) => solved.outcome.root[b] === b);
  const size = new Map<number, number>();
  for (const r of solved.outcome.root) if (r >= 0) size.set(r, (size.get(r) ?? 0) + 1);
  return roots.sort((a, b) => size.get(b)! - size.get(a)!);
}
