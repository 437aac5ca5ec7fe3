/** Where a graph hangs on one edge, or on one node, and how many new edges that needs at least. */
import { Adjacency, walk } from './vlan-graphs';
import type { Lack, VlanGraph } from './vlan-graphs';

/** Switches of a list that a cable can start from: hubs are none. */
const NOTHING: Lack = { ends: [], least: 0, missing: 0, pieces: 1 };

const lackOf = (
  leaves: readonly (readonly number[])[],
  lone: readonly (readonly number[])[],
  pieces: number,
  least = 0,
): Lack => {
  const missing = leaves.length + 2 * lone.length;
  return { ends: [...lone, ...leaves], least: Math.max(least, Math.ceil(missing / 2)), missing, pieces };
};

/** What is missing until no single edge parts the graph: leaves of the tree that its bridges make. */
export function edgeLack({ nodes, edges }: VlanGraph): Lack {
  if (nodes.length < 2) return NOTHING;
  const graph = new Adjacency(nodes, edges);
  const { order, low, visit, parent } = walk(graph);
  // A node that cannot come back above itself begins a group that hangs on the edge above it.
  const group = new Map<number, number>();
  const members: number[][] = [];
  const degree: number[] = [];
  for (const node of order) {
    const starts = low[node] === visit[node];
    if (starts) {
      group.set(node, members.length);
      members.push([node]);
      degree.push(0);
      if (parent[node]! >= 0) {
        degree[degree.length - 1]!++;
        degree[group.get(parent[node]!)!]!++;
      }
    } else {
      const own = group.get(parent[node]!)!;
      group.set(node, own);
      members[own]!.push(node);
    }
  }
  if (members.length < 2) return NOTHING;
  const of = (wanted: number) => members.filter((_, i) => degree[i] === wanted);
  return lackOf(of(1), of(0), members.length);
}

interface Blocks {
  /** Nodes of each block. */
  readonly blocks: readonly (readonly number[])[];
  /** Blocks that a node is in: more than one for one that parts the graph. */
  readonly count: ReadonlyMap<number, number>;
}

/** Blocks of a graph: parts that no single node parts (Hopcroft, Tarjan 1973). */
function blocksOf(graph: Adjacency): Blocks {
  const visit = new Map<number, number>();
  const low = new Map<number, number>();
  const blocks: number[][] = [];
  const count = new Map<number, number>();
  const path: number[] = [];
  const close = (nodes: number[]) => {
    blocks.push(nodes);
    for (const n of nodes) count.set(n, (count.get(n) ?? 0) + 1);
  };
  const enter = (node: number, from: number) => {
    visit.set(node, visit.size);
    low.set(node, visit.get(node)!);
    path.push(node);
    return { node, from, next: 0 };
  };
  for (const start of graph.nodes) {
    if (visit.has(start)) continue;
    const stack = [enter(start, -1)];
    if (graph.of(start).length === 0) close([start]);
    for (let top = stack.at(-1); top; top = stack.at(-1)) {
      const step = graph.of(top.node)[top.next++];
      if (step) {
        if (!visit.has(step.to)) stack.push(enter(step.to, top.node));
        else if (step.to !== top.from) low.set(top.node, Math.min(low.get(top.node)!, visit.get(step.to)!));
        continue;
      }
      stack.pop();
      const above = stack.at(-1);
      if (!above) continue;
      low.set(above.node, Math.min(low.get(above.node)!, low.get(top.node)!));
      if (low.get(top.node)! < visit.get(above.node)!) continue;
      close([...path.splice(path.indexOf(top.node)), above.node]);
    }
    path.length = 0;
  }
  return { blocks, count };
}

/** Parts that a graph falls into. */
function partCount(graph: Adjacency): number {
  const { part } = walk(graph);
  return new Set(graph.nodes.map((n) => part[n])).size;
}

/** What is missing until no single switch parts the rest; `switches`: nodes below are switches, the others hubs. */
export function nodeLack({ nodes, edges }: VlanGraph, switches: number): Lack {
  if (nodes.length < 2) return NOTHING;
  const graph = new Adjacency(nodes, edges);
  const { blocks, count } = blocksOf(graph);
  const parts = partCount(graph);
  const isSwitch = (n: number) => n < switches;
  // A hub does not fail here: it parts nothing.
  const cuts = new Set([...count].flatMap(([n, in_]) => (in_ > 1 && isSwitch(n) ? [n] : [])));
  if (parts === 1 && cuts.size === 0) return NOTHING;
  const merged = overHubs(blocks, isSwitch);
  const inner = merged.map((block) => block.filter((n) => isSwitch(n) && !cuts.has(n)));
  const cutsIn = merged.map((block) => block.filter((n) => cuts.has(n)).length);
  const leaves = inner.filter((block, i) => cutsIn[i] === 1 && block.length > 0);
  const lone = inner.filter((block, i) => cutsIn[i] === 0 && block.length > 0);
  // Whatever a node parts has to be joined round it.
  const most = Math.max(0, ...[...cuts].map((n) => merged.filter((block) => block.includes(n)).length));
  return lackOf(leaves, lone, merged.length, Math.max(0, most - 1) + Math.max(0, parts - 1));
}

/** Blocks that share a hub are one: only a switch parts them. */
function overHubs(blocks: readonly (readonly number[])[], isSwitch: (n: number) => boolean): number[][] {
  const result: Set<number>[] = [];
  for (const block of blocks) {
    const own = new Set(block);
    const meets = result.filter((r) => [...own].some((n) => !isSwitch(n) && r.has(n)));
    for (const r of meets) {
      for (const n of r) own.add(n);
      result.splice(result.indexOf(r), 1);
    }
    result.push(own);
  }
  return result.map((r) => [...r]);
}

/** Switches of a graph whose loss parts others. */
export function nodeCuts({ nodes, edges }: VlanGraph, switches: number): number[] {
  const { count } = blocksOf(new Adjacency(nodes, edges));
  return [...count].flatMap(([n, blocks]) => (blocks > 1 && n < switches ? [n] : [])).sort((a, b) => a - b);
}
