/** Two parallel links used in three ways: one cut by spanning tree, the VLANs split between them, or bundled. */
import { bundleLinks, splitBundles } from '../design';
import { verdictOf } from '../network';
import { applyEdits, bundleAt, linkById, linkSpeed, modeOf, portById, switchById } from '../design';
import type { Bundle, Design, Edit, Link } from '../design';
import { timersInForce } from './tree-timers';
import { forwardsRole, solveDesign } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { movedBetween } from '../trees';

export interface Way {
  readonly id: 'cut' | 'split' | 'bundled';
  readonly name: string;
  /** What leads there from the design as it is; empty when it stands so already. */
  readonly edits: readonly Edit[];
  /** Trees that each of the two links carries. */
  readonly carried: readonly [number, number];
  /** Mb/s that all trees together can use, one tree at most, one conversation at most. */
  readonly capacity: number;
  readonly tree: number;
  readonly conversation: number;
  /** Mb/s that are left when the first link fails, and trees whose ports change role then. */
  readonly left: number;
  readonly moved: number;
  /** Seconds without traffic (Infinity: for good) when the first link goes down, comes back, or goes silent while its light stays on. */
  readonly outage: number;
  readonly back: number;
  readonly silent: number;
}

export type ThreeWays =
  | { readonly ok: true; readonly ways: readonly Way[]; readonly notes: readonly string[] }
  | { readonly ok: false; readonly sentence: string };

/** Seconds (802.1AX-2014 clause 6.4.4). */
const LACP_SILENCE = { short: 3, long: 90 } as const;

const apply = (design: Design, edits: readonly Edit[]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(`threeWays: ${applied.faults[0]?.sentence}`);
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

/** Seconds after which a silent partner is given up: three LACP periods; never by a static bundle, which asks nobody. */
const bundleSilence = (ends: readonly (Bundle | undefined)[]): number =>
  ends.some((b) => b?.kind === 'static')
    ? Infinity
    : Math.max(...ends.map((b) => (b?.timeout === 'short' ? LACP_SILENCE.short : LACP_SILENCE.long)));

/** Edits that take the two links out of whatever bundle they are in. */
function unbundled(design: Design, links: readonly [PortLink, PortLink]): Edit[] {
  const ids = new Set(links.flatMap((l) => [l.a.port, l.b.port].flatMap((p) => bundleAt(design, p)?.id ?? [])));
  return splitBundles([...ids]);
}

/**
 * Compares the three ways for two links that join the same two switches. Times follow from the protocol: classic
 * spanning tree waits two forward delays, the rapid kinds wait for no timer; a silent partner is given up after the
 * maximum age (802.1D-1998), three hellos (802.1D-2004 17.21.23), or three LACP periods (802.1AX 6.4.4).
 */
export function threeWays(design: Design, linkIds: readonly string[], newId: (prefix: string) => string): ThreeWays {
  const links = linkIds.flatMap((id) => linkById(design, id) ?? []);
  const [x, y] = links;
  if (links.length !== 2 || !x || !y || ![x, y].every((l) => 'port' in l.a && 'port' in l.b))
    return { ok: false, sentence: 'Select two links between the same two switches to compare the three ways.' };
  const pair = [x, y] as unknown as [PortLink, PortLink];
  const sides = pair.map((l) =>
    [l.a.port, l.b.port]
      .map((p) => portById(design, p)!.switch)
      .sort()
      .join('\n'),
  );
  if (sides[0] !== sides[1])
    return { ok: false, sentence: 'The two links join different switches: the three ways are for parallel links.' };
  const bundles = new Set(pair.flatMap((l) => [l.a.port, l.b.port].map((p) => bundleAt(design, p))));
  if ([...bundles].some((b) => b && b.members.length > 2))
    return { ok: false, sentence: 'The links are in a bundle with others: the three ways compare two links alone.' };
  const free = unbundled(design, pair);
  const plain = apply(design, free);
  const plainSolved = solveDesign(plain);
  const ends = [pair[0].a.port, pair[0].b.port].map((p) => switchById(design, portById(design, p)!.switch)!);
  const classic = ends.some((s) => ['stp', 'per-vlan-stp'].includes(modeOf(design, s)));
  const { helloTime, maxAge, forwardDelay } = timersInForce(plainSolved);
  const wait = classic ? 2 * forwardDelay : 0;
  const rates = pair.map((l) => linkSpeed(design, l)) as [number, number];
  const notes: string[] = [];

  const describe = (id: Way['id'], name: string, edits: readonly Edit[]): Way => {
    const solved = solveDesign(apply(design, edits));
    const now = solved.topology.design;
    const of = (l: PortLink) => solved.trees.filter((t) => carries(solved, t, l)).length;
    const carried: [number, number] = [of(pair[0]), of(pair[1])];
    const bundled = id === 'bundled';
    const capacity = carried.reduce((sum, n, i) => sum + (n > 0 ? rates[i]! : 0), 0);
    const lost = solveDesign(apply(now, [{ type: 'set', kind: 'link', id: pair[0].id, field: 'down', value: true }]));
    const moved = movedBetween(solved, lost).filter((t) =>
      t.ports.some((p) => p.id !== pair[0].a.port && p.id !== pair[0].b.port),
    ).length;
    const bundle = bundleAt(now, pair[0].a.port);
    const far = bundleAt(now, pair[0].b.port);
    return {
      id,
      name,
      edits,
      carried,
      capacity,
      tree: bundled && verdictOf(now, bundle!.id)?.outcome === 'forms' ? rates[0] + rates[1] : Math.max(...rates),
      conversation: Math.max(...rates),
      left: lost.trees.some((t) => carries(lost, t, pair[1])) ? rates[1] : 0,
      moved,
      outage: bundled ? 0 : carried[0] === 0 ? 0 : wait,
      // The way that comes back is put in place of the one in use: with classic spanning tree that costs two delays.
      back: bundled ? 0 : carried[0] === 0 ? 0 : wait,
      silent: bundled ? bundleSilence([bundle, far]) : classic ? maxAge + wait : 3 * helloTime,
    };
  };

  const ways = [describe('cut', 'cut by spanning tree', free)];
  const split = splitEdits(plainSolved, pair);
  const idle = !plainSolved.trees.some((t) => pair.some((l) => carries(plainSolved, t, l)));
  if (idle) notes.push('Neither link carries a tree: from both switches other ways to the roots are better.');
  if (split) ways.push(describe('split', 'split by VLAN', [...free, ...split]));
  else if (!idle)
    notes.push('Splitting by VLAN needs two trees or more over these links: here one tree decides for all VLANs.');
  const joined = [...bundles].filter((b) => b !== undefined);
  const stands =
    joined.length === 2 && !bundles.has(undefined) && verdictOf(design, joined[0]!.id)?.outcome === 'forms';
  if (stands) ways.push(describe('bundled', 'bundled', []));
  else {
    const made = bundleLinks(plain, linkIds, newId);
    if (made.ok) ways.push(describe('bundled', 'bundled', [...free, ...made.edits]));
    else notes.push(`Bundling: ${made.sentence}`);
  }
  return { ok: true, ways, notes };
}
