/** How many links the longest way in a tree has. */
import type { SolvedTree } from '../trees';

/** Links between the two switches that are farthest apart: the two deepest branches of a switch, where that is most. */
export function treeDiameter({ topology, outcome }: SolvedTree): number {
  const bridges = topology.bridgeMac.length;
  const up = Int32Array.from({ length: bridges }, (_, b) => {
    const port = outcome.rootPort[b]!;
    const designated = port < 0 ? -1 : outcome.designatedPort[topology.portLan[port]!]!;
    return designated === undefined || designated < 0 ? -1 : topology.portBridge[designated]!;
  });
  const order: number[] = [];
  const left = new Int32Array(bridges);
  for (const parent of up) if (parent >= 0) left[parent]!++;
  for (let b = 0; b < bridges; b++) if (left[b] === 0) order.push(b);
  const [deepest, diameter] = [new Int32Array(bridges), new Int32Array(bridges)];
  let best = 0;
  for (const b of order) {
    best = Math.max(best, diameter[b]!);
    const parent = up[b]!;
    if (parent < 0) continue;
    diameter[parent] = Math.max(diameter[parent]!, deepest[parent]! + deepest[b]! + 1);
    deepest[parent] = Math.max(deepest[parent]!, deepest[b]! + 1);
    if (--left[parent]! === 0) order.push(parent);
  }
  return best;
}
