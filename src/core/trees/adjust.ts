/**
 * The outcome of a tree after some port costs changed, from the outcome before: only bridges that the change can reach
 * are looked at again.
 *
 * What a bridge ends up with depends on the root path costs around it alone: of all offers on a LAN the designated
 * port's is the best that a receiver can hear, so weighing every offer there gives the same root port. Hence first the
 * root path costs, then the ties near those that changed. Roots stay, since costs do not join or part networks.
 */
import { forEachNeighbour, upstream } from '../network';
import { reachesLimit } from './depth';
import { BridgeQueue } from './queue';
import type { TreeProblem } from './problem';
import { bestOnLan, roleOfPort, solveTree } from './solve';
import type { TreeOutcome } from './outcome';
import type { Topology } from './topology';

/** Bridges whose way to the root leads through one of the given ones, and those themselves. */
function below(topology: Topology, outcome: TreeOutcome, tops: ReadonlySet<number>): Uint8Array {
  const [UNKNOWN, BELOW, NOT] = [0, 1, 2];
  const state = new Uint8Array(outcome.rootPort.length);
  for (const top of tops) state[top] = BELOW;
  const up = (bridge: number) => upstream(topology, outcome, bridge);
  for (let start = 0; start < state.length; start++) {
    let end = start;
    while (end >= 0 && state[end] === UNKNOWN) end = up(end);
    const found = end >= 0 && state[end] === BELOW ? BELOW : NOT;
    for (let b = start; b !== end; b = up(b)) state[b] = found;
  }
  for (let b = 0; b < state.length; b++) if (state[b] === NOT) state[b] = 0;
  return state;
}

class Adjustment {
  readonly rootPathCost: Float64Array;
  readonly rootPort: Int32Array;
  readonly designatedPort: Int32Array;
  readonly role: Uint8Array;
  private readonly rank: Int32Array;

  constructor(
    private readonly topology: Topology,
    private readonly problem: TreeProblem,
    private readonly before: TreeOutcome,
  ) {
    this.rootPathCost = before.rootPathCost.slice();
    this.rootPort = before.rootPort.slice();
    this.designatedPort = before.designatedPort.slice();
    this.role = before.role.slice();
    this.rank = before.rank;
  }

  /** New root path costs; the bridges where they changed. */
  costs(changedPorts: readonly number[]): Set<number> {
    const { portBridge } = this.topology;
    const { portCost, portRestricted: restricted } = this.problem;
    const { root } = this.before;
    const starts = new Set(changedPorts.map((p) => portBridge[p]!).filter((b) => root[b] !== b && root[b]! >= 0));
    const open = below(this.topology, this.before, starts);
    const queue = new BridgeQueue(root.length);
    const cost = this.rootPathCost;
    const reached = new Set<number>();
    open.forEach((isOpen, bridge) => {
      if (!isOpen) return;
      cost[bridge] = Infinity;
      reached.add(bridge);
    });
    for (const bridge of [...reached]) {
      let best = Infinity;
      forEachNeighbour(this.topology, this.problem.portTakesPart, bridge, (own, other) => {
        const from = portBridge[other]!;
        if (!open[from] && root[from] === root[bridge] && !restricted?.[own])
          best = Math.min(best, cost[from]! + portCost[own]!);
      });
      cost[bridge] = best;
      if (best < Infinity) queue.push(bridge, best, this.rank[bridge]!);
    }
    const done = new Uint8Array(root.length);
    for (let bridge = queue.pop(); bridge >= 0; bridge = queue.pop()) {
      if (done[bridge]) continue;
      done[bridge] = 1;
      forEachNeighbour(this.topology, this.problem.portTakesPart, bridge, (_, other) => {
        const to = portBridge[other]!;
        const through = cost[bridge]! + portCost[other]!;
        if (through >= cost[to]! || root[to] !== root[bridge] || restricted?.[other]) return;
        cost[to] = through;
        reached.add(to);
        queue.push(to, through, this.rank[to]!);
      });
    }
    for (const bridge of reached) if (cost[bridge] === this.before.rootPathCost[bridge]) reached.delete(bridge);
    for (const start of starts) reached.add(start);
    return reached;
  }

  /** Best offer of all that a bridge can weigh. */
  private chooseRootPort(bridge: number): number {
    const { portBridge } = this.topology;
    const { portCost, portId, portRestricted: restricted } = this.problem;
    const { rootPathCost: cost, rank } = this;
    if (this.before.root[bridge] === bridge) return -1;
    let [best, from, least] = [-1, -1, Infinity];
    forEachNeighbour(this.topology, this.problem.portTakesPart, bridge, (own, other) => {
      // Beyond a root guard there may be another root.
      if (restricted?.[own] || this.before.root[portBridge[other]!] !== this.before.root[bridge]) return;
      const offer = cost[portBridge[other]!]! + portCost[own]!;
      const order =
        offer - least ||
        rank[portBridge[other]!]! - rank[portBridge[from]!]! ||
        portId[other]! - portId[from]! ||
        portId[own]! - portId[best]!;
      if (order < 0) [best, from, least] = [own, other, offer];
    });
    return best;
  }

  /** Root ports, designated ports and roles near the bridges whose cost changed. */
  ties(changed: ReadonlySet<number>): void {
    const { portLan, portBridge, bridgeStart, bridgePorts, lanStart, lanPorts } = this.topology;
    const { portTakesPart } = this.problem;
    const near = new Set(changed);
    const lans = new Set<number>();
    for (const bridge of changed) {
      forEachNeighbour(this.topology, this.problem.portTakesPart, bridge, (_, other) => near.add(portBridge[other]!));
      for (let i = bridgeStart[bridge]!; i < bridgeStart[bridge + 1]!; i++) {
        const port = bridgePorts[i]!;
        if (portLan[port]! >= 0 && portTakesPart[port]) lans.add(portLan[port]!);
      }
    }
    for (const bridge of near) {
      const port = this.chooseRootPort(bridge);
      const old = this.rootPort[bridge]!;
      if (port === old) continue;
      this.rootPort[bridge] = port;
      for (const p of [port, old]) if (p >= 0) lans.add(portLan[p]!);
    }
    const known = { root: this.before.root, rootPathCost: this.rootPathCost, rank: this.rank };
    for (const lan of lans) this.designatedPort[lan] = bestOnLan(this.topology, this.problem, known, lan);
    for (const lan of lans)
      for (let j = lanStart[lan]!; j < lanStart[lan + 1]!; j++) {
        const port = lanPorts[j]!;
        if (portTakesPart[port]) this.role[port] = roleOfPort(this.topology, this.rootPort, this.designatedPort, port);
      }
  }
}

/** The outcome of `problem`, which differs from what `before` solved in the cost of `changedPorts` alone. */
export function adjustCosts(
  topology: Topology,
  problem: TreeProblem,
  before: TreeOutcome,
  changedPorts: readonly number[],
): TreeOutcome {
  const adjustment = new Adjustment(topology, problem, before);
  adjustment.ties(adjustment.costs(changedPorts));
  const { rootPathCost, rootPort, designatedPort, role } = adjustment;
  const outcome = { rank: before.rank, root: before.root, rootPathCost, rootPort, designatedPort, role };
  // A way that became longer than a root's word goes takes others with it.
  return reachesLimit(topology, outcome, problem.reach) ? solveTree(topology, problem) : outcome;
}
