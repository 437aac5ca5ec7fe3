/** Periodic transmission machine (802.1AX-2014 clause 6.4.13, figure 6-19). */
import { LACP_TIMES, has } from './port';
import type { LacpPort, PeriodicState } from './port';

const silent = (p: LacpPort): boolean =>
  !p.lacpEnabled || !p.portEnabled || (!has(p.actor, 'activity') && !has(p.partner, 'activity'));
const due = (p: LacpPort, now: number): boolean => p.timers.periodic !== null && p.timers.periodic <= now;
const shortPartner = (p: LacpPort): boolean => has(p.partner, 'timeout');

const ROWS: readonly {
  readonly from: readonly PeriodicState[];
  readonly when: (p: LacpPort, now: number) => boolean;
  readonly to: PeriodicState;
}[] = [
  { from: ['FAST_PERIODIC', 'SLOW_PERIODIC', 'PERIODIC_TX'], when: silent, to: 'NO_PERIODIC' },
  { from: ['NO_PERIODIC'], when: (p) => !silent(p), to: 'FAST_PERIODIC' },
  { from: ['FAST_PERIODIC'], when: due, to: 'PERIODIC_TX' },
  { from: ['FAST_PERIODIC'], when: (p) => !shortPartner(p), to: 'SLOW_PERIODIC' },
  { from: ['SLOW_PERIODIC'], when: (p, now) => due(p, now) || shortPartner(p), to: 'PERIODIC_TX' },
  { from: ['PERIODIC_TX'], when: shortPartner, to: 'FAST_PERIODIC' },
  { from: ['PERIODIC_TX'], when: (p) => !shortPartner(p), to: 'SLOW_PERIODIC' },
];

const PERIOD: Partial<Record<PeriodicState, number>> = {
  FAST_PERIODIC: LACP_TIMES.fastPeriodic,
  SLOW_PERIODIC: LACP_TIMES.slowPeriodic,
};

/** One step of the machine: null when nothing moves it. */
export function periodicStep(p: LacpPort, now: number): LacpPort | null {
  const row = ROWS.find((r) => r.from.includes(p.periodic) && r.when(p, now));
  if (!row) return null;
  const period = PERIOD[row.to];
  return {
    ...p,
    periodic: row.to,
    ntt: p.ntt || row.to === 'PERIODIC_TX',
    timers: { ...p.timers, periodic: period === undefined ? null : now + period },
  };
}
