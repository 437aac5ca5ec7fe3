/** Options for two parallel links: one blocked by spanning tree, the VLANs split between them, or a bundle. */
import { analysisMessages as say } from '../messages';
import {
  applyEdits,
  bundleAt,
  bundleLinks,
  isClassicMode,
  linkById,
  linkSpeed,
  modeOf,
  portById,
  splitBundles,
  switchById,
} from '../design';
import { verdictOf } from '../network';
import type { Bundle, Design, Edit, Link } from '../design';
import { timersInForce } from './tree-timers';
import { forwardsRole, movedBetween, solveDesign } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';

export interface Option {
  readonly id: 'blocked' | 'split' | 'bundled';
  readonly name: string;
  /** Edits that lead there; empty when the design is like that already. */
  readonly edits: readonly Edit[];
  /** Trees that each of the two links carries. */
  readonly carried: readonly [number, number];
  /** Mb/s that all trees together can use, one tree at most, one conversation, at most. */
  readonly capacity: number;
  readonly tree: number;
  readonly conversation: number;
  /** Mb/s that are left when the first link fails, and trees whose ports change role then. */
  readonly left: number;
  readonly moved: number;
  /** Seconds without traffic when the first link goes down, comes back, or goes silent with its carrier up. Infinity: no end. */
  readonly outage: number;
  readonly back: number;
  readonly silent: number;
}

export type Comparison =
  | { readonly ok: true; readonly options: readonly Option[]; readonly notes: readonly string[] }
  | { readonly ok: false; readonly sentence: string };

/** Seconds (802.1AX-2014 clause 6.4.4). */
const LACP_SILENCE = { short: 3, long: 90 } as const;

const apply = (design: Design, edits: readonly Edit[]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(`compareOptions: ${applied.faults[0]?.sentence}`);
  return applied.design;
};

type PortLink = Link & { a: { port: string }; b: { port: string } };

const carries = (solved: SolvedDesign, of: SolvedTree, link: PortLink): boolean =>
  [link.a.port, link.b.port].every((id) => forwardsRole(of.outcome.role[solved.topology.portIndex.get(id)!]));

/** Raises the cost of the first link for every second tree that could use both; null when there is one tree only. */
function splitEdits(solved: SolvedDesign, links: readonly [PortLink, PortLink]): Edit[] | null {
  const { topology } = solved;
  const [first] = links;
  const both = solved.trees.filter(
    (of) =>
      links.some((l) => carries(solved, of, l)) &&
      links.every((l) => [l.a.port, l.b.port].every((id) => of.problem.portTakesPart[topology.portIndex.get(id)!])),
  );
  const usable = both.filter(({ tree }) => tree.vlan !== null || tree.instance !== null);
  if (usable.length < 2) return null;
  // The trees that now run over the first link are the ones to move, every second of them.
  const onFirst = usable.filter((of) => carries(solved, of, first));
  const other = links[1];
  const turns =
    onFirst.length * 2 >= usable.length
      ? { list: onFirst, link: first, to: other }
      : { list: usable.filter((of) => carries(solved, of, other)), link: other, to: first };
  const surplus = turns.list.slice(0, Math.floor(turns.list.length - usable.length / 2));
  return surplus.flatMap(({ tree, problem }) =>
    [turns.link.a.port, turns.link.b.port].map((id): Edit => {
      const cost = problem.portCost[topology.portIndex.get(id)!]!;
      const field = tree.vlan !== null ? `vlanCost.${tree.vlan}` : `instanceCost.${tree.instance}`;
      return { type: 'set', kind: 'port', id, field, value: cost * 2 };
    }),
  );
}

/** Seconds after which a silent partner is detected: three LACP periods; a static bundle never detects it. */
const bundleSilence = (ends: readonly (Bundle | undefined)[]): number =>
  ends.some((b) => b?.kind === 'static')
    ? Infinity
    : Math.max(...ends.map((b) => (b?.timeout === 'short' ? LACP_SILENCE.short : LACP_SILENCE.long)));

/** Edits that take the two links out of whatever bundle they are in. */
function unbundled(design: Design, links: readonly [PortLink, PortLink]): Edit[] {
  const ids = new Set(links.flatMap((l) => [l.a.port, l.b.port].flatMap((p) => bundleAt(design, p)?.id ?? [])));
  return splitBundles([...ids]);
}

/** The two links as a pair that can be compared, or the sentence that says why not. */
function parallelPair(design: Design, linkIds: readonly string[]): readonly [PortLink, PortLink] | string {
  const links = linkIds.flatMap((id) => linkById(design, id) ?? []);
  const [x, y] = links;
  if (links.length !== 2 || !x || !y || ![x, y].every((l) => 'port' in l.a && 'port' in l.b))
    return say['select-two-links']();
  const pair = [x, y] as unknown as [PortLink, PortLink];
  const sides = pair.map((l) =>
    [l.a.port, l.b.port]
      .map((p) => portById(design, p)!.switch)
      .sort()
      .join('\n'),
  );
  if (sides[0] !== sides[1]) return say['not-parallel']();
  if (pair.some((l) => [l.a.port, l.b.port].some((p) => (bundleAt(design, p)?.members.length ?? 0) > 2)))
    return say['in-larger-bundle']();
  return pair;
}

/** What all options have in common. */
interface Ground {
  readonly design: Design;
  readonly pair: readonly [PortLink, PortLink];
  readonly rates: readonly [number, number];
  readonly classic: boolean;
  readonly timers: ReturnType<typeof timersInForce>;
}

const carriedBy = (solved: SolvedDesign, link: PortLink): number =>
  solved.trees.filter((t) => carries(solved, t, link)).length;

/** Trees in which a port other than the ends of the failed link changes role. */
const movedElsewhere = (before: SolvedDesign, after: SolvedDesign, { a, b }: PortLink): number =>
  movedBetween(before, after).filter((t) => t.ports.some((p) => p.id !== a.port && p.id !== b.port)).length;

function describe(ground: Ground, id: Option['id'], name: string, edits: readonly Edit[]): Option {
  const { design, pair, rates, classic, timers } = ground;
  const solved = solveDesign(apply(design, edits));
  const now = solved.topology.design;
  const carried: [number, number] = [carriedBy(solved, pair[0]), carriedBy(solved, pair[1])];
  const lost = solveDesign(apply(now, [{ type: 'set', kind: 'link', id: pair[0].id, field: 'down', value: true }]));
  const ends = [bundleAt(now, pair[0].a.port), bundleAt(now, pair[0].b.port)];
  const bundled = id === 'bundled';
  const wait = classic ? 2 * timers.forwardDelay : 0;
  const outage = bundled || carried[0] === 0 ? 0 : wait;
  return {
    id,
    name,
    edits,
    carried,
    capacity: carried.reduce((sum, n, i) => sum + (n > 0 ? rates[i]! : 0), 0),
    tree: bundled && verdictOf(now, ends[0]!.id)?.outcome === 'forms' ? rates[0] + rates[1] : Math.max(...rates),
    conversation: Math.max(...rates),
    left: carriedBy(lost, pair[1]) > 0 ? rates[1] : 0,
    moved: movedElsewhere(solved, lost, pair[0]),
    outage,
    // A link that comes back replaces the one in use: with classic spanning tree that takes two forward delays.
    back: outage,
    silent: bundled ? bundleSilence(ends) : classic ? timers.maxAge + wait : 3 * timers.helloTime,
  };
}

/** The option of a bundle: the one that is there, or a new one; a note when it cannot be made. */
function bundledOption(ground: Ground, free: readonly Edit[], newId: NewIdentifier): Option | string {
  const { design, pair } = ground;
  const bundles = new Set(pair.flatMap((l) => [l.a.port, l.b.port].map((p) => bundleAt(design, p))));
  const [one] = bundles;
  if (bundles.size === 2 && one && !bundles.has(undefined) && verdictOf(design, one.id)?.outcome === 'forms')
    return describe(ground, 'bundled', 'bundled', []);
  const made = bundleLinks(
    apply(design, free),
    pair.map((l) => l.id),
    newId,
  );
  return made.ok
    ? describe(ground, 'bundled', 'bundled', [...free, ...made.edits])
    : say['no-bundling']({ reason: made.sentence });
}

type NewIdentifier = (prefix: string) => string;

/**
 * Compares the options for two links that join the same two switches. Times follow from the protocol: classic
 * spanning tree waits two forward delays, the rapid kinds agree at once; a silent partner is detected after the
 * maximum age (802.1D-1998), three hellos (802.1D-2004 17.21.23), or three LACP periods (802.1AX 6.4.4).
 */
export function compareOptions(design: Design, linkIds: readonly string[], newId: NewIdentifier): Comparison {
  const pair = parallelPair(design, linkIds);
  if (typeof pair === 'string') return { ok: false, sentence: pair };
  const free = unbundled(design, pair);
  const plain = solveDesign(apply(design, free));
  const ends = [pair[0].a.port, pair[0].b.port].map((p) => switchById(design, portById(design, p)!.switch)!);
  const ground: Ground = {
    design,
    pair,
    rates: [linkSpeed(design, pair[0]), linkSpeed(design, pair[1])],
    classic: ends.some((s) => isClassicMode(modeOf(design, s))),
    timers: timersInForce(plain),
  };
  const options = [describe(ground, 'blocked', 'one blocked by spanning tree', free)];
  const notes: string[] = [];
  const split = splitEdits(plain, pair);
  const idle = pair.every((l) => carriedBy(plain, l) === 0);
  if (idle) notes.push(say['carry-nothing']());
  if (split) options.push(describe(ground, 'split', 'VLANs split between them', [...free, ...split]));
  else if (!idle) notes.push(say['one-tree-decides']());
  const bundled = bundledOption(ground, free, newId);
  if (typeof bundled === 'string') notes.push(bundled);
  else options.push(bundled);
  return { ok: true, options, notes };
}
