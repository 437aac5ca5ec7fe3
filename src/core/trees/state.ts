/** Every tree of a design, solved by class, with what an earlier solution can still lend. */
import type { Design } from '../design';
import { remembered } from '../remembered';
import { adjustCosts } from './adjust';
import { Reuse, costIsIdle, sameNumbers, sameStructure } from './reuse';
import { isMixed, meetsOthers, mixtureOf } from '../network';
import type { Tree } from '../network';
import { solveMany } from './many';
import { classesOf } from './problem';
import { solveTree } from './solve';
import { ROLE, ROLES } from './outcome';
import type { Role, TreeOutcome } from './outcome';
import { asBpdusSee, withGuards } from './guards';
import { cabledTopology } from './topology';
import type { Topology } from './topology';
import { holdingSilent, silentPorts, speakersOf } from './silence';
import { apartOf, holding, withoutHeld } from './untagged';
import type { SolvedTree, SolvedDesign, Solution } from './solved';

/** Ports whose LAN joins two or more: only they can tell two trees apart. */
function joiningPorts(topology: Topology): Int32Array {
  const { portLan } = topology;
  let joining = joiningOf.get(portLan);
  if (!joining) {
    joining = Int32Array.from(portLan.keys()).filter((p) => meetsOthers(topology, p));
    joiningOf.set(portLan, joining);
  }
  return joining;
}
const joiningOf = new WeakMap<Int32Array, Int32Array>();

/** A number for what an outcome says on the given ports; remembered, since most outcomes outlive an edit. */
const hashOver = remembered((joining: Int32Array) =>
  remembered(({ role, root }: TreeOutcome) => {
    let value = 2166136261;
    for (let i = 0; i < joining.length; i++) value = Math.imul(value ^ role[joining[i]!]!, 16777619);
    for (let b = 0; b < root.length; b++) value = Math.imul(value ^ root[b]!, 16777619);
    return value;
  }),
);

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
  const hash = hashOver(joining);
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

/** What of an earlier solution may be lent: nothing when bridges, ports or LANs hang together differently now. */
const lendersOf = (topology: Topology, before?: SolvedDesign) =>
  before && sameStructure(before.topology, topology) ? before.byId : null;

/** One tree, or one a VLAN: the classes that an edit cannot have moved are lent. */
function solvePlain(all: Topology, lenders: ReadonlyMap<string, SolvedTree> | null) {
  const reuse = new Reuse();
  let solvedCount = 0;
  const solutions = classesOf(all).map(({ trees, problem, held, heard }): Solution => {
    const topology = withoutHeld(all, apartOf(held, heard));
    const found = lenders?.get(trees[0]!.id);
    // A tree that saw joined LANs before has nothing to lend to one that does not.
    const alike = heard.length === 0 && found && sameNumbers(found.topology.portLan, topology.portLan);
    const lender = alike ? found : undefined;
    const costs = lender ? reuse.changedCosts(lender.problem, problem) : null;
    const before = lender && (lender.outcome.bare ?? lender.outcome);
    const telling = costs?.filter((port) => !costIsIdle(topology, problem, before!, port));
    const silenced = (outcome: TreeOutcome) =>
      holdingSilent(outcome, silentPorts(topology, speakersOf(problem.portTakesPart, outcome)));
    if (telling?.length === 0) return { trees, problem, topology, outcome: silenced(before!) };
    solvedCount++;
    const outcome =
      telling && !before!.spent ? adjustCosts(topology, problem, before!, telling) : solveTree(topology, problem);
    return { trees, problem, topology, outcome: silenced(holding(outcome, held)) };
  });
  return { solutions, solvedCount };
}

/** The common tree or the CIST first, then instances, then VLANs, each by number. */
const place = ({ vlan, instance }: Tree): number => (vlan === null ? (instance ?? 0) : 10_000 + vlan);

/**
 * Solves all trees of a design. Given the solution of the design before an edit, only the trees that the edit can
 * have moved are solved again.
 */
export function solveDesign(design: Design, before?: SolvedDesign): SolvedDesign {
  const topology = withGuards(cabledTopology(design, before && (before.topology.unguarded ?? before.topology)));
  const lenders = lendersOf(topology, before);
  const mixture = mixtureOf(design);
  const { solutions, solvedCount } =
    mixture.mst || isMixed(mixture) ? solveMany(topology, lenders) : solvePlain(asBpdusSee(topology), lenders);
  const folds = foldNumbers(
    topology,
    solutions.map((s) => s.outcome),
  );
  const trees: SolvedTree[] = [];
  solutions.forEach(({ trees: members, problem, topology: own, outcome }, i) => {
    for (const tree of members) trees.push({ tree, problem, topology: own, outcome, fold: folds[i]! });
  });
  trees.sort((a, b) => place(a.tree) - place(b.tree));
  return { topology, trees, byId: new Map(trees.map((t) => [t.tree.id, t])), solvedCount };
}

export type PortState = 'forwarding' | 'learning' | 'discarding' | 'disabled';

/** State that a role has come to once nothing moves any more. */
export function settledState(role: Role): PortState {
  switch (role) {
    case 'root':
    case 'designated':
    case 'master':
      return 'forwarding';
    case 'alternate':
    case 'backup':
    case 'disputed':
      return 'discarding';
    case 'none':
    case 'disabled':
      return 'disabled';
  }
}

export const roleAt = (solved: SolvedTree, port: number): Role => ROLES[solved.outcome.role[port]!]!;

/** Ports of a tree that discard although they are up: its cuts. */
export function blockedPorts(solved: SolvedTree): number[] {
  const cuts: number[] = [];
  solved.outcome.role.forEach((role, port) => {
    if (role === ROLE.alternate || role === ROLE.backup || role === ROLE.disputed) cuts.push(port);
  });
  return cuts;
}

/** Roots of a tree, best first: one for each part of the network that holds together. */
export function rootsOf({ outcome: { root } }: SolvedTree): number[] {
  const size = new Int32Array(root.length);
  const roots: number[] = [];
  for (let b = 0; b < root.length; b++) {
    const r = root[b]!;
    if (r >= 0) size[r]!++;
    if (r === b) roots.push(b);
  }
  return roots.length < 2 ? roots : roots.sort((a, b) => size[b]! - size[a]!);
}
