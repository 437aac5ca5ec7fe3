/** What becomes of a bundle, and of the trees, when members are lost or one end is set otherwise. */
import { linkAt } from '../design';
import type { Bundle, Design } from '../design';
import { verdictOf } from '../network';
import type { BundleVerdict } from '../network';
import { movedBetween, solveDesign } from '../trees';
import type { MovedTree, SolvedDesign } from '../trees';
import { costOf, withLinkDown } from './member-change';

export interface BundleWhatIf {
  readonly id: 'one-lost' | 'two-lost' | 'far-plain' | 'near-static';
  /** The design as it would be. */
  readonly design: Design;
  readonly solved: SolvedDesign;
  readonly verdict: BundleVerdict;
  /** Members that carry, before and after. */
  readonly active: readonly [number, number];
  /** Mb/s of the bundle as one port, before and after; null while it is none. */
  readonly rate: readonly [number | null, number | null];
  /** Port path cost in force, before and after; null while the bundle is no port. */
  readonly cost: readonly [number | null, number | null];
  /** Trees in which a port other than the members changes its role. */
  readonly moved: readonly MovedTree[];
}

const activeOf = (verdict: BundleVerdict): number => verdict.members.filter((m) => m.state === 'active').length;

function rateOf({ topology }: SolvedDesign, bundle: string): number | null {
  const port = topology.portIndex.get(bundle);
  return port !== undefined && topology.ports[port]!.kind === 'bundle' ? topology.ports[port]!.rate : null;
}

/** The verdict of an end, with the members of both switches where it is a pair. */
function endVerdict(design: Design, end: readonly Bundle[]): BundleVerdict {
  const own = end.map((b) => verdictOf(design, b.id)!);
  // One switch of a pair may have lost its members while the other one carries on.
  const best = own.find((v) => v.outcome === 'forms') ?? own[0]!;
  return { ...best, members: own.flatMap((v) => v.members) };
}

/** The designs to look at. */
function variants(design: Design, near: readonly Bundle[], far: readonly Bundle[]): [BundleWhatIf['id'], Design][] {
  const links = endVerdict(design, near).members.flatMap((m) =>
    m.state === 'active' ? (linkAt(design, m.port)?.id ?? []) : [],
  );
  const without = (count: number) => links.slice(0, count).reduce(withLinkDown, design);
  const own = new Set(near.map((b) => b.id));
  // A bundle may be cabled to itself: it cannot go at one end and stay at the other.
  const gone = new Set(far.flatMap((b) => (own.has(b.id) ? [] : [b.id])));
  const all: [BundleWhatIf['id'], Design, boolean][] = [
    ['one-lost', without(1), links.length > 0],
    ['two-lost', without(2), links.length > 1],
    ['far-plain', { ...design, bundles: design.bundles.filter((b) => !gone.has(b.id)) }, gone.size > 0],
    [
      'near-static',
      { ...design, bundles: design.bundles.map((b) => (own.has(b.id) ? { ...b, kind: 'static' as const } : b)) },
      near[0]!.kind !== 'static',
    ],
  ];
  return all.flatMap(([id, changed, counts]) => (counts ? [[id, changed]] : []));
}

/**
 * What if the first members are lost, the far end has no bundle, or this end is static. `near` and `far`: the bundles of each end,
 * one, or one of each switch of a pair; `far` is empty where a host is.
 */
export function bundleWhatIfs(solved: SolvedDesign, near: readonly Bundle[], far: readonly Bundle[]): BundleWhatIf[] {
  const { design } = solved.topology;
  const now = endVerdict(design, near);
  const first = near[0]!.id;
  const members = new Set([...near, ...far].flatMap((b) => [b.id, ...b.members]));
  return variants(design, near, far).map(([id, changed]): BundleWhatIf => {
    const after = solveDesign(changed);
    const verdict = endVerdict(changed, near);
    const moved = movedBetween(solved, after)
      .map((tree) => ({ ...tree, ports: tree.ports.filter((p) => !members.has(p.id)) }))
      .filter((tree) => tree.ports.length > 0 || tree.cutOff.length > 0);
    return {
      id,
      design: changed,
      solved: after,
      verdict,
      active: [activeOf(now), activeOf(verdict)],
      rate: [rateOf(solved, first), rateOf(after, first)],
      cost: [costOf(solved, first), costOf(after, first)],
      moved,
    };
  });
}
