/** One tree with settings tried out on it, without building a design for each trial. */
import { bundleById, portById, scopeAt, setBridgePriority, setField, setPortCost, setPortPriority } from '../design';
import type { Edit } from '../design';
import { portIdentifier } from '../standard';
import { countsInside, solveCist, solveInstance, solveTree, stepCost } from '../trees';
import type { CistOutcome, CistProblem, SolvedDesign, SolvedTree, TreeOutcome, TreeProblem } from '../trees';
import type { Case } from './evaluation';

/** One setting of one tree: of a bridge, or of a logical port. Port priorities are 0 … 240. */
export interface Move {
  readonly field: 'bridgePriority' | 'portCost' | 'portPriority';
  readonly index: number;
  readonly value: number;
}

export const moveKey = ({ field, index }: Move): string => `${field} ${index}`;

export class Lab {
  readonly base: Case;
  constructor(
    readonly solved: SolvedDesign,
    readonly of: SolvedTree,
  ) {
    this.base = of;
  }

  /** The tree as it would be with the moves made. */
  try(moves: Iterable<Move>): Case {
    const { topology, problem } = this.of;
    const next: { -readonly [K in keyof CistProblem]: CistProblem[K] } = { ...(problem as CistProblem) };
    for (const { field, index, value } of moves) {
      if (field === 'bridgePriority') {
        if (next.bridgePriority === problem.bridgePriority) next.bridgePriority = problem.bridgePriority.slice();
        next.bridgePriority[index] = value;
      } else if (field === 'portPriority') {
        if (next.portId === problem.portId) next.portId = problem.portId.slice();
        next.portId[index] = portIdentifier(value, topology.portNumber[index]!);
      } else if (countsInside(this.of, index)) {
        const before = (problem as CistProblem).internalCost;
        if (next.internalCost === before) next.internalCost = before.slice();
        next.internalCost[index] = value;
      } else {
        if (next.portCost === problem.portCost) next.portCost = problem.portCost.slice();
        next.portCost[index] = value;
      }
    }
    return { topology, problem: next, outcome: this.solve(next) };
  }

  private solve(problem: TreeProblem): TreeOutcome {
    const { topology, outcome, tree } = this.of;
    if (outcome.cist) return solveCist(topology, problem as CistProblem);
    if (tree.instance && tree.vlan === null)
      return solveInstance(topology, problem, this.solved.trees[0]!.outcome as CistOutcome);
    return solveTree(topology, problem);
  }

  /** Cost that a port adds in this tree as a case has it. */
  cost({ problem }: Case, port: number): number {
    return stepCost({ topology: this.of.topology, outcome: this.of.outcome, problem }, port);
  }

  /** The edits that make a move for this tree alone. */
  edits({ field, index, value }: Move): Edit[] {
    const { topology } = this.of;
    const { design } = topology;
    if (field === 'bridgePriority') {
      const s = design.switches[index]!;
      return setBridgePriority(s, scopeAt(design, s, this.of.tree), value);
    }
    const { id, switch: at } = topology.ports[index]!.element;
    const kind = bundleById(design, id) ? 'bundle' : 'port';
    const element = (kind === 'bundle' ? bundleById(design, id) : portById(design, id))!;
    const s = design.switches[topology.bridgeIndex.get(at)!]!;
    const scope = scopeAt(design, s, this.of.tree);
    if (field === 'portPriority') return setPortPriority(kind, element, scope, value);
    // At the edge of a region the external cost counts, which no instance has a say in.
    if (scope !== 'all' && 'instances' in scope && scope.instances[0] === 0 && !countsInside(this.of, index))
      return [setField(kind, id, 'cost', value)];
    return setPortCost(kind, element, scope, value);
  }
}
