/** A step in words: for lists, work sheets and the shell. */
import { lasting, SECOND, count } from '../standard';
import { deviceName, workedAt } from './checks';
import type { ChangePlan, PlanStep } from './plan';
import { setLines } from './set-lines';
import type { SetLine } from './set-lines';

export const lineWords = ({ what, from, to }: SetLine): string => `${what}: ${from} → ${to}`;

/** Where it is done: `quay-b`, `quay-b and cold-store`. */
export const atWords = ({ work, before, after }: PlanStep): string => workedAt(before, after, work);

/** Seconds that the worst pair or VLAN is out; Infinity where contact comes back with a later step only. */
export const longestOutage = ({ measured }: PlanStep): number =>
  Math.max(0, ...[...measured.pairs, ...measured.vlans].map((o) => o.seconds ?? Infinity));

/** `none`, `0.5 ms`, `until a later step`: the longest time that a pair or VLAN is out. */
export function outageWords(step: PlanStep): string {
  const longest = longestOutage(step);
  if (longest === Infinity) return 'until a later step';
  return (longest > 0 ? lasting(Math.round(longest * SECOND)) : 'none') + (step.measured.byTheory ? ', by theory' : '');
}

/** Who is out and how long, one line each. */
export function outageLines({ measured, before }: PlanStep): string[] {
  const lasts = (s: number | null) => (s === null ? 'until a later step' : lasting(Math.round(s * SECOND)));
  const host = (id: string) => before.hosts.find((h) => h.id === id)?.name ?? id;
  return [
    ...measured.vlans.map((o) => `${o.vlans.length > 1 ? 'VLANs' : 'VLAN'} ${o.vlans.join(', ')}: ${lasts(o.seconds)}`),
    ...measured.pairs.map((o) => `${host(o.pair.from)} – ${host(o.pair.to)}: ${lasts(o.seconds)}`),
  ];
}

/** `4 ports in 3 trees`, `nothing`. */
export function movesWords({ moved }: PlanStep): string {
  const ports = new Set(moved.flatMap((t) => t.ports.map((p) => p.id)));
  return ports.size === 0 ? 'nothing' : `${count(ports.size, 'port')} in ${count(moved.length, 'tree')}`;
}

/** What to see before going on, and how long to wait. */
export const seeLines = ({ see, work }: PlanStep): readonly string[] =>
  work.pause === undefined || work.pause === 0 ? see : [...see, `wait ${count(Math.round(work.pause / 60), 'minute')}`];

export const wayBack = ({ before, after, inverse }: PlanStep): string[] =>
  setLines(after, before, inverse).map(lineWords);

/** Names of the devices that cannot be reached when they have to be set. */
export const consoleNames = ({ steps }: ChangePlan): string[] => [
  ...new Set(steps.flatMap((s) => s.consoles.map((id) => deviceName(s.before, s.after, id)))),
];
