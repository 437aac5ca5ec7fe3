/** The fewest cables by search: whatever hangs on by one thread needs a new cable out of it, so one such group is branched on. */
import type { Lack, VlanGraph } from './vlan-graphs';

export interface Pair {
  readonly a: number;
  readonly b: number;
}
export type LackOf = (graph: VlanGraph) => Lack;

export const withPairs = (graph: VlanGraph, pairs: readonly Pair[]): VlanGraph => {
  const there = new Set(graph.nodes);
  const added = pairs.filter(({ a, b }) => there.has(a) && there.has(b));
  return added.length === 0
    ? graph
    : { ...graph, edges: [...graph.edges, ...added.map((p) => ({ ...p, parallel: 1 as const }))] };
};

/** Graphs that are looked at before the search gives up. */
const MOST_LOOKS = 30_000;

interface State {
  readonly graphs: readonly VlanGraph[];
  readonly lacks: readonly Lack[];
}

/** Looks for a set of a given size; gives up where it takes too long. */
export class Search {
  private looks = 0;
  constructor(
    private readonly lackOf: LackOf,
    /** Nodes below are switches; a cable ends at no other. */
    private readonly switches: number,
    private readonly price: (node: number) => number,
  ) {}

  get gaveUp(): boolean {
    return this.looks > MOST_LOOKS;
  }

  /** A set of at most so many cables after which nothing is missing; null when there is none, or none was found in time. */
  within(graphs: readonly VlanGraph[], most: number): Pair[] | null {
    return this.from({ graphs, lacks: graphs.map(this.lackOf) }, most);
  }

  private from(state: State, left: number): Pair[] | null {
    const open = state.lacks.flatMap((l, i) => (l.missing > 0 ? [i] : []));
    if (open.length === 0) return [];
    if (left === 0 || open.some((i) => state.lacks[i]!.least > left)) return null;
    for (const pair of this.branches(state, open)) {
      if (this.gaveUp) return null;
      const graphs = state.graphs.map((g) => withPairs(g, [pair]));
      const lacks = graphs.map((g, i) => (g === state.graphs[i] ? state.lacks[i]! : this.look(g)));
      const rest = this.from({ graphs, lacks }, left - 1);
      if (rest) return [pair, ...rest];
    }
    return null;
  }

  private look(graph: VlanGraph): Lack {
    this.looks++;
    return this.lackOf(graph);
  }

  /** Cables out of the smallest group that hangs on: one of them is in every solution. */
  private branches({ graphs, lacks }: State, open: readonly number[]): Pair[] {
    const choices = open.flatMap((i) => lacks[i]!.ends.map((nodes) => ({ nodes, graph: graphs[i]! })));
    if (choices.length === 0) return [];
    const { nodes, graph } = choices.reduce((a, b) => (b.nodes.length < a.nodes.length ? b : a));
    const own = new Set(nodes);
    const others = graph.nodes.filter((n) => n < this.switches && !own.has(n));
    const pairs = nodes.filter((n) => n < this.switches).flatMap((a) => others.map((b) => ({ a, b })));
    const dear = ({ a, b }: Pair) => this.price(a) + this.price(b);
    return pairs.sort((x, y) => dear(x) - dear(y));
  }
}
