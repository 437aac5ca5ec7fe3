/** Goals that speak of what is left after any single failure, by a sweep of all of them. */
import { goalMessages as say } from '../messages';
import { hostById, isAvailability, switchById } from '../design';
import type { AvailabilityGoal, Design, PlaceRef } from '../design';
import type { CheckedGoal } from '../goals';
import { formatVlanRanges, more, someNames, vlanMembership, vlanTreeId } from '../standard';
import { solveDesign } from '../trees';
import type { SweepBase } from './after';
import { failingWords, withFailed } from './elements';
import { outageWords } from './outage';
import { hostVlans, partsOfPlace, reachOf } from './reach';
import type { VlanParts } from './reach';
import { partedAlready } from './separation';
import type { Failure } from './sweep';

export interface CheckedAvailability extends CheckedGoal {
  /** The worst failure that breaks it; null where none does. */
  readonly failure: Failure | null;
}

/** What breaks a goal. */
export interface Breaking {
  /** Null where the network breaks it as it is. */
  readonly failure: Failure | null;
  /** How much it breaks it by: switches, hosts and VLANs, seconds, or percent of a rate beyond what is allowed. */
  readonly size: number;
}

/** A goal with all that breaks it. */
export interface AvailabilityDetail extends CheckedAvailability {
  readonly goal: AvailabilityGoal;
  readonly breaking: readonly Breaking[];
}

/** `Switch gate` */
function lostWords(design: Design, { elements }: Failure): string {
  const words = failingWords(design, elements);
  return words.charAt(0).toUpperCase() + words.slice(1);
}
const others = (count: number): string =>
  count < 2 ? '' : `; so ${count === 2 ? 'does' : 'do'} ${more(count - 1, 'failure')}`;
const inVlans = (vlans: readonly number[]): string =>
  vlans.length === 0 ? '' : ` in VLAN ${formatVlanRanges(vlans).replaceAll(',', ', ')}`;

const isThere = (design: Design, place: PlaceRef): boolean =>
  ('host' in place ? hostById(design, place.host) : switchById(design, place.switch)) !== undefined;

interface Pair {
  readonly from: PlaceRef;
  readonly to: PlaceRef;
}
const idOf = (place: PlaceRef): string => ('host' in place ? place.host : place.switch);

/** VLANs of a goal that two places are both in: only there they can be connected at all. */
function sharedVlans({ solved, parts }: SweepBase, vlans: string, { from, to }: Pair): Set<number> {
  const { design } = solved.topology;
  const carried = vlanMembership(vlans);
  const both = parts.filter((p) => [from, to].every((place) => partsOfPlace(design, p, place).length > 0));
  return new Set(both.flatMap((p) => p.vlans.filter((v) => carried[v])));
}

/** Of some VLANs those in which two places are apart. */
function apart(design: Design, all: readonly VlanParts[], wanted: ReadonlySet<number>, { from, to }: Pair): number[] {
  return all.flatMap((parts) => {
    const vlans = parts.vlans.filter((v) => wanted.has(v));
    if (vlans.length === 0) return [];
    const [a, b] = [partsOfPlace(design, parts, from), partsOfPlace(design, parts, to)];
    return a.some((part) => b.includes(part)) ? [] : vlans;
  });
}

const pairWords = (design: Design, { from, to }: Pair): string =>
  [from, to].map((p) => (hostById(design, idOf(p)) ?? switchById(design, idOf(p)))!.name).join(' from ');

interface Breach {
  readonly failure: Failure;
  readonly size: number;
  readonly who: string;
  readonly vlans: readonly number[];
}
type Connected = Extract<AvailabilityGoal, { type: 'stays-connected' }>;

/** Failures that separate one of two places from the other; one that takes a place itself away is not meant. */
function pairBreaches(
  base: SweepBase,
  failures: readonly Failure[],
  wanted: ReadonlySet<number>,
  pair: Pair,
): Breach[] {
  const { design } = base.solved.topology;
  const ids = [idOf(pair.from), idOf(pair.to)];
  // What a failure separates is said of the largest part: two that are elsewhere are looked at with every failure.
  const inLargest = base.parts.every(
    (parts) =>
      !parts.vlans.some((v) => wanted.has(v)) ||
      [pair.from, pair.to].every((p) => partsOfPlace(design, parts, p).includes(parts.largest)),
  );
  return failures.flatMap((failure): Breach[] => {
    const { separates, elements } = failure;
    if (elements.some((e) => ids.some((id) => e.switches.includes(id)))) return [];
    const named = ids.some((id) => separates.switches.includes(id) || separates.hosts.includes(id));
    if (inLargest && !named) return [];
    // Both can be separated from the rest and still be together: looked at in the network with the failure.
    const after = reachOf(solveDesign(withFailed(design, elements), base.solved));
    const vlans = apart(design, after, wanted, pair);
    return vlans.length > 0 ? [{ failure, size: vlans.length, who: pairWords(design, pair), vlans }] : [];
  });
}

/** Failures that separate switches, or hosts, of the VLANs of a goal. */
function breachesAmong(
  design: Design,
  failures: readonly Failure[],
  goal: Connected,
  who: 'switches' | 'hosts',
): Breach[] {
  const carried = vlanMembership(goal.vlans);
  const of = hostVlans(design);
  const wanted = new Set(design.hosts.flatMap((h, i) => (carried[of[i] ?? 0] ? [h.id] : [])));
  return failures.flatMap((failure): Breach[] => {
    const { separates } = failure;
    if (who === 'switches') {
      const vlans = separates.vlans.filter((v) => carried[v]);
      const names = separates.switches.map((id) => switchById(design, id)!.name);
      return vlans.length > 0 ? [{ failure, size: vlans.length + names.length, who: someNames(names), vlans }] : [];
    }
    const hosts = separates.hosts.filter((id) => wanted.has(id));
    const names = hosts.map((id) => hostById(design, id)!.name);
    return hosts.length > 0 ? [{ failure, size: hosts.length, who: someNames(names), vlans: [] }] : [];
  });
}

const met = (goal: AvailabilityGoal): AvailabilityDetail => ({
  goal,
  state: 'met',
  reason: '',
  trees: [],
  failure: null,
  breaking: [],
});
const broken = (
  goal: AvailabilityGoal,
  breaking: readonly Breaking[],
  reason: string,
  vlans: readonly number[] = [],
): AvailabilityDetail => ({
  goal,
  state: 'broken',
  reason,
  trees: vlans.map(vlanTreeId),
  failure: breaking[0]!.failure,
  breaking,
});
const voided = (goal: AvailabilityGoal, reason: string): AvailabilityDetail => ({
  ...met(goal),
  state: 'void',
  reason,
});

/** The first of the failures that break a goal, worst first, and how many more there are. */
function byFirst(design: Design, goal: Connected, breaches: readonly Breach[]): AvailabilityDetail {
  const [first] = breaches;
  if (!first) return met(goal);
  const { failure, who, vlans } = first;
  const words = { lost: lostWords(design, failure), who, vlans: inVlans(vlans), more: others(breaches.length) };
  return broken(goal, breaches, say['lost-separates'](words), vlans);
}

function checkPair(base: SweepBase, failures: readonly Failure[], goal: Connected, pair: Pair): AvailabilityDetail {
  const { design } = base.solved.topology;
  if (![pair.from, pair.to].every((p) => isThere(design, p))) return voided(goal, say['void-gone']({ what: 'an end' }));
  const wanted = sharedVlans(base, goal.vlans, pair);
  if (wanted.size === 0) return voided(goal, say['void-not-cabled']());
  const already = apart(design, base.parts, wanted, pair);
  if (already.length === 0) return byFirst(design, goal, pairBreaches(base, failures, wanted, pair));
  const words = { who: pairWords(design, pair), vlans: inVlans(already) };
  return broken(goal, asItIs(already.length), say['apart-already'](words), already);
}

/** As the network is: worse than any failure. */
const asItIs = (size: number): readonly Breaking[] => [{ failure: null, size: size * ALREADY }];
const ALREADY = 100;

function checkConnected(base: SweepBase, failures: readonly Failure[], goal: Connected): AvailabilityDetail {
  const { design } = base.solved.topology;
  const { among } = goal;
  if (typeof among !== 'string') return checkPair(base, failures, goal, among);
  const carried = vlanMembership(goal.vlans);
  const [already] = partedAlready(base.parts).filter(({ vlans }) => vlans.some((v) => carried[v]));
  if (among === 'hosts' || !already) return byFirst(design, goal, breachesAmong(design, failures, goal, among));
  const who = someNames(already.switches.map((s) => design.switches[s]!.name));
  const vlans = already.vlans.filter((v) => carried[v]);
  return broken(
    goal,
    asItIs(vlans.length + already.switches.length),
    say['apart-already']({ who, vlans: inVlans(vlans) }),
    vlans,
  );
}

/** Seconds that an outage without end counts as. */
const FOR_GOOD = 3600 + 100;

function checkOutage(
  design: Design,
  failures: readonly Failure[],
  goal: Extract<AvailabilityGoal, { type: 'outage' }>,
) {
  const lasting = ({ outage }: Failure) => outage.measured ?? outage.seconds ?? Infinity;
  const over = failures.filter((f) => lasting(f) > goal.atMost).sort((a, b) => lasting(b) - lasting(a));
  const [worst] = over;
  if (!worst) return met(goal);
  const words = { lost: lostWords(design, worst), outage: outageWords(worst.outage), more: others(over.length) };
  const breaking = over.map((failure) => ({ failure, size: Math.min(lasting(failure), FOR_GOOD) - goal.atMost }));
  return broken(goal, breaking, say['lost-interrupts'](words));
}

function checkLoadLeft(
  design: Design,
  failures: readonly Failure[],
  goal: Extract<AvailabilityGoal, { type: 'load-left' }>,
) {
  if (design.demands.length === 0) return voided(goal, say['void-no-traffic']());
  const over = failures.filter((f) => (f.fullest ?? 0) > goal.percent).sort((a, b) => b.fullest! - a.fullest!);
  const [worst] = over;
  if (!worst) return met(goal);
  const words = { lost: lostWords(design, worst), percent: Math.round(worst.fullest!), more: others(over.length) };
  const breaking = over.map((failure) => ({ failure, size: failure.fullest! - goal.percent }));
  return broken(goal, breaking, say['lost-fills'](words));
}

/** The availability goals of a design, each with all of its single failures that break it. `failures`: worst first. */
export function availabilityIn(base: SweepBase, failures: readonly Failure[]): AvailabilityDetail[] {
  const { design } = base.solved.topology;
  const singles = failures.filter((f) => f.elements.length === 1);
  return design.goals.filter(isAvailability).map((goal) => {
    switch (goal.type) {
      case 'stays-connected':
        return checkConnected(base, singles, goal);
      case 'outage':
        return checkOutage(design, singles, goal);
      case 'load-left':
        return checkLoadLeft(design, singles, goal);
    }
  });
}

/** The availability goals of a design, by all its single failures, worst first. */
export const checkAvailability = (base: SweepBase, failures: readonly Failure[]): CheckedAvailability[] =>
  availabilityIn(base, failures).map(({ breaking: _, ...checked }) => checked);

/** The same before any failure has been looked at; `previewed`: of a change that is tried out, whose failures nothing looks at. */
export const availabilityUnknown = (design: Design, previewed: boolean): CheckedAvailability[] =>
  design.goals.filter(isAvailability).map((g) => ({
    ...voided(g, say[previewed ? 'known-when-applied' : 'not-yet-known']()),
    pending: true,
  }));
