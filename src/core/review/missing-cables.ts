/**
 * The fewest cables after which no single link failure, or no single switch failure, parts any VLAN: a network that is in parts
 * is joined first. Leaves of the tree of what hangs together twice are joined two by two (Eswaran, Tarjan 1976); a cable counts
 * in every VLAN that both its ends carry. Exact where all VLANs have the same cables and any can be laid, and for small networks
 * where not; else a small set, of which none can go.
 */
import type { Design } from '../design';
import type { SolvedDesign } from '../trees';
import { Search, withPairs } from './fewest-cables';
import type { LackOf, Pair } from './fewest-cables';
import { Laying, PORT_COST, cableCostOf, openPorts } from './laying';
import { isLess } from './less';
import { edgeLack, nodeLack } from './lacks';
import type { Lack, VlanGraph } from './vlan-graphs';
import { vlanGraphs } from './vlan-graphs';

export interface MissingCable {
  /** Ids of switches; the port that is free, null where none is. */
  readonly a: { readonly switch: string; readonly port: string | null };
  readonly b: { readonly switch: string; readonly port: string | null };
  /** By the costs of the design, with what an end without a free port adds. */
  readonly cost: number;
}

/** Ends that are tried against each other all, and at most so many pairs for more. */
const FEW = 14;
const MOST_TRIED = 24;
const MOST_CABLES = 2000;

/** Cables that are worth trying in one graph: out of each group that hangs on, to the others. */
function candidates({ ends }: Lack, laying: Laying, known: Map<string, readonly number[]>): Pair[] {
  const best = ends.map((nodes) => {
    const key = nodes.join();
    if (!known.has(key)) known.set(key, laying.bestEnds(nodes.filter((n) => n < laying.switches)));
    return known.get(key)!;
  });
  const pairs: Pair[] = [];
  const join = (i: number, j: number) => {
    const pair = laying.between(best[i]!, best[j]!);
    if (pair) pairs.push(pair);
  };
  if (best.length <= FEW) {
    for (let i = 0; i < best.length; i++) for (let j = i + 1; j < best.length; j++) join(i, j);
  } else {
    const half = best.length >> 1;
    for (let i = 0; i < half && pairs.length < MOST_TRIED; i++) join(i, i + half);
  }
  return pairs;
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
  laying: Laying,
  known: Map<string, readonly number[]>,
): { pair: Pair; next: State } | null {
  const worst = state.lacks.reduce((w, l, i) => (l.missing > state.lacks[w]!.missing ? i : w), 0);
  const [least, missing] = score(state.lacks);
  let best: { pair: Pair; next: State; rank: readonly number[] } | null = null;
  for (const pair of candidates(state.lacks[worst]!, laying, known)) {
    const graphs = state.graphs.map((g) => withPairs(g, [pair]));
    const lacks = graphs.map((g, i) => (g === state.graphs[i] ? state.lacks[i]! : lackOf(g)));
    const [left, leftMissing] = score(lacks);
    const rank = [left - least, leftMissing - missing, laying.price(pair.a, pair.b)];
    if (rank[0]! >= 0 && rank[1]! >= 0) continue;
    if (!best || isLess(rank, best.rank)) best = { pair, next: { graphs, lacks }, rank };
  }
  return best;
}

/** Leaves out what is not needed after all. */
function pruned(graphs: readonly VlanGraph[], pairs: readonly Pair[], lackOf: LackOf): Pair[] {
  let kept = [...pairs];
  for (const pair of pairs) {
    const without = kept.filter((p) => p !== pair);
    if (graphs.every((g) => lackOf(withPairs(g, without)).missing === 0)) kept = without;
  }
  return kept;
}

/** Cables, and whether something hangs on by one thread with them as well. */
interface Cables {
  readonly pairs: readonly Pair[];
  readonly short: boolean;
}

function cablesFor(graphs: readonly VlanGraph[], laying: Laying, lackOf: LackOf): Cables {
  const known = new Map<string, readonly number[]>();
  const pairs: Pair[] = [];
  let state: State = { graphs, lacks: graphs.map(lackOf) };
  while (pairs.length < MOST_CABLES && state.lacks.some((l) => l.missing > 0)) {
    const found = bestCable(state, lackOf, laying, known) ?? anyCable(state, lackOf, laying);
    if (!found) break;
    pairs.push(found.pair);
    state = found.next;
  }
  const short = state.lacks.some((l) => l.missing > 0);
  // Where all VLANs have the same cables, and any can be laid, this is the least there is.
  if (short || (graphs.length < 2 && laying.alike) || pairs.length > FEW * 4) return { pairs, short };
  const few = fewer(graphs, pruned(graphs, pairs, lackOf), lackOf, laying);
  return { pairs: laying.alike ? few : new Search(lackOf, laying).cheapest(graphs, few), short };
}

/** Where the best ends cannot be joined: the cheapest cable out of a group that hangs on that helps at all. */
function anyCable(state: State, lackOf: LackOf, laying: Laying): { pair: Pair; next: State } | null {
  if (laying.alike) return null;
  const pieces = (lacks: readonly Lack[]) => lacks.reduce((sum, l) => sum + l.pieces, 0);
  const own = state.lacks.flatMap((l, i) => l.ends.map((nodes) => ({ nodes, all: state.graphs[i]!.nodes })));
  for (const { nodes, all } of own) {
    const others = laying.bestEnds(all.filter((n) => n < laying.switches && !nodes.includes(n)));
    const from = laying.bestEnds(nodes.filter((n) => n < laying.switches));
    const pairs = from.flatMap((a) => others.flatMap((b) => (laying.can(a, b) ? [{ a, b }] : [])));
    for (const pair of pairs.sort((x, y) => laying.price(x.a, x.b) - laying.price(y.a, y.b))) {
      const graphs = state.graphs.map((g) => withPairs(g, [pair]));
      const lacks = graphs.map(lackOf);
      if (pieces(lacks) < pieces(state.lacks)) return { pair, next: { graphs, lacks } };
    }
  }
  return null;
}

/** A smaller set, where a search finds one in time. */
function fewer(graphs: readonly VlanGraph[], found: readonly Pair[], lackOf: LackOf, laying: Laying): Pair[] {
  const search = new Search(lackOf, laying);
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
  return pairs.map((pair) => {
    const [a, b] = [end(pair.a), end(pair.b)];
    const ports = [a, b].filter((e) => e.port === null).length * PORT_COST;
    return { a, b, cost: ports + cableCostOf(design.cableCosts, design.switches[pair.a]!, design.switches[pair.b]!) };
  });
}

export interface MissingCables {
  readonly link: readonly MissingCable[];
  readonly switch: readonly MissingCable[];
  /** Whether some switch hangs on by one link, or behind one switch, with these cables as well: no other can be laid that would help. */
  readonly short: { readonly link: boolean; readonly switch: boolean };
}

/**
 * Cables that are missing for single links, and for single switches, to fail without parting any VLAN: the fewest, and of those
 * the cheapest by the design's costs. `vlans`: of these VLANs alone, 1 for each by number.
 */
export function missingCables(solved: SolvedDesign, vlans?: Uint8Array): MissingCables {
  const { design } = solved.topology;
  const graphs = vlanGraphs(solved).filter((g) => !vlans || g.vlans.some((v) => vlans[v]));
  const laying = new Laying(design, graphs);
  const links = cablesFor(graphs, laying, edgeLack);
  const switches = cablesFor(graphs, laying, (graph) => nodeLack(graph, design.switches.length));
  return {
    link: plugged(design, links.pairs),
    switch: plugged(design, switches.pairs),
    short: { link: links.short, switch: switches.short },
  };
}
