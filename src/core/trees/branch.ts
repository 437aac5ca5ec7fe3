/**
 * A tree that lost ports or bridges, from what it was: only the branches that hung on what failed are settled again, between the
 * bridges beside them, which stay as they are. What goes away never makes another vector better (802.1D-2004 clause 17.6).
 */
import { portsOfBridge, portsOnLan } from '../network';
import { remembered } from '../remembered';
import { leastReach } from './depth';
import { ROLE } from './outcome';
import type { TreeOutcome } from './outcome';
import type { TreeProblem } from './problem';
import { BridgeQueue } from './queue';
import { bestOnLan, roleOfPort, winsTie } from './solve';
import type { Topology } from './topology';

export interface Branch {
  readonly outcome: TreeOutcome;
  /** Ports whose role can have changed. */
  readonly touched: readonly number[];
  /** Whether some bridge that is left has another root than before. */
  readonly parted: boolean;
}

/** Bridges by the one that each hangs on, and how far each lies from its root. */
interface Hanging {
  /** Bridge at the far end of the root port; −1 at a root and without the tree. */
  readonly up: Int32Array;
  readonly depth: Int32Array;
  /** Bridges that hang on each: those of bridge b stand from `start[b]` to `start[b + 1]`. */
  readonly start: Int32Array;
  readonly below: Int32Array;
  readonly deepest: number;
}

const hangingOf = remembered((topology: Topology) =>
  remembered(({ rootPort, designatedPort }: TreeOutcome): Hanging => {
    const { portLan, portBridge } = topology;
    const count = rootPort.length;
    const up = Int32Array.from(rootPort, (port) => (port < 0 ? -1 : portBridge[designatedPort[portLan[port]!]!]!));
    const start = new Int32Array(count + 1);
    for (const b of up) if (b >= 0) start[b + 1]!++;
    for (let b = 0; b < count; b++) start[b + 1]! += start[b]!;
    const next = start.slice();
    const below = new Int32Array(start[count]!);
    up.forEach((above, b) => {
      if (above >= 0) below[next[above]!++] = b;
    });
    const depth = new Int32Array(count);
    const queue = [...up.keys()].filter((b) => up[b]! < 0);
    for (const b of queue)
      for (let i = start[b]!; i < start[b + 1]!; i++) {
        depth[below[i]!] = depth[b]! + 1;
        queue.push(below[i]!);
      }
    return { up, depth, start, below, deepest: depth.reduce((a, b) => Math.max(a, b), 0) };
  }),
);

/** Bridges that hung on what failed, and all that hang on them. */
function fallen(
  topology: Topology,
  { rootPort, designatedPort }: TreeOutcome,
  { up, start, below }: Hanging,
  down: ReadonlySet<number>,
  off: ReadonlySet<number>,
): number[] {
  const { portBridge, portLan } = topology;
  const found: number[] = [];
  const seen = new Set(off);
  const fall = (b: number) => {
    if (seen.has(b)) return;
    seen.add(b);
    found.push(b);
  };
  for (const b of off) for (let i = start[b]!; i < start[b + 1]!; i++) fall(below[i]!);
  for (const p of down) {
    const bridge = portBridge[p]!;
    if (rootPort[bridge] === p) fall(bridge);
    const lan = portLan[p]!;
    if (lan < 0 || designatedPort[lan] !== p) continue;
    for (let i = start[bridge]!; i < start[bridge + 1]!; i++)
      if (portLan[rootPort[below[i]!]!] === lan && up[below[i]!] === bridge) fall(below[i]!);
  }
  for (const b of found) for (let i = start[b]!; i < start[b + 1]!; i++) fall(below[i]!);
  return found;
}

/** The branches while they settle, on the LANs that their bridges are on. */
class Settling {
  readonly rank: Int32Array;
  readonly root: Int32Array;
  readonly rootPathCost: Float64Array;
  readonly rootPort: Int32Array;
  readonly designatedPort: Int32Array;
  readonly depth: Int32Array;
  /** LANs that the branches touch, and 1 for each of them. */
  readonly lans: number[] = [];
  private readonly isNear: Uint8Array;
  private readonly waiting: Uint8Array;
  private readonly queue: BridgeQueue;

  constructor(
    private readonly topology: Topology,
    private readonly problem: TreeProblem,
    before: TreeOutcome,
    depth: Int32Array,
    private readonly branch: readonly number[],
    off: ReadonlySet<number>,
  ) {
    this.rank = before.rank;
    this.root = before.root.slice();
    this.rootPathCost = before.rootPathCost.slice();
    this.rootPort = before.rootPort.slice();
    this.designatedPort = before.designatedPort.slice();
    this.depth = depth.slice();
    this.isNear = new Uint8Array(this.designatedPort.length);
    this.waiting = new Uint8Array(this.root.length);
    this.queue = new BridgeQueue(this.root.length);
    for (const b of off) {
      this.root[b] = this.rootPort[b] = -1;
      this.rootPathCost[b] = Infinity;
    }
    for (const b of branch) {
      this.root[b] = this.rootPort[b] = -1;
      this.rootPathCost[b] = Infinity;
      this.waiting[b] = 1;
    }
  }

  /**
   * Bridges of the branches come out of the queue in the order in which all would, and those beside them in between. False where
   * those beside them follow several roots, or one that a bridge of a branch is better than (behind a root guard): costs alone
   * do not order them then.
   */
  run(): boolean {
    const { topology, problem, branch, lans, isNear, waiting, queue, rank } = this;
    const beside = new Set<number>();
    for (const b of branch)
      for (const port of portsOfBridge(topology, b)) {
        const lan = topology.portLan[port]!;
        if (lan < 0 || !problem.portTakesPart[port] || isNear[lan]) continue;
        lans.push(lan);
        isNear[lan] = 1;
        this.designatedPort[lan] = -1;
        for (let i = topology.lanStart[lan]!; i < topology.lanStart[lan + 1]!; i++) {
          const other = topology.portBridge[topology.lanPorts[i]!]!;
          if (!waiting[other] && this.root[other]! >= 0) beside.add(other);
        }
      }
    const [known, ...others] = new Set([...beside].map((b) => this.root[b]!));
    if (others.length > 0 || (known !== undefined && branch.some((b) => rank[b]! < rank[known]!))) return false;
    for (const b of beside) queue.push(b, this.rootPathCost[b]!, rank[b]!);
    this.empty();
    // What no offer reached is root of its own part, best first.
    for (const b of [...branch].sort((x, y) => rank[x]! - rank[y]!)) {
      if (!waiting[b]) continue;
      this.root[b] = b;
      this.rootPathCost[b] = 0;
      this.depth[b] = 0;
      this.settle(b);
      this.empty();
    }
    return true;
  }

  private empty(): void {
    const done = new Set<number>();
    for (let next = this.queue.pop(); next >= 0; next = this.queue.pop()) {
      if (done.has(next)) continue;
      done.add(next);
      this.settle(next);
    }
  }

  private settle(bridge: number): void {
    const { topology, isNear } = this;
    if (this.waiting[bridge]) {
      this.waiting[bridge] = 0;
      const through = this.rootPort[bridge]!;
      if (through >= 0) {
        const above = topology.portBridge[this.designatedPort[topology.portLan[through]!]!]!;
        this.depth[bridge] = this.depth[above]! + 1;
      }
    }
    for (const port of portsOfBridge(topology, bridge)) {
      const lan = topology.portLan[port]!;
      if (lan < 0 || !isNear[lan] || !this.problem.portTakesPart[port]) continue;
      const holder = this.designatedPort[lan]!;
      const { portId } = this.problem;
      const own = holder >= 0 && topology.portBridge[holder] === bridge && portId[holder]! > portId[port]!;
      if (holder < 0 || own) this.designatedPort[lan] = port;
    }
    for (const port of portsOfBridge(topology, bridge)) {
      const lan = topology.portLan[port]!;
      if (lan >= 0 && isNear[lan] && this.designatedPort[lan] === port) this.offer(bridge, port, lan);
    }
  }

  private offer(bridge: number, port: number, lan: number): void {
    const { lanStart, lanPorts, portBridge } = this.topology;
    const { portTakesPart, portCost, portRestricted } = this.problem;
    for (let i = lanStart[lan]!; i < lanStart[lan + 1]!; i++) {
      const receiver = lanPorts[i]!;
      const other = portBridge[receiver]!;
      if (!this.waiting[other] || !portTakesPart[receiver] || portRestricted?.[receiver]) continue;
      const cost = this.rootPathCost[bridge]! + portCost[receiver]!;
      const best = this.rootPathCost[other]!;
      if (cost > best || (cost === best && !winsTie(this.topology, this.problem, this, port, receiver))) continue;
      this.root[other] = this.root[bridge]!;
      this.rootPathCost[other] = cost;
      this.rootPort[other] = receiver;
      if (cost < best) this.queue.push(other, cost, this.rank[other]!);
    }
  }
}

/** Roles with ports that are down, and with what became of the LANs that were looked at. */
function rolesNow(
  left: Topology,
  problem: TreeProblem,
  before: TreeOutcome,
  { rootPort, designatedPort }: Pick<TreeOutcome, 'rootPort' | 'designatedPort'>,
  down: ReadonlySet<number>,
  lans: ReadonlySet<number>,
): { role: Uint8Array; touched: number[] } {
  const role = before.role.slice();
  const touched: number[] = [];
  for (const p of down) {
    if (role[p] !== ROLE.none) role[p] = ROLE.disabled;
    touched.push(p);
  }
  for (const lan of lans)
    for (const p of portsOnLan(left, lan)) {
      if (!problem.portTakesPart[p]) continue;
      role[p] = roleOfPort(left, rootPort, designatedPort, p);
      touched.push(p);
    }
  return { role, touched };
}

/**
 * The branches of a tree in which ports are down and bridges are off, settled again, `left` being the topology without them; null
 * where the tree has to be solved as a whole: a root went off, several roots meet, or it is as deep as a root's word goes.
 */
function settle(
  topology: Topology,
  left: Topology,
  problem: TreeProblem,
  before: TreeOutcome,
  down: ReadonlySet<number>,
  off: ReadonlySet<number>,
): { settling: Settling; parted: boolean } | null {
  const hanging = hangingOf(topology)(before);
  const most = leastReach(problem.reach);
  if (hanging.deepest >= most) return null;
  for (const b of off) if (before.root[b] === b && hanging.start[b]! < hanging.start[b + 1]!) return null;
  const branch = fallen(topology, before, hanging, down, off);
  const settling = new Settling(left, problem, before, hanging.depth, branch, off);
  if (!settling.run() || branch.some((b) => settling.depth[b]! >= most)) return null;
  return { settling, parted: branch.some((b) => settling.root[b] !== before.root[b]) };
}

/** Whether some bridge that is left can have another root with that. */
export const partsBranch = (...tree: Parameters<typeof settle>): boolean => settle(...tree)?.parted ?? true;

/** The outcome of such a tree; null where it has to be solved as a whole. */
export function solveBranch(...tree: Parameters<typeof settle>): Branch | null {
  const [topology, left, problem, before, down] = tree;
  const settled = settle(...tree);
  if (!settled) return null;
  const { settling, parted } = settled;
  const { root, rootPathCost, rootPort, designatedPort } = settling;
  const lans = new Set(settling.lans);
  for (const p of down) {
    const lan = topology.portLan[p]!;
    if (lan < 0 || lans.has(lan)) continue;
    lans.add(lan);
    designatedPort[lan] = bestOnLan(left, problem, settling, lan);
  }
  const { role, touched } = rolesNow(left, problem, before, settling, down, lans);
  return { outcome: { rank: before.rank, root, rootPathCost, rootPort, designatedPort, role }, touched, parted };
}
