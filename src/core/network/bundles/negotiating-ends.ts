/** All ends of a design that negotiate, and what they come to with one another. */
import { farEnd, linkAt, linksOfHost } from '../../design';
import type { Bundle, Design } from '../../design';
import { bundleLacpEnd, hostLacpEnd } from '../lacp-ends';
import type { LacpEndSettings } from '../lacp-ends';
import { decidesAlone, negotiateAll, somebodyStarts } from './negotiation';
import type { CabledEnd, FarMember, MemberState, Negotiated, PlannedEnd } from './negotiation';
import { partnerId } from './partner';
import type { Partner } from './partner';

/** What a bundle that negotiates came to. */
export interface EndOutcome {
  /** By member. */
  readonly states: readonly MemberState[];
  /** Whom it takes for its partner; null where none of its members can join with anybody. */
  readonly partner: Partner | null;
  /** Whom that one takes instead; null where it takes this end, or none. */
  readonly elsewhere: Partner | null;
  /** Whether this end decides which members wait. */
  readonly decides: boolean;
  /** Members that both ends would have, and the higher minimum of the two. */
  readonly ready: number;
  readonly needed: number;
  /** Whether one of the two starts, of this end and a bundle or host by its id. */
  readonly starts: (id: string) => boolean;
}

const plannedFrom = ({ ports, ...settings }: LacpEndSettings): PlannedEnd => ({ ...settings, members: ports });

/** An end with the given members, as the negotiation sees it. */
export const planned = (design: Design, bundle: Bundle, members: readonly string[]): PlannedEnd =>
  plannedFrom(bundleLacpEnd(design, bundle, members));

/** An end by what it belongs to, with the switch port of each member: its own, or the one that a card is plugged into. */
interface Source {
  readonly of: Partner;
  readonly kind: Bundle['kind'];
  readonly ports: readonly string[];
  readonly end: PlannedEnd;
}

function sourcesOf(design: Design): Source[] {
  const bundles = design.bundles
    .filter((b) => b.kind !== 'static')
    .map((bundle): Source => {
      const { kind, members: ports } = bundle;
      return { of: { kind: 'bundle', bundle }, kind, ports, end: planned(design, bundle, ports) };
    });
  const hosts = design.hosts
    .filter((h) => h.bond === 'lacp-active' || h.bond === 'lacp-passive')
    .map((host): Source => {
      const ports = portsOfHost(design, host.id);
      return { of: { kind: 'host', host }, kind: 'lacp', ports, end: plannedFrom(hostLacpEnd(design, host, ports)) };
    });
  return [...bundles, ...hosts];
}

/** Switch ports that a host's cards are plugged into, in the order of its cards. */
export const portsOfHost = (design: Design, host: string): string[] =>
  linksOfHost(design, host).flatMap((l) => [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : [])));

/** Where each member leads: a member of an end of the same kind, or nowhere that anything is heard from. */
function cabled(design: Design, sources: readonly Source[]): CabledEnd[] {
  const place = new Map<string, NonNullable<FarMember>>();
  sources.forEach(({ of, ports }, end) =>
    ports.forEach((port, member) => place.set(of.kind === 'host' ? `${of.host.id} ${port}` : port, { end, member })),
  );
  const far = ({ of, kind }: Source, port: string): FarMember => {
    const link = linkAt(design, port);
    if (!link) return null;
    const there = farEnd(link, port);
    const at = of.kind === 'host' ? port : 'port' in there ? there.port : `${there.host} ${port}`;
    const found = place.get(at);
    return found && sources[found.end]!.kind === kind ? found : null;
  };
  return sources.map((s) => ({ ...s.end, far: s.ports.map((port) => far(s, port)) }));
}

function outcomeOf(
  index: number,
  sources: readonly Source[],
  ends: readonly CabledEnd[],
  results: readonly Negotiated[],
): EndOutcome {
  const near = ends[index]!;
  const { states, group, minimum } = results[index]!;
  const met = group.length > 0 ? near.far[group[0]!]! : null;
  const partner = met && sources[met.end]!.of;
  const far = met && ends[met.end]!;
  const theirs = met ? results[met.end]!.group : [];
  const back = met && theirs.length > 0 ? far!.far[theirs[0]!] : null;
  return {
    states,
    partner,
    elsewhere: back && back.end !== index ? sources[back.end]!.of : null,
    decides: far !== null && decidesAlone(near, far),
    ready: back?.end === index ? Math.min(group.length, near.maxActive, far!.maxActive) : 0,
    needed: Math.max(minimum, back?.end === index ? results[met!.end]!.minimum : (far?.minActive ?? 1)),
    starts: (id) => sources.some((s, i) => partnerId(s.of) === id && somebodyStarts(near, ends[i]!)),
  };
}

const known = new WeakMap<Design, ReadonlyMap<string, EndOutcome>>();

/** What every bundle that negotiates comes to, by its id; remembered as long as the design lives. */
export function negotiation(design: Design): ReadonlyMap<string, EndOutcome> {
  let outcomes = known.get(design);
  if (!outcomes) {
    const sources = sourcesOf(design);
    const ends = cabled(design, sources);
    const results = negotiateAll(ends);
    outcomes = new Map(sources.map((s, i) => [partnerId(s.of), outcomeOf(i, sources, ends, results)]));
    known.set(design, outcomes);
  }
  return outcomes;
}
