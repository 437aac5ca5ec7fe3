/** The fewest cables by search: whatever hangs on by one thread needs a new cable out of it, so one such group is branched on. */
import type { Laying } from './laying';
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
    private readonly laying: Laying,
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
      const rest = this.from(this.withCable(state, pair), left - 1);
      if (rest) return [pair, ...rest];
    }
    return null;
  }

  /** The cheapest set of as many cables as a set that is known, within the number of looks. */
  cheapest(graphs: readonly VlanGraph[], known: readonly Pair[]): readonly Pair[] {
    let best = known;
    let least = this.sum(known);
    const look = (state: State, made: readonly Pair[], price: number): void => {
      const open = state.lacks.flatMap((l, i) => (l.missing > 0 ? [i] : []));
      if (open.length === 0) {
        if (price < least) [best, least] = [made, price];
        return;
      }
      const left = known.length - made.length;
      if (left === 0 || open.some((i) => state.lacks[i]!.least > left)) return;
      for (const pair of this.branches(state, open)) {
        if (this.gaveUp) return;
        const next = price + this.sum([pair]);
        if (next < least) look(this.withCable(state, pair), [...made, pair], next);
      }
    };
    look({ graphs, lacks: graphs.map(this.lackOf) }, [], 0);
    return best;
  }

  private sum(pairs: readonly Pair[]): number {
    return pairs.reduce((sum, { a, b }) => sum + this.laying.price(a, b), 0);
  }

  private withCable(state: State, pair: Pair): State {
    const graphs = state.graphs.map((g) => withPairs(g, [pair]));
    return { graphs, lacks: graphs.map((g, i) => (g === state.graphs[i] ? state.lacks[i]! : this.look(g))) };
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
    const others = graph.nodes.filter((n) => n < this.laying.switches && !own.has(n));
    const pairs = nodes.filter((n) => n < this.laying.switches).flatMap((a) => others.map((b) => ({ a, b })));
    return pairs.filter(({ a, b }) => this.laying.can(a, b)).sort((x, y) => this.sum([x]) - this.sum([y]));
  }
}
