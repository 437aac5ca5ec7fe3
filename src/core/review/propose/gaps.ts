/** Where a failure separates what a goal asks to stay connected: which switches from which, in which VLANs, and which hosts. */
import type { AvailabilityGoal, Design, PlaceRef } from '../../design';
import { vlanMembership } from '../../standard';
import { solveDesign } from '../../trees';
import type { SolvedDesign } from '../../trees';
import { withFailed } from '../elements';
import { partsOfPlace, reachOf } from '../reach';
import type { VlanParts } from '../reach';
import type { Failure } from '../sweep';

/** By indexes of the design. */
export interface Gap {
  readonly vlans: readonly number[];
  readonly from: readonly number[];
  readonly to: readonly number[];
}

export interface Gaps {
  /** The network with the failure. */
  readonly failed: SolvedDesign;
  readonly gaps: readonly Gap[];
  /** Hosts that no cable of theirs joins to the rest any more, by index, with the switches that they should reach. */
  readonly hosts: readonly { readonly host: number; readonly vlan: number; readonly to: readonly number[] }[];
}

const membersOf = ({ partOf }: VlanParts, part: number): number[] =>
  [...partOf.keys()].filter((s) => partOf[s] === part);

const hostIn = (design: Design, parts: VlanParts, place: PlaceRef): number => {
  const host = 'host' in place ? design.hosts.findIndex((h) => h.id === place.host) : -1;
  return parts.hosts.has(host) ? host : -1;
};

type Found = Pick<Gaps, 'hosts'> & { readonly gaps: readonly Gap[] };

/** Between two places of one VLAN. */
function betweenPlaces(
  design: Design,
  parts: VlanParts,
  from: PlaceRef,
  to: PlaceRef,
  vlans: readonly number[],
): Found {
  const [a, b] = [from, to].map((p) => partsOfPlace(design, parts, p)) as [readonly number[], readonly number[]];
  if (a.some((part) => b.includes(part))) return { gaps: [], hosts: [] };
  const lone = (own: readonly number[], place: PlaceRef, others: readonly number[]) => {
    const host = hostIn(design, parts, place);
    return own.length === 0 && host >= 0 && others.length > 0
      ? [{ host, vlan: vlans[0]!, to: others.flatMap((p) => membersOf(parts, p)) }]
      : [];
  };
  const gap =
    a.length > 0 && b.length > 0
      ? [{ vlans, from: membersOf(parts, a[0]!), to: b.flatMap((p) => membersOf(parts, p)) }]
      : [];
  return { gaps: gap, hosts: [...lone(a, from, b), ...lone(b, to, a)] };
}

/** From the largest part of one VLAN. `who`: switches, hosts, or both. */
function fromLargest(parts: VlanParts, who: 'switches' | 'hosts' | 'all', vlans: readonly number[]): Found {
  const { partOf, hosts, largest } = parts;
  if (largest < 0) return { gaps: [], hosts: [] };
  const to = membersOf(parts, largest);
  const apart = new Set(
    who === 'hosts'
      ? [...hosts.values()].flatMap((own) => (own.includes(largest) ? [] : own))
      : [...partOf].filter((part) => part >= 0 && part !== largest),
  );
  const lone = who === 'switches' ? [] : [...hosts].filter(([, own]) => own.length === 0);
  return {
    gaps: [...apart].map((part) => ({ vlans, from: membersOf(parts, part), to })),
    hosts: lone.map(([host]) => ({ host, vlan: vlans[0]!, to })),
  };
}

function gapsIn(design: Design, parts: VlanParts, goal: AvailabilityGoal): Found {
  const carried = vlanMembership(goal.vlans);
  const vlans = parts.vlans.filter((v) => carried[v]);
  if (vlans.length === 0) return { gaps: [], hosts: [] };
  if (goal.type !== 'stays-connected') return fromLargest(parts, 'all', vlans);
  const { among } = goal;
  return typeof among === 'string'
    ? fromLargest(parts, among, vlans)
    : betweenPlaces(design, parts, among.from, among.to, vlans);
}

/** What a failure separates that a goal speaks of; `failure` null: as the network is. Gaps between the same switches are one. */
export function gapsOf(solved: SolvedDesign, goal: AvailabilityGoal, failure: Failure | null): Gaps {
  const { design } = solved.topology;
  const failed = failure ? solveDesign(withFailed(design, failure.elements), solved) : solved;
  const found = reachOf(failed).map((parts) => gapsIn(design, parts, goal));
  const gaps = new Map<string, Gap>();
  for (const gap of found.flatMap((f) => f.gaps)) {
    const key = `${gap.from.join()} ${gap.to.join()}`;
    const known = gaps.get(key);
    gaps.set(key, known ? { ...known, vlans: [...known.vlans, ...gap.vlans] } : gap);
  }
  return { failed, gaps: [...gaps.values()], hosts: found.flatMap((f) => f.hosts) };
}
