/**
 * What ends that negotiate come to, in closed form: which partner each of them takes, which members are active, which are
 * standby, which run as individual (802.1AX-2014 clauses 6.4.14 and 6.7.1). The machines of `core/protocols` come to the
 * same over time. Which of several partners an end takes is left open by the standard; here it is the one to which most
 * members lead that can join, however that one decides.
 */
import { minimumAt } from '../lacp-ends';
import type { LacpEndPort, LacpEndSettings } from '../lacp-ends';
import { groupBy } from '../../design';
import { operationalKey } from '../../standard';

export type MemberState =
  /** Active: it carries frames of the bundle. */
  | 'active'
  /** Would join, and waits: more are ready than may be active at this end or at the other, or fewer than must be. */
  | 'standby'
  /** Passes frames by itself, outside the bundle. */
  | 'individual'
  /** Suspended: it cannot join, and may not run as individual. */
  | 'suspended'
  | 'down';

export interface PlannedEnd extends Omit<LacpEndSettings, 'ports' | 'timeout'> {
  readonly members: readonly LacpEndPort[];
}

/** Where a member's cable leads, by index; null where no end of this protocol is. */
export type FarMember = { readonly end: number; readonly member: number } | null;

/** An end among others that it may be cabled to. */
export interface CabledEnd extends PlannedEnd {
  /** By member. */
  readonly far: readonly FarMember[];
}

export interface Negotiated {
  readonly states: readonly MemberState[];
  /** Members of the group that the end takes, the first to become active first; none where it takes no partner. */
  readonly group: readonly number[];
  /** Fewest of them that are enough for this end. */
  readonly minimum: number;
}

/** Whether at least one of two ends starts the negotiation: two that answer only never come up. */
export const somebodyStarts = (a: Pick<PlannedEnd, 'activity'>, b: Pick<PlannedEnd, 'activity'>): boolean =>
  a.activity === 'active' || b.activity === 'active';

/** Whether the first of two ends decides which members wait: lower priority, then lower address. */
export const decidesAlone = (a: System, b: System): boolean => bySystem(a, b) <= 0;

type System = Pick<PlannedEnd, 'system' | 'systemPriority'>;
const bySystem = (a: System, b: System): number => a.systemPriority - b.systemPriority || a.system - b.system;

/** A member with what it hears at the far end, where it hears anything. */
interface Met {
  readonly member: number;
  readonly own: LacpEndPort;
  readonly port: LacpEndPort;
  readonly end: PlannedEnd;
  readonly key: number;
  readonly farKey: number;
}

const keyOf = ({ key, members }: PlannedEnd, speed: number): number => operationalKey(key, members, speed);

/** Members at which LACPDUs arrive. */
function met(ends: readonly CabledEnd[], near: CabledEnd): Met[] {
  return near.members.flatMap((own, member): Met[] => {
    const far = near.far[member];
    const end = far && ends[far.end];
    const port = far && end!.members[far.member]!;
    if (!end || !port || !own.up || !port.up || !somebodyStarts(near, end)) return [];
    return [{ member, own, port, end, key: keyOf(near, own.speed), farKey: keyOf(end, port.speed) }];
  });
}

const joins = ({ own, port }: Met): boolean => !own.half && !port.half;

/** The group that an end takes, in the order in which its members become active: most members first, then lower keys and systems. */
function chosenGroup(near: PlannedEnd, ready: readonly Met[]): Met[] {
  const groups = [...groupBy(ready, (m) => [m.key, m.end.systemPriority, m.end.system, m.farKey].join(' ')).values()];
  const [group] = groups.sort(
    (a, b) =>
      b.length - a.length || a[0]!.key - b[0]!.key || bySystem(a[0]!.end, b[0]!.end) || a[0]!.farKey - b[0]!.farKey,
  );
  if (!group) return [];
  const side = decidesAlone(near, group[0]!.end) ? 'own' : 'port';
  return [...group].sort((a, b) => a[side].priority - b[side].priority || a[side].number - b[side].number);
}

/** What becomes of every member of every end, in the order given. */
export function negotiateAll(ends: readonly CabledEnd[]): readonly Negotiated[] {
  const heard = ends.map((end) => met(ends, end));
  const groups = ends.map((end, e) => chosenGroup(end, heard[e]!.filter(joins)).map((m) => m.member));
  const minima = ends.map((end, e) => minimumAt(end, end.members[groups[e]![0] ?? -1]?.speed));
  const selected = ends.map(({ maxActive }, e) =>
    groups[e]!.length < minima[e]! ? [] : groups[e]!.slice(0, maxActive),
  );
  const isActive = (e: number, member: number): boolean => {
    const far = ends[e]!.far[member];
    return (
      far !== null && far !== undefined && selected[e]!.includes(member) && selected[far.end]!.includes(far.member)
    );
  };
  const countActive = (e: number) => selected[e]!.filter((member) => isActive(e, member)).length;
  // An end that is given fewer than its minimum by the other withdraws, so that neither forwards alone.
  for (let moved = true; moved;) {
    moved = false;
    for (const e of ends.keys()) {
      if (selected[e]!.length === 0 || countActive(e) >= minima[e]! || countActive(e) === 0) continue;
      selected[e] = [];
      moved = true;
    }
  }
  return ends.map((end, e) => {
    const hears = new Map(heard[e]!.map((m) => [m.member, m]));
    const state = (own: LacpEndPort, member: number): MemberState => {
      const m = hears.get(member);
      const far = end.far[member];
      if (!own.up || (far && !ends[far.end]!.members[far.member]!.up)) return 'down';
      if (!m) return end.individual ? 'individual' : 'suspended';
      // What does not aggregate goes alone where both ends let it.
      if (!joins(m)) return end.individual && m.end.individual ? 'individual' : 'suspended';
      if (!groups[e]!.includes(member)) return 'suspended';
      return isActive(e, member) ? 'active' : 'standby';
    };
    return { states: end.members.map(state), group: groups[e]!, minimum: minima[e]! };
  });
}

/** State of every member of two ends; the nth member of one is cabled to the nth of the other. */
export function negotiate(a: PlannedEnd, b: PlannedEnd): readonly [readonly MemberState[], readonly MemberState[]] {
  const cabled = (end: PlannedEnd, other: number): CabledEnd => ({
    ...end,
    far: end.members.map((_, member) => ({ end: other, member })),
  });
  const [near, far] = negotiateAll([cabled(a, 1), cabled(b, 0)]);
  return [near!.states, far!.states];
}
