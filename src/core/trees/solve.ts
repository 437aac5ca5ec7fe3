/**
 * The converged state of one tree in closed form: what the protocol settles on once every bridge has heard
 * everyone's best vector (802.1D-2004 clauses 17.5 and 17.6).
 *
 * Bridges are settled in the order of {root path cost, bridge identifier}. The first bridge that settles on a LAN is
 * designated there, since no later one has a better vector; what it offers is weighed by the other bridges of the LAN.
 * A cost is at least 1, so every offer that could improve a bridge is made before the bridge settles.
 */
import { leastReach, reachesLimit, withOthers, withSpent } from './depth';
import { BridgeQueue } from './queue';
import { ageBehind } from './reach';
import type { Topology } from './topology';
import type { TreeProblem } from './problem';
import { ROLE } from './outcome';
import type { TreeOutcome } from './outcome';

/** Bridges from best to worst identifier; the rank of each. */
export function rankBridges(topology: Topology, problem: TreeProblem): { order: Int32Array; rank: Int32Array } {
  const { macRank } = topology;
  const { bridgePriority, extensions } = problem;
  const count = macRank.length;
  // Priority and the rank of the address in one number: sorted without a comparator.
  const keys = new Float64Array(count);
  const byMac = new Int32Array(count);
  for (let b = 0; b < count; b++) {
    keys[b] = (bridgePriority[b]! + (extensions?.[b] ?? 0)) * count + macRank[b]!;
    byMac[macRank[b]!] = b;
  }
  keys.sort();
  const order = new Int32Array(count);
  const rank = new Int32Array(count);
  for (let i = 0; i < count; i++) {
    const bridge = byMac[keys[i]! % count]!;
    order[i] = bridge;
    rank[bridge] = i;
  }
  return { order, rank };
}

/**
 * Makes a bridge that settles designated on every LAN it is first on, by its lowest port identifier, and calls `offer`
 * with each port that it then offers its vector through. `beats`: whether it is better on a LAN than the one that was first there.
 */
export function claimLans(
  { bridgeStart, bridgePorts, portLan, portBridge }: Topology,
  { portTakesPart, portId }: TreeProblem,
  designatedPort: Int32Array,
  bridge: number,
  offer: (bridge: number, port: number, lan: number) => void,
  beats: (bridge: number, holder: number, lan: number) => boolean = () => false,
): void {
  for (let i = bridgeStart[bridge]!; i < bridgeStart[bridge + 1]!; i++) {
    const port = bridgePorts[i]!;
    const lan = portLan[port]!;
    if (lan < 0 || !portTakesPart[port]) continue;
    const holder = designatedPort[lan]!;
    if (holder >= 0 && portBridge[holder] !== bridge && !beats(bridge, portBridge[holder]!, lan)) continue;
    if (holder >= 0 && portBridge[holder] === bridge && portId[holder]! < portId[port]!) continue;
    designatedPort[lan] = port;
  }
  for (let i = bridgeStart[bridge]!; i < bridgeStart[bridge + 1]!; i++) {
    const port = bridgePorts[i]!;
    const lan = portLan[port]!;
    if (lan >= 0 && designatedPort[lan] === port) offer(bridge, port, lan);
  }
}

/** Solves one tree. Deterministic; the same problem gives the same outcome. */
export function solveTree(topology: Topology, problem: TreeProblem): TreeOutcome {
  const { outcome, deepest } = solveWithin(topology, problem, null);
  // Most networks are nowhere near as deep as a root's word goes: they are solved without regard to it.
  if (deepest < leastReach(problem.reach) || !reachesLimit(topology, outcome, problem.reach)) return outcome;
  return solveWithin(topology, problem, problem.reach).outcome;
}

/** At equal cost: designated bridge, then designated port, then receiving port (802.1D-2004 clause 17.6). */
export function winsTie(
  { portLan, portBridge }: Topology,
  { portId }: TreeProblem,
  { rank, rootPort, designatedPort }: Pick<TreeOutcome, 'rank' | 'rootPort' | 'designatedPort'>,
  port: number,
  receiver: number,
): boolean {
  const held = rootPort[portBridge[receiver]!]!;
  const from = designatedPort[portLan[held]!]!;
  const byBridge = rank[portBridge[port]!]! - rank[portBridge[from]!]!;
  if (byBridge !== 0) return byBridge < 0;
  const byPort = portId[port]! - portId[from]!;
  return byPort !== 0 ? byPort < 0 : portId[receiver]! < portId[held]!;
}

/** One tree while its bridges settle. `reach`: null where it is no limit. */
class Settling {
  readonly rank: Int32Array;
  readonly order: Int32Array;
  readonly root: Int32Array;
  readonly rootPathCost: Float64Array;
  readonly rootPort: Int32Array;
  readonly designatedPort: Int32Array;
  readonly settled: Uint8Array;
  readonly queue: BridgeQueue;
  /** LANs on which what is said is too old for some port. */
  readonly spent: number[] = [];
  /** Most bridges that one lies away from its root. */
  deepest = 0;
  private readonly age: Float64Array | null;
  private readonly depth: Int32Array;

  constructor(
    private readonly topology: Topology,
    private readonly problem: TreeProblem,
    private readonly reach: Int32Array | null,
  ) {
    const bridges = problem.bridgeTakesPart.length;
    const { order, rank } = rankBridges(topology, problem);
    this.order = order;
    this.rank = rank;
    this.root = new Int32Array(bridges).fill(-1);
    this.rootPathCost = new Float64Array(bridges).fill(Infinity);
    this.rootPort = new Int32Array(bridges).fill(-1);
    this.designatedPort = new Int32Array(topology.lanCount).fill(-1);
    this.settled = new Uint8Array(bridges);
    this.depth = new Int32Array(bridges);
    this.queue = new BridgeQueue(bridges);
    this.age = reach ? new Float64Array(bridges) : null;
  }

  /** As `claimLans`, where the first on a LAN stays: written out, since half of the time goes here. */
  settle(bridge: number): void {
    const { bridgeStart, bridgePorts, portLan, portBridge } = this.topology;
    const { portTakesPart, portId } = this.problem;
    const { designatedPort, depth } = this;
    this.settled[bridge] = 1;
    const through = this.rootPort[bridge]!;
    const deep = through < 0 ? 0 : depth[portBridge[designatedPort[portLan[through]!]!]!]! + 1;
    depth[bridge] = deep;
    if (deep > this.deepest) this.deepest = deep;
    const end = bridgeStart[bridge + 1]!;
    for (let i = bridgeStart[bridge]!; i < end; i++) {
      const port = bridgePorts[i]!;
      const lan = portLan[port]!;
      if (lan < 0 || portTakesPart[port] === 0) continue;
      const holder = designatedPort[lan]!;
      if (holder < 0 || (portBridge[holder] === bridge && portId[holder]! > portId[port]!)) designatedPort[lan] = port;
    }
    for (let i = bridgeStart[bridge]!; i < end; i++) {
      const port = bridgePorts[i]!;
      const lan = portLan[port]!;
      if (lan >= 0 && designatedPort[lan] === port) this.offer(bridge, port, lan);
    }
  }

  private offer(bridge: number, port: number, lan: number): void {
    const { lanStart, lanPorts, portBridge } = this.topology;
    const { portTakesPart, portCost, portRestricted, finelyAged } = this.problem;
    const { reach, age, root, rootPathCost } = this;
    let refused = false;
    for (let i = lanStart[lan]!; i < lanStart[lan + 1]!; i++) {
      const receiver = lanPorts[i]!;
      const other = portBridge[receiver]!;
      if (reach && age && receiver !== port && portTakesPart[receiver])
        if (ageBehind(finelyAged, other, age[bridge]!) > reach[root[bridge]!]!) {
          refused = true;
          continue;
        }
      if (this.settled[other] || !portTakesPart[receiver] || portRestricted?.[receiver]) continue;
      const cost = rootPathCost[bridge]! + portCost[receiver]!;
      const best = rootPathCost[other]!;
      if (cost > best || (cost === best && !winsTie(this.topology, this.problem, this, port, receiver))) continue;
      root[other] = root[bridge]!;
      rootPathCost[other] = cost;
      this.rootPort[other] = receiver;
      if (age) age[other] = ageBehind(finelyAged, other, age[bridge]!);
      if (cost < best) this.queue.push(other, cost, this.rank[other]!);
    }
    if (refused) this.spent.push(lan);
  }
}

/** `reach`: null where it is no limit. `deepest`: most bridges that one lies away from its root. */
function solveWithin(
  topology: Topology,
  problem: TreeProblem,
  reach: Int32Array | null,
): { outcome: TreeOutcome; deepest: number } {
  const settling = new Settling(topology, problem, reach);
  const { root, rootPathCost, rootPort, designatedPort, rank, settled, queue, spent } = settling;
  for (const candidate of settling.order) {
    if (settled[candidate] || !problem.bridgeTakesPart[candidate]) continue;
    root[candidate] = candidate;
    rootPathCost[candidate] = 0;
    settling.settle(candidate);
    for (let next = queue.pop(); next >= 0; next = queue.pop()) if (!settled[next]) settling.settle(next);
  }
  const role = rolesOf(topology, problem, rootPort, designatedPort);
  const outcome = { rank, root, rootPathCost, rootPort, designatedPort, role };
  const refused = spent.length > 0 ? withOthers(topology, problem, spent) : spent;
  return {
    outcome: refused.length > 0 ? withSpent(topology, problem, outcome, refused) : outcome,
    deepest: settling.deepest,
  };
}

/**
 * The designated port of a LAN, by what its bridges settled on: best root, then cost, bridge and port; −1 where none has the tree.
 * Written out without views of the LAN's ports: most of the time after a change of cost goes here (7 % of all).
 */
export function bestOnLan(
  { portBridge, lanStart, lanPorts }: Topology,
  { portTakesPart, portId }: TreeProblem,
  { root, rootPathCost, rank }: Pick<TreeOutcome, 'root' | 'rootPathCost' | 'rank'>,
  lan: number,
): number {
  let best = -1;
  for (let j = lanStart[lan]!; j < lanStart[lan + 1]!; j++) {
    const port = lanPorts[j]!;
    const a = portBridge[port]!;
    if (!portTakesPart[port] || root[a]! < 0) continue;
    if (best < 0) {
      best = port;
      continue;
    }
    const b = portBridge[best]!;
    const order =
      rank[root[a]!]! - rank[root[b]!]! ||
      rootPathCost[a]! - rootPathCost[b]! ||
      rank[a]! - rank[b]! ||
      portId[port]! - portId[best]!;
    if (order < 0) best = port;
  }
  return best;
}

/** Role of a port that is up (root, designated, backup or alternate), once root ports and designated ports are known (802.1D-2004 clause 17.21.25, updtRolesTree). */
export function roleOfPort(topology: Topology, rootPort: Int32Array, designatedPort: Int32Array, port: number): number {
  const { portLan, portBridge } = topology;
  const bridge = portBridge[port]!;
  const designated = designatedPort[portLan[port]!]!;
  if (rootPort[bridge] === port) return ROLE.root;
  if (designated === port) return ROLE.designated;
  return portBridge[designated] === bridge ? ROLE.backup : ROLE.alternate;
}

export function rolesOf(
  topology: Topology,
  problem: TreeProblem,
  rootPort: Int32Array,
  designatedPort: Int32Array,
): Uint8Array {
  const { portLan, portBridge } = topology;
  const role = new Uint8Array(portLan.length);
  for (let port = 0; port < role.length; port++) {
    if (!problem.portTakesPart[port]) continue;
    const up = portLan[port]! >= 0 && problem.bridgeTakesPart[portBridge[port]!];
    role[port] = up ? roleOfPort(topology, rootPort, designatedPort, port) : ROLE.disabled;
  }
  return role;
}
