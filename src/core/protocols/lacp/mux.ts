/** Mux machine, coupled control (802.1AX-2014 clause 6.4.15, figure 6-22). */
import { LACP_TIMES, has, withBit } from './port';
import type { LacpPort, MuxState } from './port';

/** What the bundle as a whole asks of a port that is to be active in it. */
export interface Bound {
  /** The partner has as many of them in sync as the minimum asks. */
  readonly given: boolean;
  /** They wait for that only so long. */
  readonly waits: boolean;
}
/** For ports that are no part of it. */
export const FREE: Bound = { given: true, waits: false };

const partnerInStep = (p: LacpPort, { given }: Bound): boolean => has(p.partner, 'synchronization') && given;

const ROWS: readonly {
  readonly from: MuxState;
  readonly when: (p: LacpPort, bound: Bound) => boolean;
  readonly to: MuxState;
}[] = [
  { from: 'DETACHED', when: (p) => p.selected !== 'UNSELECTED', to: 'WAITING' },
  { from: 'WAITING', when: (p) => p.selected === 'UNSELECTED', to: 'DETACHED' },
  { from: 'WAITING', when: (p) => p.selected === 'SELECTED' && p.ready, to: 'ATTACHED' },
  { from: 'ATTACHED', when: (p) => p.selected !== 'SELECTED', to: 'DETACHED' },
  { from: 'ATTACHED', when: partnerInStep, to: 'COLLECTING_DISTRIBUTING' },
  {
    from: 'COLLECTING_DISTRIBUTING',
    when: (p, bound) => p.selected !== 'SELECTED' || !partnerInStep(p, bound),
    to: 'ATTACHED',
  },
];

/** What is done on entry: whether the port says it is in step, and whether frames pass. */
const SAYS: Record<MuxState, { readonly inStep: boolean; readonly passes: boolean } | null> = {
  DETACHED: { inStep: false, passes: false },
  WAITING: null,
  ATTACHED: { inStep: true, passes: false },
  COLLECTING_DISTRIBUTING: { inStep: true, passes: true },
};

/** One step of the machine: null when nothing moves it. */
export function muxStep(p: LacpPort, now: number, bound = FREE): LacpPort | null {
  const row = ROWS.find((r) => r.from === p.mux && r.when(p, bound));
  if (!row) return null;
  const wait = { WAITING: LACP_TIMES.aggregateWait, ATTACHED: bound.waits ? LACP_TIMES.minimumWait : null };
  const waits = row.to === 'WAITING' || row.to === 'ATTACHED' ? wait[row.to] : null;
  const waitWhile = waits === null ? null : now + waits;
  const next = { ...p, mux: row.to, ready: false, timers: { ...p.timers, waitWhile } };
  const says = SAYS[row.to];
  if (!says) return next;
  const inStep = withBit(next.actor, 'synchronization', says.inStep);
  const actor = withBit(withBit(inStep, 'collecting', says.passes), 'distributing', says.passes);
  return { ...next, actor, ntt: true };
}

/** Whether the wait of a port that is selected has run out (Ready_N). */
export const hasWaited = (p: LacpPort, now: number): boolean =>
  p.mux === 'WAITING' && p.timers.waitWhile !== null && p.timers.waitWhile <= now;

/** Whether a port has waited long enough for a partner that gives fewer ports than the minimum. */
export const hasAttachedInVain = (p: LacpPort, now: number): boolean =>
  p.mux === 'ATTACHED' && p.timers.waitWhile !== null && p.timers.waitWhile <= now;
