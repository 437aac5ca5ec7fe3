/** The cables of every VLAN as graphs of switches: what stays connected when one of them, or one switch, is gone. */
import { actingDesign, portsOnLan } from '../network';
import { canLoseOne } from './spare-members';
import { vlanMembership } from '../standard';
import type { Bundle } from '../design';
import type { SolvedDesign, Topology } from '../trees';
import { reachOf } from './reach';

/** Two nodes and how many cables join them: more than two count as two. */
export interface GraphEdge {
  readonly a: number;
  readonly b: number;
  readonly parallel: 1 | 2;
}

/** Nodes are switches by index, then hubs. */
export interface VlanGraph {
  readonly vlans: readonly number[];
  readonly nodes: readonly number[];
  readonly edges: readonly GraphEdge[];
}

/** Whether a bundle still stands with a member less: one that waits takes its place. Both switches of a pair count together. */
function standsWithout({ design, ports }: Topology, port: number): boolean {
  const { kind, element } = ports[port]!;
  return kind === 'bundle' && canLoseOne(actingDesign(design), element as Bundle);
}

/** Joints of switches that are up, with the VLAN sets at their ends; hubs are nodes of their own, whose cables do not fail. */
function joints(topology: Topology): { a: number; b: number; parallel: 1 | 2; sets: readonly number[] }[] {
  const { lanCount, portBridge, portVlans, design } = topology;
  let hub = design.switches.length;
  return Array.from({ length: lanCount }, (_, lan) => [...portsOnLan(topology, lan)]).flatMap((ports) => {
    const bridges = new Set(ports.map((p) => portBridge[p]!));
    if (bridges.size < 2) return [];
    if (ports.length === 2) {
      const [x, y] = ports as [number, number];
      const parallel = standsWithout(topology, x) && standsWithout(topology, y) ? 2 : 1;
      return [{ a: portBridge[x]!, b: portBridge[y]!, parallel, sets: [portVlans[x]!, portVlans[y]!] }];
    }
    const own = hub++;
    return ports.map((p) => ({ a: portBridge[p]!, b: own, parallel: 2 as const, sets: [portVlans[p]!] }));
  });
}

/** One graph for all VLANs with the same switches and cables. */
export function vlanGraphs(solved: SolvedDesign): VlanGraph[] {
  const { topology } = solved;
  const { vlanSets } = topology;
  const all = joints(topology);
  const classes = new Map<string, VlanGraph & { vlans: number[] }>();
  for (const { vlans, partOf } of reachOf(solved))
    for (const vlan of vlans) {
      const carried = vlanSets.map((set) => vlanMembership(set)[vlan] === 1);
      const edges = all.filter(({ sets }) => sets.every((s) => carried[s]));
      const carriers = [...partOf.keys()].filter((s) => partOf[s]! >= 0 && topology.actsAs[s] === s);
      const nodes = [...new Set([...carriers, ...edges.flatMap((e) => [e.a, e.b])])].sort((a, b) => a - b);
      const key = `${nodes.join()};${edges.map((e) => all.indexOf(e)).join()}`;
      const known = classes.get(key);
      if (known) known.vlans.push(vlan);
      else classes.set(key, { vlans: [vlan], nodes, edges });
    }
  return [...classes.values()];
}

/** What a graph lacks: groups that hang on by one thread, each by the nodes that a new cable may start from. */
export interface Lack {
  /** Groups in the order of a walk, so that those far apart in the list are far apart in the network. */
  readonly ends: readonly (readonly number[])[];
  /** Cables that are needed at least. */
  readonly least: number;
  /** How much is missing: two for a group that stands alone, one for one that hangs on. */
  readonly missing: number;
  /** Parts that one loss cannot divide; a cable between two of them leaves fewer. */
  readonly pieces: number;
}

interface Walk {
  readonly order: readonly number[];
  readonly low: Int32Array;
  readonly visit: Int32Array;
  readonly parent: Int32Array;
  /** First node of the part that a node is in. */
  readonly part: Int32Array;
}

/** Neighbours of each node, with the edge and whether it is double. */
export class Adjacency {
  private readonly lists = new Map<number, { to: number; edge: number; parallel: 1 | 2 }[]>();
  constructor(
    readonly nodes: readonly number[],
    edges: readonly GraphEdge[],
  ) {
    for (const n of nodes) this.lists.set(n, []);
    edges.forEach(({ a, b, parallel }, edge) => {
      this.lists.get(a)!.push({ to: b, edge, parallel });
      this.lists.get(b)!.push({ to: a, edge, parallel });
    });
  }
  of(node: number): readonly { to: number; edge: number; parallel: 1 | 2 }[] {
    return this.lists.get(node)!;
  }
}

/** Depth first, with the lowest visit that each node can come back to without the edge that led to it (Tarjan 1974). */
export function walk(graph: Adjacency): Walk {
  const size = 1 + graph.nodes.reduce((m, n) => Math.max(m, n), -1);
  const [visit, low] = [new Int32Array(size).fill(-1), new Int32Array(size)];
  const [parent, part] = [new Int32Array(size).fill(-1), new Int32Array(size).fill(-1)];
  const order: number[] = [];
  const enter = (node: number, by: number, from: number, root: number) => {
    visit[node] = low[node] = order.length;
    parent[node] = from;
    part[node] = root;
    order.push(node);
    return { node, by, next: 0 };
  };
  for (const start of graph.nodes) {
    if (visit[start]! >= 0) continue;
    const stack = [enter(start, -1, -1, start)];
    for (let top = stack.at(-1); top; top = stack.at(-1)) {
      const step = graph.of(top.node)[top.next++];
      if (!step) {
        stack.pop();
        const above = stack.at(-1);
        if (above) low[above.node] = Math.min(low[above.node]!, low[top.node]!);
      } else if (visit[step.to]! < 0) stack.push(enter(step.to, step.parallel === 2 ? -1 : step.edge, top.node, start));
      else if (step.edge !== top.by) low[top.node] = Math.min(low[top.node]!, visit[step.to]!);
    }
  }
  return { order, low, visit, parent, part };
}
