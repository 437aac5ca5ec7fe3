/** Designs with MST instances, or with several kinds of protocol: the CIST first, since the others lean on it. */
import { vlanMembership, instanceTreeId, vlanTreeId } from '../standard';
import { isPerVlan, modeOf } from '../design';
import { mstConfigOf, treesOf } from '../network';
import type { Tree } from '../network';
import { asBpdusSee } from './guards';
import { isConfused, plainSpeakers, stacked, unstacked } from './joined';
import type { Layer } from './joined';
import { joinedLans, overJoinedLans } from './mixed';
import { portsInRegion, solveCist, solveInstance } from './mst';
import type { CistOutcome, TreeOutcome } from './outcome';
import { cistProblem, classesOf, instanceProblems, perVlanBridges } from './problem';
import type { CistProblem, TreeClass, TreeProblem } from './problem';
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

/** Switches without trees per VLAN between those that have them, as the trees of single VLANs see them. */
interface Between {
  readonly perVlan: Uint8Array;
  /** With the filters of switches that have trees per VLAN alone: to the others their BPDUs are data, which filters let pass. */
  readonly topology: Topology;
  readonly classes: readonly TreeClass[];
  /** Role of a port in the tree that a VLAN's frames follow on its switch. */
  readonly followed: (byInstance: ReadonlyMap<number, TreeOutcome>, vlan: number, port: number) => number;
}

function between(all: Topology, trees: readonly Tree[]): Between {
  const perVlan = perVlanBridges(all);
  const topology = asBpdusSee(all, perVlan);
  const { design, portBridge } = topology;
  const maps = design.switches.map((s) => (modeOf(design, s) === 'mstp' ? mstConfigOf(design, s).map : null));
  const distinct = [...new Set(maps)].filter((m) => m !== null);
  return {
    perVlan,
    topology,
    classes: classesOf(topology, trees, (tree) => ` ${distinct.map((m) => m[tree.vlan!]).join()}`, perVlan),
    followed: (byInstance, vlan, port) => byInstance.get(maps[portBridge[port]!]?.[vlan] ?? 0)!.role[port]!,
  };
}

/** LANs of a VLAN's tree, where what the others hold open for it is one. */
function lansOver(
  { perVlan, topology, followed }: Between,
  byInstance: ReadonlyMap<number, TreeOutcome>,
  of: TreeClass,
) {
  const vlan = of.trees[0]!.vlan!;
  const joined = joinedLans(topology, perVlan, vlan, (port) => followed(byInstance, vlan, port));
  return overJoinedLans(withoutHeld(topology, apartOf(of.held, of.heard)), perVlan, joined);
}

/**
 * Trees of single VLANs where other switches lie between. On those switches the VLAN follows the common tree or an
 * instance; their ports are given the role they have there. `known`: outcomes of VLANs whose tree is one with the common one.
 */
function solveAcross(
  across: Between,
  byInstance: ReadonlyMap<number, TreeOutcome>,
  known: ReadonlyMap<number, TreeOutcome>,
  lenders: Lenders,
): Solution[] {
  const { perVlan, topology, classes, followed } = across;
  const { portBridge, portVlans, vlanSets } = topology;
  return classes.map((of): Solution => {
    const { trees: members, problem, held } = of;
    const vlan = members[0]!.vlan!;
    const own = lansOver(across, byInstance, of);
    const found = known.get(vlan);
    const solved = holding(found ?? solveTree(own, problem), held);
    const outcome = found ? solved : holdingSilent(solved, silentPorts(own, speakersOf(problem.portTakesPart, solved)));
    const role = outcome.role.map((r, port) => {
      if (perVlan[portBridge[port]!]) return r;
      return vlanMembership(vlanSets[portVlans[port]!]!)[vlan] ? followed(byInstance, vlan, port) : ROLE.none;
    });
    const finished = { ...outcome, role };
    return {
      trees: members,
      problem,
      topology: own,
      outcome: found ? finished : lent(finished, lenders?.get(members[0]!.id)),
    };
  });
}

/** The common tree with its instances, silent ports held back. */
function withInstances(
  topology: Topology,
  trees: readonly Tree[],
  problem: CistProblem,
  cist: CistOutcome,
  lenders: Lenders,
) {
  const [first, ...others] = trees as [Tree, ...Tree[]];
  const ofInstances = others.filter((t) => t.instance !== null);
  const { solutions, solvedCount } = solveInstances(topology, ofInstances, cist, lenders);
  const outcomes = solutions.map((s) => s.outcome);
  const silent = cist.joined
    ? (cist.silent ?? [])
    : silentPorts(topology, speakersOfMany(topology, problem.portTakesPart, cist, outcomes));
  const common = { trees: [first], problem, topology, outcome: { ...holdingSilent(cist, silent), cist: cist.cist } };
  const instances = solutions.map((s) => ({ ...s, outcome: holdingSilent(s.outcome, silent) }));
  const byInstance = new Map<number, TreeOutcome>([[0, common.outcome]]);
  for (const s of instances) byInstance.set(s.trees[0]!.instance!, s.outcome);
  return { solutions: [common, ...instances], byInstance, solvedCount };
}

/** The common tree and the layers that are one with it, solved together. */
function withLayers(
  topology: Topology,
  problem: CistProblem,
  layers: readonly Layer[],
  instances: readonly TreeOutcome[],
) {
  const stack = stacked(topology, problem, layers);
  const cist = solveCist(stack.topology, stack.problem);
  const speakers = speakersOfMany(stack.topology, stack.problem.portTakesPart, cist, instances);
  const held = { ...holdingSilent(cist, silentPorts(stack.topology, speakers)), cist: cist.cist };
  const { common, own } = unstacked(topology, stack.topology, held, layers);
  return { common, own: new Map(layers.map(({ vlan }, j) => [vlan, own[j]!])) };
}

/** How often what the others hold open is looked at again, since what it opens can change it. */
const MOST_ROUNDS = 8;
const NONE: ReadonlyMap<number, TreeOutcome> = new Map();

/**
 * The common tree, and the trees of VLANs that are one with it. Where tagged BPDUs of such a VLAN come to its access ports too, or
 * the network finds no state to stay in, the trees are kept apart.
 */
function solveCommon(
  topology: Topology,
  trees: readonly Tree[],
  problem: CistProblem,
  across: Between,
  lenders: Lenders,
) {
  const alone = withInstances(topology, trees, problem, solveCist(topology, problem), lenders);
  const speakers = new Map(plainSpeakers(topology, across.perVlan));
  let found = alone;
  for (let round = 0; speakers.size > 0 && round < MOST_ROUNDS; round++) {
    const layers = across.classes.flatMap((of): Layer[] => {
      const vlan = of.trees[0]!.vlan!;
      const plain = speakers.get(vlan);
      return plain ? [{ vlan, problem: of.problem, own: lansOver(across, found.byInstance, of), plain }] : [];
    });
    const confused = layers.filter((layer) => isConfused(topology, layer));
    if (confused.length > 0) {
      for (const { vlan } of confused) speakers.delete(vlan);
      found = alone;
      continue;
    }
    const instances = found.solutions.slice(1).map((s) => s.outcome);
    const { common, own } = withLayers(topology, problem, layers, instances);
    const before = found.byInstance.get(0)!;
    found = withInstances(topology, trees, problem, common, lenders);
    if (sameNumbers(before.role, common.role)) return { ...found, own };
  }
  return { ...alone, own: NONE };
}

/** Solves a design in which MST instances or several kinds of protocol occur; `all`: with filters left out. */
export function solveMany(all: Topology, lenders: Lenders): { solutions: Solution[]; solvedCount: number } {
  const topology = asBpdusSee(all);
  const trees = treesOf(topology.design);
  const across = between(
    all,
    trees.slice(1).filter((t) => t.vlan !== null),
  );
  const { solutions, byInstance, solvedCount, own } = solveCommon(
    topology,
    trees,
    cistProblem(topology),
    across,
    lenders,
  );
  return {
    solutions: [...solutions, ...solveAcross(across, byInstance, own, lenders)],
    solvedCount: 1 + solvedCount + across.classes.length,
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
