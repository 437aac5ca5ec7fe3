/**
 * What two ends that negotiate come to, in closed form: which members carry, which wait, which go alone
 * (802.1AX-2014 clauses 6.4.14 and 6.7.1). The machines of `core/machines` come to the same over time.
 */

export type MemberState =
  /** Carries as a part of the bundle. */
  | 'active'
  /** Would join, and waits: more are ready than may be active at this end or at the other. */
  | 'standby'
  /** Passes frames by itself, outside the bundle. */
  | 'individual'
  /** Passes nothing: it cannot join, and may not go alone. */
  | 'suspended'
  | 'down';

export interface PlannedMember {
  readonly number: number;
  /** LACP port priority. */
  readonly priority: number;
  /** Mb/s that the cable runs at. */
  readonly speed: number;
  readonly half: boolean;
  readonly up: boolean;
}

export interface PlannedEnd {
  readonly system: number;
  readonly systemPriority: number;
  readonly activity: 'active' | 'passive';
  readonly minActive: number;
  readonly maxActive: number;
  readonly individual: boolean;
  /** Members in the order of their cables: the nth of one end leads to the nth of the other. */
  readonly members: readonly PlannedMember[];
}

/** Whether at least one of two ends starts the negotiation: two that answer only never come up. */
export const somebodyStarts = (a: Pick<PlannedEnd, 'activity'>, b: Pick<PlannedEnd, 'activity'>): boolean =>
  a.activity === 'active' || b.activity === 'active';

/** The end that decides which members wait: lower priority, then lower address. */
const decider = (a: PlannedEnd, b: PlannedEnd): 0 | 1 =>
  (a.systemPriority - b.systemPriority || a.system - b.system) <= 0 ? 0 : 1;

/** Cables of the speed that most have; a draw goes to the faster one. */
function ofOneSpeed(cables: readonly number[], speed: (cable: number) => number): number[] {
  const speeds = [...new Set(cables.map(speed))];
  const count = (s: number) => cables.filter((c) => speed(c) === s).length;
  speeds.sort((x, y) => count(y) - count(x) || y - x);
  return cables.filter((c) => speed(c) === speeds[0]);
}

/** State of every member at both ends; both ends have as many members, cabled in their order. */
export function negotiate(a: PlannedEnd, b: PlannedEnd): readonly [MemberState[], MemberState[]] {
  const ends = [a, b] as const;
  const cables = [...a.members.keys()];
  const up = (c: number) => a.members[c]!.up && b.members[c]!.up;
  const half = (c: number) => a.members[c]!.half || b.members[c]!.half;
  const alone = (end: PlannedEnd): MemberState => (end.individual ? 'individual' : 'suspended');
  if (!somebodyStarts(a, b))
    return [cables.map((c) => (up(c) ? alone(a) : 'down')), cables.map((c) => (up(c) ? alone(b) : 'down'))];
  const joining = ofOneSpeed(
    cables.filter((c) => up(c) && !half(c)),
    (c) => a.members[c]!.speed,
  );
  const order = ends[decider(a, b)].members;
  joining.sort((x, y) => order[x]!.priority - order[y]!.priority || order[x]!.number - order[y]!.number);
  const chosen = ends.map((end) => new Set(joining.length < end.minActive ? [] : joining.slice(0, end.maxActive)));
  const state = (c: number): MemberState => {
    if (!up(c)) return 'down';
    // Half duplex does not aggregate; both ends must be willing to let it go alone.
    if (half(c)) return a.individual && b.individual ? 'individual' : 'suspended';
    if (!joining.includes(c)) return 'suspended';
    return chosen.every((set) => set.has(c)) ? 'active' : 'standby';
  };
  const states = cables.map(state);
  return [states, [...states]];
}
