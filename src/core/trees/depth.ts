/**
 * How far the word of a root goes. Each bridge counts a message one second older (802.1D-2004 clause 17.21.23), and in a
 * region one hop shorter (802.1Q-2018 clause 13.26.23); what is older than the root's maximum age, or has no hop left, is
 * not accepted. Bridges beyond that form a tree of their own. Where the two meet, each end of the LAN is designated: the
 * one that is nearer to the better root receives BPDUs of a worse bridge that forwards, and discards (disputed, clause 13.29.13).
 */
import { portsOnLan } from '../network';
import type { TreeProblem } from './problem';
import { ROLE } from './outcome';
import type { TreeOutcome } from './outcome';
import { isClassic } from './reach';
import type { Topology } from './topology';

/** How many bridges each one lies away from its root, by its way there. */
function depthsOf({ portLan, portBridge }: Topology, { rootPort, designatedPort }: TreeOutcome): Int32Array {
  const bridges = rootPort.length;
  const depth = new Int32Array(bridges).fill(-1);
  const way = new Int32Array(bridges);
  for (let start = 0; start < bridges; start++) {
    let steps = 0;
    let b = start;
    while (depth[b]! < 0) {
      const port = rootPort[b]!;
      if (port < 0) {
        depth[b] = 0;
        break;
      }
      way[steps++] = b;
      b = portBridge[designatedPort[portLan[port]!]!]!;
    }
    for (let next = depth[b]!; steps > 0;) depth[way[--steps]!] = ++next;
  }
  return depth;
}

const leasts = new WeakMap<Int32Array, number>();

/** The shortest reach of all roots. */
export function leastReach(reach: Int32Array): number {
  let least = leasts.get(reach);
  if (least === undefined) {
    least = Infinity;
    for (let b = 0; b < reach.length; b++) if (reach[b]! < least) least = reach[b]!;
    leasts.set(reach, least);
  }
  return least;
}

/** Whether some bridge is so deep that its word may go no further. */
export function reachesLimit(topology: Topology, outcome: TreeOutcome, reach: Int32Array): boolean {
  const least = leastReach(reach);
  // No bridge is deeper than there are others.
  if (reach.length - 1 < least) return false;
  const depth = depthsOf(topology, outcome);
  for (let b = 0; b < depth.length; b++)
    if (depth[b]! >= least && outcome.root[b]! >= 0 && depth[b]! >= reach[outcome.root[b]!]!) return true;
  return false;
}

/**
 * An outcome with its `spent` LANs: those on which no other port accepts what the designated port says. Its port is disputed, and
 * of the others there the best is designated among themselves.
 */
export function withSpent(
  topology: Topology,
  problem: Pick<TreeProblem, 'portTakesPart' | 'portId'>,
  outcome: TreeOutcome,
  spent: readonly number[],
): TreeOutcome {
  const role = outcome.role.slice();
  const { design, portBridge } = topology;
  const rapid = (port: number) => !isClassic(design, design.switches[portBridge[port]!]!);
  const order = (a: number, b: number) => {
    const [x, y] = [portBridge[a]!, portBridge[b]!];
    return (
      outcome.rank[outcome.root[x]!]! - outcome.rank[outcome.root[y]!]! ||
      outcome.rootPathCost[x]! - outcome.rootPathCost[y]! ||
      outcome.rank[x]! - outcome.rank[y]! ||
      problem.portId[a]! - problem.portId[b]!
    );
  };
  for (const lan of spent) {
    const from = outcome.designatedPort[lan]!;
    const others = [...portsOnLan(topology, lan)].filter((p) => p !== from && problem.portTakesPart[p]);
    const [best, ...rest] = others.sort(order);
    if (best === undefined) continue;
    role[best] = ROLE.designated;
    for (const p of rest) role[p] = portBridge[p] === portBridge[best] ? ROLE.backup : ROLE.alternate;
    if (rapid(from) && rapid(best)) role[from] = ROLE.disputed;
  }
  return { ...outcome, role, spent };
}

/** LANs on which others than the designated port are, of those that are given. */
export const withOthers = (
  topology: Topology,
  { portTakesPart }: Pick<TreeProblem, 'portTakesPart'>,
  lans: readonly number[],
): number[] => lans.filter((lan) => [...portsOnLan(topology, lan)].filter((p) => portTakesPart[p]).length > 1);
