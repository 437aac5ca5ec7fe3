/**
 * The fewest cables after which no single link failure, or no single switch failure, parts any VLAN: a network that is in parts
 * is joined first. Leaves of the tree of what hangs together twice are joined two by two (Eswaran, Tarjan 1976); a cable counts
 * in every VLAN that both its ends carry. Exact where all VLANs have the same cables, and for small networks where they have
 * not; else a small set, of which none can go.
 */
import { freePorts } from '../design';
import type { Design, Port } from '../design';
import type { SolvedDesign } from '../trees';
import { Search, withPairs } from './fewest-cables';
import type { LackOf, Pair } from './fewest-cables';
import { edgeLack, nodeLack } from './lacks';
import type { Lack, VlanGraph } from './vlan-graphs';
import { vlanGraphs } from './vlan-graphs';

export interface MissingCable {
  /** Ids of switches; the port that is free, null where none is. */
  readonly a: { readonly switch: string; readonly port: string | null };
  readonly b: { readonly switch: string; readonly port: string | null };
}

/** Ends that are tried against each other all, and at most so many pairs for more. */
const FEW = 14;
const MOST_TRIED = 24;
const MOST_CABLES = 2000;

/** How dear a cable at a switch is: no free port, then access switches, then those that carry few VLANs. */
class Prices {
  private readonly carried: Int32Array;
  readonly switches: number;
  constructor(
    private readonly design: Design,
    graphs: readonly VlanGraph[],
  ) {
    this.switches = design.switches.length;
    this.carried = new Int32Array(this.switches);
    for (const { nodes, vlans } of graphs)
      for (const n of nodes) if (n < this.carried.length) this.carried[n]! += vlans.length;
  }
  at(node: number): number {
    const s = this.design.switches[node]!;
    const free = openPorts(this.design, s.id).length > 0;
    return (free ? 0 : 1000) + (s.tier === 'access' ? 1 : 0) - this.carried[node]! / 5000;
  }
}

/** Ports for a cable to another switch: free ones that are up and not meant for a host. */
const openPorts = (design: Design, at: string): Port[] => freePorts(design, at).filter((p) => !p.down && !p.edge);

/** Pairs of ends that are worth trying in one graph. */
function candidates({ ends }: Lack, prices: Prices, known: Map<string, number>): Pair[] {
  const best = ends.map((nodes) => {
    const key = nodes.join();
    if (!known.has(key))
      known.set(
        key,
        nodes.reduce((a, b) => (prices.at(b) < prices.at(a) ? b : a)),
      );
    return known.get(key)!;
  });
  const pairs: Pair[] = [];
  if (best.length <= FEW) {
    for (let i = 0; i < best.length; i++)
      for (let j = i + 1; j < best.length; j++) pairs.push({ a: best[i]!, b: best[j]! });
  } else {
    const half = best.length >> 1;
    for (let i = 0; i < half && pairs.length < MOST_TRIED; i++) pairs.push({ a: best[i]!, b: best[i + half]! });
  }
  return pairs.filter(({ a, b }) => a !== b);
}

interface State {
  readonly graphs: readonly VlanGraph[];
  readonly lacks: readonly Lack[];
}
const score = (lacks: readonly Lack[]): readonly [number, number] => [
  lacks.reduce((sum, l) => sum + l.least, 0),
  lacks.reduce((sum, l) => sum + l.missing, 0),
];

/** The cable that helps most, in all graphs together; null when none helps. */
function bestCable(
  state: State,
  lackOf: LackOf,
  prices: Prices,
  known: Map<string, number>,
): { pair: Pair; next: State } | null {
  const worst = state.lacks.reduce((w, l, i) => (l.missing > state.lacks[w]!.missing ? i : w), 0);
  const [least, missing] = score(state.lacks);
  let best: { pair: Pair; next: State; rank: readonly number[] } | null = null;
  for (const pair of candidates(state.lacks[worst]!, prices, known)) {
    const graphs = state.graphs.map((g) => withPairs(g, [pair]));
    const lacks = graphs.map((g, i) => (g === state.graphs[i] ? state.lacks[i]! : lackOf(g)));
    const [left, leftMissing] = score(lacks);
    const rank = [left - least, leftMissing - missing, prices.at(pair.a) + prices.at(pair.b)];
    if (rank[0]! >= 0 && rank[1]! >= 0) continue;
    if (!best || isLess(rank, best.rank)) best = { pair, next: { graphs, lacks }, rank };
  }
  return best;
}

const isLess = (a: readonly number[], b: readonly number[]): boolean => {
  const at = a.findIndex((value, i) => value !== b[i]);
  return at >= 0 && a[at]! < b[at]!;
};

/** Leaves out what is not needed after all. */
function pruned(graphs: readonly VlanGraph[], pairs: readonly Pair[], lackOf: LackOf): Pair[] {
  let kept = [...pairs];
  for (const pair of pairs) {
    const without = kept.filter((p) => p !== pair);
    if (graphs.every((g) => lackOf(withPairs(g, without)).missing === 0)) kept = without;
  }
  return kept;
}

function cablesFor(graphs: readonly VlanGraph[], prices: Prices, lackOf: LackOf): Pair[] {
  const known = new Map<string, number>();
  const pairs: Pair[] = [];
  let state: State = { graphs, lacks: graphs.map(lackOf) };
  while (pairs.length < MOST_CABLES && state.lacks.some((l) => l.missing > 0)) {
    const found = bestCable(state, lackOf, prices, known);
    if (!found) break;
    pairs.push(found.pair);
    state = found.next;
  }
  // Where all VLANs have the same cables this is the least there is.
  if (graphs.length < 2 || pairs.length > FEW * 4) return pairs;
  return fewer(graphs, pruned(graphs, pairs, lackOf), lackOf, prices);
}

/** A smaller set, where a search finds one in time. */
function fewer(graphs: readonly VlanGraph[], found: readonly Pair[], lackOf: LackOf, prices: Prices): Pair[] {
  const search = new Search(lackOf, prices.switches, (node) => prices.at(node));
  let best = [...found];
  while (best.length > 1) {
    const next = search.within(graphs, best.length - 1);
    if (!next) return best;
    best = next;
  }
  return best;
}

/** Gives each end of a cable the first free port of its switch that no other new cable has. */
function plugged(design: Design, pairs: readonly Pair[]): MissingCable[] {
  const taken = new Set<string>();
  const end = (node: number) => {
    const s = design.switches[node]!;
    const port = openPorts(design, s.id).find((p) => !taken.has(p.id));
    if (port) taken.add(port.id);
    return { switch: s.id, port: port?.id ?? null };
  };
  return pairs.map(({ a, b }) => ({ a: end(a), b: end(b) }));
}

/** Cables that are missing for single links, and for single switches, to fail without parting any VLAN. */
export function missingCables(solved: SolvedDesign): { link: MissingCable[]; switch: MissingCable[] } {
  const { design } = solved.topology;
  const graphs = vlanGraphs(solved);
  const prices = new Prices(design, graphs);
  const of = (lackOf: LackOf) => plugged(design, cablesFor(graphs, prices, lackOf));
  return { link: of(edgeLack), switch: of((graph) => nodeLack(graph, design.switches.length)) };
}
