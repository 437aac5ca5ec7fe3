/** An aggregation port: its settings, its variables and the states of its machines (802.1AX-2014 clause 6.4.4 to 6.4.8). */
import { LACP_STATE } from '../frames';
import type { LacpInfo, LacpStateBit } from '../frames';
import { SECOND } from '../../standard';

/** Clause 6.4.4, in microseconds. */
export const LACP_TIMES = {
  fastPeriodic: 1 * SECOND,
  slowPeriodic: 30 * SECOND,
  shortTimeout: 3 * SECOND,
  longTimeout: 90 * SECOND,
  churnDetection: 60 * SECOND,
  aggregateWait: 2 * SECOND,
  /** Not of the standard, which knows no minimum: longer than the wait of a partner that begins a moment later. */
  minimumWait: 4 * SECOND,
} as const;
/** Frames that a port sends at most within a fast period (clause 6.4.16). */
export const MOST_FRAMES = 3;

export type ReceiveState = 'INITIALIZE' | 'PORT_DISABLED' | 'EXPIRED' | 'LACP_DISABLED' | 'DEFAULTED' | 'CURRENT';
export type PeriodicState = 'NO_PERIODIC' | 'FAST_PERIODIC' | 'SLOW_PERIODIC' | 'PERIODIC_TX';
export type MuxState = 'DETACHED' | 'WAITING' | 'ATTACHED' | 'COLLECTING_DISTRIBUTING';
export type ChurnState = 'NO_CHURN' | 'CHURN_MONITOR' | 'CHURN';
export type Selected = 'UNSELECTED' | 'SELECTED' | 'STANDBY';

/** Timers as the moment they run out, in microseconds; null when they do not run. */
export interface Timers {
  readonly currentWhile: number | null;
  readonly periodic: number | null;
  readonly waitWhile: number | null;
  /** Not of the standard of 2014: until a member that came up may be used beside others. */
  readonly returnWhile: number | null;
  readonly actorChurn: number | null;
  readonly partnerChurn: number | null;
}

export interface LacpPort {
  /** Number of the port, which orders ports of equal priority. */
  readonly number: number;
  readonly portEnabled: boolean;
  readonly lacpEnabled: boolean;
  readonly actor: LacpInfo;
  readonly partner: LacpInfo;
  readonly partnerAdmin: LacpInfo;
  readonly selected: Selected;
  readonly ready: boolean;
  /** Need to transmit. */
  readonly ntt: boolean;
  readonly receive: ReceiveState;
  readonly periodic: PeriodicState;
  readonly mux: MuxState;
  readonly actorChurn: ChurnState;
  readonly partnerChurn: ChurnState;
  readonly timers: Timers;
  /** When it sent its last frames, as many as it may within a fast period; the oldest first. */
  readonly sentAt: readonly number[];
}

export const NO_TIMERS: Timers = {
  currentWhile: null,
  periodic: null,
  waitWhile: null,
  returnWhile: null,
  actorChurn: null,
  partnerChurn: null,
};

/** What is assumed of a silent partner: system 0, not aggregatable, short timeout. */
export const NO_PARTNER: LacpInfo = {
  systemPriority: 0,
  system: 0,
  key: 0,
  portPriority: 0,
  port: 0,
  state: LACP_STATE.timeout,
};

export const has = (info: LacpInfo, bit: LacpStateBit): boolean => (info.state & LACP_STATE[bit]) !== 0;

/** The same information with a state bit set or cleared. */
export const withBit = (info: LacpInfo, bit: LacpStateBit, on: boolean): LacpInfo => ({
  ...info,
  state: on ? info.state | LACP_STATE[bit] : info.state & ~LACP_STATE[bit],
});

/** System, key and port of two parties are the same, and so is whether they aggregate (the test of update_Selected). */
export const sameParty = (a: LacpInfo, b: LacpInfo): boolean =>
  a.port === b.port &&
  a.portPriority === b.portPriority &&
  a.system === b.system &&
  a.systemPriority === b.systemPriority &&
  a.key === b.key &&
  has(a, 'aggregation') === has(b, 'aggregation');
