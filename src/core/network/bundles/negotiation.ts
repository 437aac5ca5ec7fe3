/**
 * What two ends that negotiate come to, in closed form: which members are active, which are standby, which run as individual
 * (802.1AX-2014 clauses 6.4.14 and 6.7.1). The machines of `core/protocols` come to the same over time.
 */

import type { LacpEndPort } from '../lacp-ends';
import { speedsByUse } from '../../standard';

export type MemberState =
  /** Active: it carries frames of the bundle. */
  | 'active'
  /** Would join, and waits: more are ready than may be active at this end or at the other. */
  | 'standby'
  /** Passes frames by itself, outside the bundle. */
  | 'individual'
  /** Suspended: it cannot join, and may not run as individual. */
  | 'suspended'
  | 'down';

export interface PlannedEnd {
  readonly system: number;
  readonly systemPriority: number;
  readonly activity: 'active' | 'passive';
  readonly minActive: number;
  readonly maxActive: number;
  readonly individual: boolean;
  /** Members in the order of their cables: the nth of one end leads to the nth of the other. */
  readonly members: readonly LacpEndPort[];
}

/** Whether at least one of two ends starts the negotiation: two that answer only never come up. */
export const somebodyStarts = (a: Pick<PlannedEnd, 'activity'>, b: Pick<PlannedEnd, 'activity'>): boolean =>
  a.activity === 'active' || b.activity === 'active';

/** The end that decides which members wait: lower priority, then lower address. */
const decider = (a: PlannedEnd, b: PlannedEnd): 0 | 1 =>
  (a.systemPriority - b.systemPriority || a.system - b.system) <= 0 ? 0 : 1;

/** State of every member at both ends; both ends have as many members, cabled in their order. */
export function negotiate(a: PlannedEnd, b: PlannedEnd): readonly [MemberState[], MemberState[]] {
  const ends = [a, b] as const;
  const cables = [...a.members.keys()];
  const up = (c: number) => a.members[c]!.up && b.members[c]!.up;
  const half = (c: number) => a.members[c]!.half || b.members[c]!.half;
  const alone = (end: PlannedEnd): MemberState => (end.individual ? 'individual' : 'suspended');
  if (!somebodyStarts(a, b))
    return [cables.map((c) => (up(c) ? alone(a) : 'down')), cables.map((c) => (up(c) ? alone(b) : 'down'))];
  const speed = (c: number) => a.members[c]!.speed;
  const ready = cables.filter((c) => up(c) && !half(c));
  const [chosenSpeed] = speedsByUse(ready, speed);
  const joining = ready.filter((c) => speed(c) === chosenSpeed);
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
