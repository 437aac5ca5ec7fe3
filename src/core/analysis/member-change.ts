/** What a bundle with one member less or more would cost, and which ports would change their role. */
import { verdictOf } from '../network';
import { bundleById, bundlesOf, farEnd, linkAt, portById, portsOf } from '../design';
import type { Bundle, Design, Port } from '../design';
import { movedBetween, solveDesign } from '../trees';
import type { MovedTree, SolvedDesign } from '../trees';

export interface MemberChange {
  readonly kind: 'lost' | 'added';
  /** Port path cost by speed at this end before and after; null while the bundle is no port. */
  readonly before: number | null;
  readonly after: number | null;
  /** What is in force when the cost was set by hand, so that members do not move it. */
  readonly fixed: number | null;
  readonly trees: readonly MovedTree[];
  /** Whether the bundle still forms. */
  readonly forms: boolean;
}

/** Cost by speed of a bundle as it stands; null when it does not form. */
export function costOf({ topology }: SolvedDesign, bundle: string): number | null {
  const port = topology.portIndex.get(bundle);
  return port !== undefined && topology.ports[port]!.kind === 'bundle' ? topology.defaultCost[port]! : null;
}

export const withLinkDown = (design: Design, id: string): Design => ({
  ...design,
  links: design.links.map((l) => (l.id === id ? { ...l, down: true } : l)),
});

/** A port like another one, with a number and a name of its own. */
function likePort(design: Design, port: Port): Port {
  const taken = new Set([...portsOf(design, port.switch), ...bundlesOf(design, port.switch)].map((p) => p.number));
  let number = 1;
  while (taken.has(number)) number++;
  return { ...port, id: `${port.id}+`, number, name: `${port.name}+`, down: false };
}

/** The design with one more cable in a bundle, like its first member; null when there is nothing to be like. */
function withMember(design: Design, bundle: Bundle): Design | null {
  const member = bundle.members.find((m) => linkAt(design, m));
  const link = member === undefined ? undefined : linkAt(design, member);
  if (!link || member === undefined) return null;
  const far = farEnd(link, member);
  const near = likePort(design, portById(design, member)!);
  const end = 'port' in far ? likePort(design, portById(design, far.port)!) : null;
  const joins = (b: Bundle): string[] => {
    if (b.members.includes(member)) return [...b.members, near.id];
    return end && 'port' in far && b.members.includes(far.port) ? [...b.members, end.id] : b.members;
  };
  return {
    ...design,
    ports: [...design.ports, near, ...(end ? [end] : [])],
    links: [
      ...design.links,
      { id: `${link.id}+`, a: { port: near.id }, b: end ? { port: end.id } : { ...far, card: '+' } },
    ],
    bundles: design.bundles.map((b) => ({ ...b, members: joins(b) })),
  };
}

/** What the loss of one active member, and one member added, would change. */
export function memberChanges(solved: SolvedDesign, bundleId: string): MemberChange[] {
  const { design } = solved.topology;
  const bundle = bundleById(design, bundleId)!;
  const active = verdictOf(design, bundleId)!.members.filter((m) => m.state === 'active');
  const last = active.at(-1);
  const variants = [
    { kind: 'lost' as const, design: last ? withLinkDown(design, linkAt(design, last.port)!.id) : null },
    { kind: 'added' as const, design: withMember(design, bundle) },
  ];
  return variants.flatMap(({ kind, design: changed }): MemberChange[] => {
    if (!changed) return [];
    const after = solveDesign(changed);
    return [
      {
        kind,
        before: costOf(solved, bundleId),
        after: costOf(after, bundleId),
        fixed: bundle.cost ?? null,
        trees: movedBetween(solved, after).map((t) => ({
          ...t,
          // The lost or added port itself is no news.
          ports: t.ports.filter((p) => !bundle.members.includes(p.id) && !p.id.endsWith('+')),
        })),
        forms: verdictOf(changed, bundleId)!.outcome === 'forms',
      },
    ];
  });
}
