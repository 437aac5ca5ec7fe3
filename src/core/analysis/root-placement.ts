/** Roots placed by rank: who is first, second, third in which trees, and the priorities that make it so. */
import { analysisMessages as say } from '../messages';
import { priorityInForce, scopeAt, setBridgePriority } from '../design';
import type { Edit, Switch } from '../design';
import { BRIDGE_PRIORITY, compareBridgeId, macToNumber } from '../standard';
import { inTree } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { orderPriorities } from './bridge-priorities';

export interface Ranked {
  readonly switch: string;
  readonly priority: number;
  /** Has the priority of the one before it and comes after it by MAC address only. */
  readonly byMac: boolean;
}

/** All switches of a tree from the best bridge identifier to the worst, those that are off included. */
export function ranking(solved: SolvedDesign, of: SolvedTree): Ranked[] {
  const { design } = solved.topology;
  const rows = inTree(solved, of).map((s) => ({
    switch: s.id,
    mac: macToNumber(s.mac),
    priority: priorityInForce(design, s, of.tree).value,
  }));
  rows.sort(compareBridgeId);
  return rows.map(({ switch: id, priority }, i) => ({
    switch: id,
    priority,
    byMac: i > 0 && rows[i - 1]!.priority === priority,
  }));
}

export type RankResult =
  { readonly ok: true; readonly edits: Edit[] } | { readonly ok: false; readonly sentence: string };

/** Priorities wanted of a switch, by tree id. */
type Wanted = Map<string, Map<string, number>>;

/** Settings that bring wanted priorities about: one for all trees where every tree wants the same, else one a tree. */
function priorityEdits(solved: SolvedDesign, wanted: Wanted): Edit[] {
  const { design } = solved.topology;
  const members = new Map(solved.trees.map((of) => [of.tree.id, new Set(inTree(solved, of).map((s) => s.id))]));
  return [...wanted].flatMap(([id, byTree]) => {
    const s = design.switches.find((candidate) => candidate.id === id)!;
    const changed = [...byTree].filter(([tree, value]) => valueOf(solved, s, tree) !== value);
    if (changed.length === 0) return [];
    // Trees that the switch has no part in do not mind what is set for all.
    const own = solved.trees.filter(({ tree }) => members.get(tree.id)!.has(id));
    const values = new Set(own.map(({ tree }) => byTree.get(tree.id) ?? valueOf(solved, s, tree.id)));
    const general = setBridgePriority(s, 'all', [...values][0]!);
    if (values.size === 1 && general.length <= changed.length) return general;
    return changed.flatMap(([tree, value]) =>
      setBridgePriority(s, scopeAt(design, s, solved.byId.get(tree)!.tree), value),
    );
  });
}

const valueOf = ({ topology, byId }: SolvedDesign, s: Switch, tree: string): number =>
  priorityInForce(topology.design, s, byId.get(tree)!.tree).value;

function want(wanted: Wanted, id: string, tree: string, value: number): void {
  if (!wanted.has(id)) wanted.set(id, new Map());
  wanted.get(id)!.set(tree, value);
}

/** Groups of switches in the order wanted, solved for one tree into `wanted`; false when there are too many groups. */
function placeGroups(solved: SolvedDesign, of: SolvedTree, groups: readonly (readonly Switch[])[], wanted: Wanted) {
  const { design } = solved.topology;
  const now = groups.map((g) => g.map((s) => priorityInForce(design, s, of.tree).value));
  const next = orderPriorities(now);
  if (!next) return false;
  groups.forEach((group, i) => group.forEach((s, j) => want(wanted, s.id, of.tree.id, next[i]![j]!)));
  return true;
}

/** Wants the given order in the given trees; a sentence when it cannot be. */
function wantOrder(
  solved: SolvedDesign,
  trees: readonly SolvedTree[],
  order: readonly string[],
  wanted: Wanted,
): string | null {
  const name = (id: string) => solved.topology.design.switches.find((s) => s.id === id)?.name ?? id;
  const twice = order.find((id, i) => order.indexOf(id) !== i);
  if (twice !== undefined) return say['two-ranks']({ name: name(twice) });
  for (const of of trees) {
    const members = inTree(solved, of);
    const missing = order.find((id) => !members.some((s) => s.id === id));
    if (missing !== undefined)
      return say['not-in-tree']({ name: name(missing), tree: String(of.tree.vlan ?? of.tree.name) });
    const ranked = order.map((id) => [members.find((s) => s.id === id)!]);
    const others = members.filter((s) => !order.includes(s.id));
    if (!placeGroups(solved, of, [...ranked, others], wanted)) return say['too-many-ranks']();
  }
  return null;
}

/**
 * The smallest set of settings that puts the given switches on the first ranks of the given trees, in this order,
 * each by priority and not by address, before all others.
 */
export function rankEdits(solved: SolvedDesign, trees: readonly SolvedTree[], order: readonly string[]): RankResult {
  const wanted: Wanted = new Map();
  const sentence = wantOrder(solved, trees, order, wanted);
  return sentence === null ? { ok: true, edits: priorityEdits(solved, wanted) } : { ok: false, sentence };
}

/** Keeps a whole tier from becoming root of the given trees: each of its switches comes after all others. */
export function tierLastEdits(
  solved: SolvedDesign,
  trees: readonly SolvedTree[],
  tier: NonNullable<Switch['tier']>,
): RankResult {
  const { design } = solved.topology;
  const tiered = design.switches.filter((s) => s.tier === tier);
  if (tiered.length === 0) return { ok: false, sentence: say['no-tier']({ tier }) };
  const wanted: Wanted = new Map();
  const { max, step } = BRIDGE_PRIORITY;
  for (const of of trees)
    for (const s of inTree(solved, of)) {
      if (s.tier === tier) want(wanted, s.id, of.tree.id, max);
      // Who stands at the end already would be beaten by address alone.
      else if (valueOf(solved, s, of.tree.id) === max) want(wanted, s.id, of.tree.id, max - step);
    }
  return { ok: true, edits: priorityEdits(solved, wanted) };
}

/** Which trees go to which of two roots, as even as it gets; a tree stays where it is when that is as good. */
export function shareTrees(
  solved: SolvedDesign,
  trees: readonly SolvedTree[],
  [a, b]: readonly [string, string],
  weight: (of: SolvedTree) => number,
): readonly [SolvedTree[], SolvedTree[]] {
  const { bridgeIndex } = solved.topology;
  const rootedAt = (of: SolvedTree, id: string) => {
    const bridge = bridgeIndex.get(id)!;
    return of.outcome.root[bridge] === bridge;
  };
  const shares: [SolvedTree[], SolvedTree[]] = [[], []];
  const sums = [0, 0];
  const give = (of: SolvedTree, side: 0 | 1) => {
    shares[side].push(of);
    sums[side]! += weight(of);
  };
  const half = trees.reduce((sum, of) => sum + weight(of), 0) / 2;
  const heavyFirst = [...trees].sort((x, y) => weight(y) - weight(x));
  const rest: SolvedTree[] = [];
  for (const of of heavyFirst) {
    const side = rootedAt(of, a) ? 0 : rootedAt(of, b) ? 1 : null;
    if (side !== null && sums[side]! + weight(of) <= half) give(of, side);
    else rest.push(of);
  }
  for (const of of rest) {
    const stays = rootedAt(of, b) ? 1 : 0;
    give(of, sums[0]! === sums[1]! ? stays : sums[0]! < sums[1]! ? 0 : 1);
  }
  const order = new Map(trees.map((of, i) => [of, i]));
  for (const share of shares) share.sort((x, y) => order.get(x)! - order.get(y)!);
  return shares;
}

/** Both shares, and the trees that were passed over since one of the two switches has no part in them. */
type Balanced =
  | {
      readonly ok: true;
      readonly edits: Edit[];
      readonly shares: readonly [SolvedTree[], SolvedTree[]];
      readonly passed: readonly SolvedTree[];
    }
  | { readonly ok: false; readonly sentence: string };

/** Two-sided balance: each share of the trees has one of the two as root and the other as its successor. */
export function balanceEdits(
  solved: SolvedDesign,
  trees: readonly SolvedTree[],
  pair: readonly [string, string],
  weight: (of: SolvedTree) => number = () => 1,
): Balanced {
  if (pair[0] === pair[1]) return { ok: false, sentence: say['balance-needs-two']() };
  const hasBoth = (of: SolvedTree) => pair.every((id) => inTree(solved, of).some((s) => s.id === id));
  const passed = trees.filter((of) => !hasBoth(of));
  if (passed.length === trees.length) return { ok: false, sentence: say['balance-nowhere']() };
  const shares = shareTrees(solved, trees.filter(hasBoth), pair, weight);
  const wanted: Wanted = new Map();
  const sentence =
    wantOrder(solved, shares[0], pair, wanted) ?? wantOrder(solved, shares[1], [pair[1], pair[0]], wanted);
  if (sentence !== null) return { ok: false, sentence };
  return { ok: true, edits: priorityEdits(solved, wanted), shares, passed };
}
