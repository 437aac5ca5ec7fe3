/**
 * The converged CIST and MST instances (802.1Q-2018 clauses 13.9 to 13.14).
 *
 * Bridges are settled in the order of {external root path cost, regional root, internal root path cost, bridge}. Each
 * step away from the root makes that vector worse: across a boundary the external cost grows by at least 1, inside a
 * region the internal one does. So the first bridge that settles on a LAN is designated there and the LAN is of its
 * region, and whatever could improve a bridge has been offered before the bridge settles.
 */
import { portsOnLan, regionOf, upstream } from '../network';
import { MAX_HOPS } from '../standard';
import { reachesLimit, withSpent } from './depth';
import { ageBehind, reachByHops } from './reach';
import type { CistProblem, TreeProblem } from './problem';
import { claimLans, rankBridges, rolesOf, solveTree } from './solve';
import { ROLE } from './outcome';
import type { CistOutcome, CistPart, TreeOutcome } from './outcome';
import type { SolvedTree } from './solved';
import type { Topology } from './topology';
import { VectorQueue } from './vector-queue';

/** Number of the region that a bridge belongs to; every bridge without MSTP is one of its own. */
const regionIn = ({ region }: CistProblem, bridge: number): number =>
  region[bridge]! >= 0 ? region[bridge]! : -2 - bridge;

/**
 * Compares senders at equal costs: designated bridge, designated port, receiving port. A bridge without MSTP reads the
 * regional root where its own BPDUs have the designated bridge (802.1Q-2018 clause 14.2), so to it two senders of one
 * region differ by their ports only; towards a classic one a sender speaks for itself (clause 13.10).
 */
const senderComparator =
  (
    { portLan, portBridge }: Topology,
    { portId, region, classic }: CistProblem,
    {
      rank,
      regionalRoot,
      rootPort,
      designatedPort,
    }: Record<'rank' | 'regionalRoot' | 'rootPort' | 'designatedPort', Int32Array>,
    old: Uint8Array,
  ) =>
  (bridge: number, port: number, receiver: number, other: number): boolean => {
    const held = rootPort[other]!;
    const from = designatedPort[portLan[held]!]!;
    const before = portBridge[from]!;
    const itself = region[other]! >= 0 || classic[other] === 1;
    const told = (sender: number, at: number) => rank[itself || old[portLan[at]!] ? sender : regionalRoot[sender]!]!;
    const byBridge = told(bridge, port) - told(before, from);
    if (byBridge !== 0) return byBridge < 0;
    const byPort = portId[port]! - portId[from]!;
    return byPort !== 0 ? byPort < 0 : portId[receiver]! < portId[held]!;
  };

/** Solves the CIST. `rootPathCost` of the outcome is the cost of the whole way, external and internal parts added up. */
export function solveCist(topology: Topology, problem: CistProblem): CistOutcome {
  const outcome = solveWithin(topology, problem, null);
  const hops = reachByHops(topology.design);
  const least = hops.map((most, b) => Math.min(most, problem.reach[b]!));
  return reachesLimit(topology, outcome, least) ? solveWithin(topology, problem, hops) : outcome;
}

/**
 * LANs with a classic bridge, on which all speak version 0 and each for itself; and of those the ones on which several MST bridges are,
 * which are outside of each other's region there (802.1Q-2018 clauses 13.8, 13.10 and 13.32).
 */
function versionZeroLans({ lanCount, portLan, portBridge }: Topology, { classic, region, portTakesPart }: CistProblem) {
  const [old, regional] = [new Uint8Array(lanCount), new Uint8Array(lanCount)];
  for (let port = 0; port < portLan.length; port++) {
    const lan = portLan[port]!;
    if (lan < 0 || !portTakesPart[port]) continue;
    if (classic[portBridge[port]!]) old[lan] = 1;
    if (region[portBridge[port]!]! >= 0 && regional[lan]! < 2) regional[lan]!++;
  }
  return { old, plain: old.map((is, lan) => (is && regional[lan] === 2 ? 1 : 0)) };
}

/** Bridges that the word of a root has gone over: outside of regions since the root, inside since the regional root. */
class Crossings {
  private readonly age: Float64Array;
  private readonly depth: Int32Array;
  constructor(
    bridges: number,
    private readonly problem: CistProblem,
    private readonly hops: Int32Array | null,
  ) {
    this.age = new Float64Array(bridges);
    this.depth = new Int32Array(bridges);
  }
  /** Whether it ends between two bridges. */
  ends(inside: boolean, from: number, to: number, root: number, regionalRoot: number): boolean {
    if (!this.hops) return false;
    if (inside) return this.depth[from]! >= this.hops[regionalRoot]!;
    return ageBehind(this.problem.finelyAged, to, this.age[from]!) > this.problem.reach[root]!;
  }
  cross(inside: boolean, from: number, to: number): void {
    this.age[to] = inside ? this.age[from]! : ageBehind(this.problem.finelyAged, to, this.age[from]!);
    this.depth[to] = inside ? this.depth[from]! + 1 : 0;
  }
}

/**
 * Whether a bridge is better on a LAN than the one that settled there first: where all speak version 0 the cost inside the region
 * counts for nothing, and each bridge speaks for itself.
 */
const claimantBeats =
  (old: Uint8Array, { root, external, rank }: { root: Int32Array; external: Float64Array; rank: Int32Array }) =>
  (bridge: number, holder: number, lan: number): boolean =>
    old[lan] === 1 &&
    root[bridge] === root[holder] &&
    external[bridge] === external[holder] &&
    rank[bridge]! < rank[holder]!;

/** `hops`: most bridges inside a region, by regional root; null where neither they nor ages are a limit. */
function solveWithin(topology: Topology, problem: CistProblem, hops: Int32Array | null): CistOutcome {
  const { lanStart, lanPorts, portBridge, lanCount } = topology;
  const { bridgeTakesPart, portTakesPart, portCost, internalCost, region, portRestricted } = problem;
  const { length: bridges } = bridgeTakesPart;
  const none = () => new Int32Array(bridges).fill(-1);
  const far = () => new Float64Array(bridges).fill(Infinity);
  const { order, rank } = rankBridges(topology, problem);
  const [root, regionalRoot, rootPort] = [none(), none(), none()];
  const [rootPathCost, external, internal] = [far(), far(), far()];
  const designatedPort = new Int32Array(lanCount).fill(-1);
  const [settled, queue, spent] = [new Uint8Array(bridges), new VectorQueue(), new Set<number>()];
  const { old, plain } = versionZeroLans(topology, problem);
  const way = new Crossings(bridges, problem, hops);
  const betterSender = senderComparator(topology, problem, { rank, regionalRoot, rootPort, designatedPort }, old);
  const settle = (bridge: number) => {
    settled[bridge] = 1;
    claimLans(topology, problem, designatedPort, bridge, offerOn, claimantBeats(old, { root, external, rank }));
  };

  const offerOn = (bridge: number, port: number, lan: number) => {
    for (let i = lanStart[lan]!; i < lanStart[lan + 1]!; i++) {
      const receiver = lanPorts[i]!;
      const other = portBridge[receiver]!;
      if (settled[other] || !portTakesPart[receiver] || portRestricted?.[receiver]) continue;
      const inside = !plain[lan] && regionIn(problem, bridge) === regionIn(problem, other);
      if (way.ends(inside, bridge, other, root[bridge]!, regionalRoot[bridge]!)) {
        spent.add(lan);
        continue;
      }
      const step = (inside ? internalCost : portCost)[receiver]!;
      const ext = external[bridge]! + (inside ? 0 : step);
      const regional = inside ? regionalRoot[bridge]! : other;
      const int = inside ? internal[bridge]! + step : 0;
      const better =
        ext - external[other]! ||
        (regionalRoot[other]! < 0 ? -1 : rank[regional]! - rank[regionalRoot[other]!]!) ||
        int - internal[other]!;
      if (better > 0 || (better === 0 && !betterSender(bridge, port, receiver, other))) continue;
      root[other] = root[bridge]!;
      external[other] = ext;
      regionalRoot[other] = regional;
      internal[other] = int;
      rootPathCost[other] = rootPathCost[bridge]! + step;
      rootPort[other] = receiver;
      way.cross(inside, bridge, other);
      if (better < 0) queue.push(other, ext, rank[regional]!, int, rank[other]!);
    }
  };

  for (const candidate of order) {
    if (settled[candidate] || !bridgeTakesPart[candidate]) continue;
    root[candidate] = regionalRoot[candidate] = candidate;
    rootPathCost[candidate] = external[candidate] = internal[candidate] = 0;
    settle(candidate);
    for (let next = queue.pop(); next >= 0; next = queue.pop()) if (!settled[next]) settle(next);
  }
  const role = rolesOf(topology, problem, rootPort, designatedPort);
  const lanRegion = designatedPort.map((p, lan) => (p < 0 || plain[lan] ? -1 : region[portBridge[p]!]!));
  const cist = { external, internal, regionalRoot, region, lanRegion };
  const outcome = { rank, root, rootPathCost, rootPort, designatedPort, role, cist };
  return spent.size > 0 ? { ...withSpent(topology, problem, outcome, [...spent]), cist } : outcome;
}

/** 1 for every port of an MST bridge whose LAN is of its own region; ports that are down count as inside. */
export function portsInRegion({ portLan, portBridge }: Topology, { region, lanRegion }: CistPart): Uint8Array {
  return Uint8Array.from(portLan, (lan, port) => {
    const own = region[portBridge[port]!]!;
    return own >= 0 && (lan < 0 || lanRegion[lan] === own) ? 1 : 0;
  });
}

/**
 * Ports that face another region or a bridge without MSTP: 1 where the LAN is the neighbour's (the standard's
 * boundary port, where the instances follow the CIST), 2 where it is one's own region's. 0: no boundary.
 */
export function boundaryPorts(topology: Topology, { region, lanRegion }: CistPart, cist: TreeProblem): Uint8Array {
  const { portLan, portBridge } = topology;
  return Uint8Array.from(portLan, (lan, port) => {
    const own = region[portBridge[port]!]!;
    if (own < 0 || lan < 0) return 0;
    if (lanRegion[lan] !== own) return 1;
    const outsider = (p: number) => cist.portTakesPart[p] && region[portBridge[p]!] !== own;
    return portsOnLan(topology, lan).some(outsider) ? 2 : 0;
  });
}

/** What a port adds to what it hears in a tree: in the CIST inside a region the internal cost. */
export function stepCost(
  { topology, problem, outcome }: Pick<SolvedTree, 'topology' | 'problem' | 'outcome'>,
  port: number,
): number {
  return countsInside({ topology, outcome }, port)
    ? (problem as CistProblem).internalCost[port]!
    : problem.portCost[port]!;
}

/** Whether the CIST counts the internal cost of a port: its LAN lies inside the region of its bridge (802.1Q clause 13.9). */
export function countsInside({ topology, outcome }: Pick<SolvedTree, 'topology' | 'outcome'>, port: number): boolean {
  const own = outcome.cist?.region[topology.portBridge[port]!] ?? -1;
  const lan = topology.portLan[port]!;
  return own >= 0 && (lan < 0 || outcome.cist!.lanRegion[lan] === own);
}

/**
 * Hops that a BPDU of the tree has left when a bridge has taken it in: the most of its region at the regional root, one
 * less a bridge (802.1Q-2018 clause 13.26.23). 0 or less: it is not taken any more, the region is too deep.
 */
export function remainingHops({ topology, outcome }: Pick<SolvedTree, 'topology' | 'outcome'>, bridge: number): number {
  const { design } = topology;
  const top = outcome.cist?.regionalRoot[bridge] ?? outcome.root[bridge]!;
  let hops = 0;
  for (let b = bridge; b !== top && hops <= topology.bridgeMac.length; hops++) {
    b = upstream(topology, outcome, b);
    if (b < 0) break;
  }
  const region = top >= 0 ? regionOf(design, design.switches[top]!) : undefined;
  return (region?.maxHops ?? MAX_HOPS.default) - hops;
}

/** Solves one MST instance in all regions at once, given the CIST. */
export function solveInstance(topology: Topology, problem: TreeProblem, cist: CistOutcome): TreeOutcome {
  const { portLan, portBridge } = topology;
  const outcome = solveTree(topology, problem);
  const role = outcome.role.slice();
  for (const lan of cist.spent ?? []) {
    // What disputes the CIST from outside the region disputes every instance.
    const port = cist.designatedPort[lan]!;
    const { region } = cist.cist;
    const own = region[portBridge[port]!]!;
    const outside = portsOnLan(topology, lan).some((p) => p !== port && region[portBridge[p]!] !== own);
    if (cist.role[port] === ROLE.disputed && outside && role[port] === ROLE.designated) role[port] = ROLE.disputed;
  }
  for (let port = 0; port < role.length; port++) {
    if (problem.portTakesPart[port] || portLan[port]! < 0 || !problem.bridgeTakesPart[portBridge[port]!]) continue;
    // The LAN is another region's: the CIST root port leads out of the region, the others stay cut as there.
    const ofCist = cist.role[port]!;
    role[port] = ofCist === ROLE.root ? ROLE.master : ofCist;
  }
  return { ...outcome, role };
}
