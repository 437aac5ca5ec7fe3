/** Actor and partner churn machines (802.1AX-2014 clause 6.4.17): who is not in step for a minute. */
import { LACP_TIMES, has } from './port';
import type { ChurnState, LacpPort } from './port';

type Side = 'actor' | 'partner';

function step(p: LacpPort, side: Side, now: number): LacpPort | null {
  const field = `${side}Churn` as const;
  const state: ChurnState = p[field];
  const timer = p.timers[field];
  const inStep = has(p[side], 'synchronization');
  const to = (next: ChurnState, deadline: number | null): LacpPort => ({
    ...p,
    [field]: next,
    timers: { ...p.timers, [field]: deadline },
  });
  if (!p.portEnabled) return state === 'CHURN_MONITOR' && timer === null ? null : to('CHURN_MONITOR', null);
  if (inStep) return state === 'NO_CHURN' ? null : to('NO_CHURN', null);
  if (state === 'NO_CHURN' || (state === 'CHURN_MONITOR' && timer === null))
    return to('CHURN_MONITOR', now + LACP_TIMES.churnDetection);
  return state === 'CHURN_MONITOR' && timer! <= now ? to('CHURN', null) : null;
}

/** One step of either machine: null when nothing moves them. */
export const churnStep = (p: LacpPort, now: number): LacpPort | null =>
  step(p, 'actor', now) ?? step(p, 'partner', now);
