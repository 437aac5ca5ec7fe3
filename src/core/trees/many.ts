/** Designs with MST instances, or with several kinds of protocol: the CIST first, since the others lean on it. */
import { vlanMembership, instanceTreeId, vlanTreeId } from '../standard';
import { isPerVlan, modeOf } from '../design';
import { mstConfigOf, treesOf } from '../network';
import type { Tree } from '../network';
import { asBpdusSee } from './guards';
import { joinedLans, overJoinedLans } from './mixed';
import { portsInRegion, solveCist, solveInstance } from './mst';
import type { CistOutcome, TreeOutcome } from './outcome';
import { cistProblem, classesOf, instanceProblems, perVlanBridges } from './problem';
import type { TreeProblem } from './problem';
import { sameNumbers } from './reuse';
import { holdingSilent, silentPorts, speakersOf, speakersOfMany } from './silence';
import { solveTree } from './solve';
import { ROLE } from './outcome';
import type { Solution, SolvedTree } from './solved';
import type { Topology } from './topology';
import { apartOf, holding, withoutHeld } from './untagged';

const OUTCOME_ARRAYS = ['root', 'rootPathCost', 'rootPort', 'designatedPort', 'role', 'rank'] as const;

/** The earlier outcome where the new one says the same, so that whoever compares sees at once that nothing moved. */
function lent(outcome: TreeOutcome, lender: SolvedTree | undefined): TreeOutcome {
  const before = lender?.outcome;
  return before && OUTCOME_ARRAYS.every((a) => sameNumbers(before[a], outcome[a])) && !outcome.cist ? before : outcome;
}

/** Distinct problems, by their arrays: instances without settings of their own are solved once. */
const problemKey = (problem: TreeProblem, ids: Map<object, number>) =>
  (['bridgeTakesPart', 'bridgePriority', 'portTakesPart', 'portCost', 'portId'] as const)
    .map((field) => {
      const array = problem[field];
      if (!ids.has(array)) ids.set(array, ids.size);
      return ids.get(array);
    })
    .join(' ');

function solveInstances(topology: Topology, trees: readonly Tree[], cist: CistOutcome, lenders: Lenders) {
  const problems = instanceProblems(
    topology,
    trees.map((t) => t.instance!),
    portsInRegion(topology, cist.cist),
  );
  const ids = new Map<object, number>();
  const known = new Map<string, TreeOutcome>();
  const solutions = trees.map((tree): Solution => {
    const problem = problems.get(tree.instance!)!;
    const key = problemKey(problem, ids);
    if (!known.has(key)) known.set(key, lent(solveInstance(topology, problem, cist), lenders?.get(tree.id)));
    return { trees: [tree], problem, topology, outcome: known.get(key)! };
  });
  return { solutions, solvedCount: known.size };
}

type Lenders = ReadonlyMap<string, SolvedTree> | null;

/**
 * Trees of single VLANs where other switches lie between. On those switches the VLAN follows the common tree or an
 * instance; their ports are given the role they have there.
 */
function solveAcross(
  all: Topology,
  trees: readonly Tree[],
  byInstance: ReadonlyMap<number, TreeOutcome>,
  lenders: Lenders,
): { solutions: Solution[]; solvedCount: number } {
  const perVlan = perVlanBridges(all);
  // To the others BPDUs of single VLANs are data, which their filters let pass.
  const topology = asBpdusSee(all, perVlan);
  const { design, portBridge, portVlans, vlanSets } = topology;
  const maps = design.switches.map((s) => (modeOf(design, s) === 'mstp' ? mstConfigOf(design, s).map : null));
  const distinct = [...new Set(maps)].filter((m) => m !== null);
  const followed = (vlan: number, port: number) => byInstance.get(maps[portBridge[port]!]?.[vlan] ?? 0)!.role[port]!;
  const classes = classesOf(topology, trees, (tree) => ` ${distinct.map((m) => m[tree.vlan!]).join()}`, perVlan);
  const solutions = classes.map(({ trees: members, problem, held, heard }): Solution => {
    const vlan = members[0]!.vlan!;
    const joined = joinedLans(topology, perVlan, vlan, (port) => followed(vlan, port));
    const own = overJoinedLans(withoutHeld(topology, apartOf(held, heard)), perVlan, joined);
    const solved = holding(solveTree(own, problem), held);
    const outcome = holdingSilent(solved, silentPorts(own, speakersOf(problem.portTakesPart, solved)));
    const role = outcome.role.map((r, port) => {
      if (perVlan[portBridge[port]!]) return r;
      return vlanMembership(vlanSets[portVlans[port]!]!)[vlan] ? followed(vlan, port) : ROLE.none;
    });
    return {
      trees: members,
      problem,
      topology: own,
      outcome: lent({ ...outcome, role }, lenders?.get(members[0]!.id)),
    };
  });
  return { solutions, solvedCount: classes.length };
}

/** Solves a design in which MST instances or several kinds of protocol occur; `all`: with filters left out. */
export function solveMany(all: Topology, lenders: Lenders): { solutions: Solution[]; solvedCount: number } {
  const topology = asBpdusSee(all);
  const trees = treesOf(topology.design);
  const [first, ...others] = trees as [Tree, ...Tree[]];
  const problem = cistProblem(topology);
  const cist = solveCist(topology, problem);
  const instances = solveInstances(
    topology,
    others.filter((t) => t.instance !== null),
    cist,
    lenders,
  );
  const outcomes = instances.solutions.map((s) => s.outcome);
  const silent = silentPorts(topology, speakersOfMany(topology, problem.portTakesPart, cist, outcomes));
  const common = { trees: [first], problem, topology, outcome: { ...holdingSilent(cist, silent), cist: cist.cist } };
  const perInstance = instances.solutions.map((s) => ({ ...s, outcome: holdingSilent(s.outcome, silent) }));
  const byInstance = new Map<number, TreeOutcome>([[0, common.outcome]]);
  for (const s of perInstance) byInstance.set(s.trees[0]!.instance!, s.outcome);
  const across = solveAcross(
    all,
    others.filter((t) => t.vlan !== null),
    byInstance,
    lenders,
  );
  return {
    solutions: [common, ...perInstance, ...across.solutions],
    solvedCount: 1 + instances.solvedCount + across.solvedCount,
  };
}

/** Regions in which an MST instance runs, each with a root of its own; 0 for any other tree. */
export function regionCount({ trees }: { trees: readonly SolvedTree[] }, { tree, problem }: SolvedTree): number {
  const region = trees[0]?.outcome.cist?.region;
  if (!tree.instance || tree.vlan !== null || !region) return 0;
  return new Set(region.filter((_, b) => problem.bridgeTakesPart[b])).size;
}

/** The tree that a VLAN's frames follow on a switch: of its own, an instance, or the one of all. */
export function treeOnSwitch(
  {
    byId,
    trees,
    topology,
  }: { byId: ReadonlyMap<string, SolvedTree>; trees: readonly SolvedTree[]; topology: Topology },
  bridge: number,
  vlan: number,
): SolvedTree {
  const { design } = topology;
  const s = design.switches[bridge]!;
  const mode = modeOf(design, s);
  const own = isPerVlan(mode) ? byId.get(vlanTreeId(vlan)) : undefined;
  if (own) return own;
  const instance = mode === 'mstp' ? mstConfigOf(design, s).map[vlan]! : 0;
  return (instance === 0 ? undefined : byId.get(instanceTreeId(instance))) ?? trees[0]!;
}
