/** Ports through which frames of a tree loop: where BPDUs do not pass, spanning tree cannot see that it leaves a ring open. */
import { isFiltered } from '../design';
import { portsOfBridge, portsOnLan } from '../network';
import { forwardsRole } from './outcome';
import type { SolvedTree } from './solved';
import type { Topology } from './topology';

const NONE: ReadonlySet<number> = new Set();

/**
 * Forwarding ports that lie on a ring of bridges and LANs: edges of that graph which are no bridges of it in the sense
 * of graph theory. Found by the lowest visit that a depth-first walk can come back to (Tarjan 1974). `topology` is that
 * of the design, in which frames pass ports with a BPDU filter.
 */
export function loopingPorts(topology: Topology, { outcome }: SolvedTree): ReadonlySet<number> {
  // Only a filter hides a ring from spanning tree.
  if (!topology.ports.some(({ element }) => isFiltered(topology.design, element))) return NONE;
  const { portBridge, portLan, bridgeMac, lanCount } = topology;
  const bridges = bridgeMac.length;
  const open = (port: number) => portLan[port]! >= 0 && forwardsRole(outcome.role[port]);
  const edgesOf = (node: number) =>
    [...(node < bridges ? portsOfBridge(topology, node) : portsOnLan(topology, node - bridges))].filter(open);
  const far = (node: number, port: number) => (node < bridges ? bridges + portLan[port]! : portBridge[port]!);
  const visit = new Int32Array(bridges + lanCount).fill(-1);
  const low = new Int32Array(bridges + lanCount);
  const looping = new Set<number>();
  let clock = 0;
  const enter = (node: number, by: number) => {
    visit[node] = low[node] = clock++;
    return { node, by, edges: edgesOf(node), next: 0 };
  };
  for (let start = 0; start < bridges; start++) {
    if (visit[start]! >= 0) continue;
    const stack = [enter(start, -1)];
    for (let top = stack.at(-1); top; top = stack.at(-1)) {
      const port = top.edges[top.next++];
      if (port !== undefined) {
        if (port === top.by) continue;
        const to = far(top.node, port);
        if (visit[to]! < 0) stack.push(enter(to, port));
        else {
          low[top.node] = Math.min(low[top.node]!, visit[to]!);
          looping.add(port);
        }
        continue;
      }
      stack.pop();
      const parent = stack.at(-1);
      if (!parent) continue;
      low[parent.node] = Math.min(low[parent.node]!, low[top.node]!);
      if (low[top.node]! <= visit[parent.node]!) looping.add(top.by);
    }
  }
  return looping;
}
