/** Timers that a network of a diameter needs, from the delays that 802.1D-1998 clause 8.10.2 recommends. */
import { TIMERS } from './constants';

export interface TimerRow {
  readonly helloTime: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  /** Whether all three are within their ranges. */
  readonly legal: boolean;
}

/** Hellos that may get lost one after the other. */
const LOST = 3;
/** Seconds: a BPDU under way in one switch, an age overstated there, a frame under way there, on the wire, and a port that stops. */
const DELAY = { bpdu: 1, overestimate: 1, transit: 1, access: 0.5, halt: 1 } as const;

/** `diameter`: switches on the longest way, 2 and up; `helloTime` in seconds. */
export function timersForDiameter(diameter: number, helloTime: number): TimerRow {
  const hops = diameter - 1;
  const propagation = (LOST + 1) * helloTime + hops * DELAY.bpdu;
  const overestimate = hops * DELAY.overestimate;
  const frameLife = diameter * DELAY.transit + DELAY.access;
  const maxAge = propagation + overestimate;
  const forwardDelay = Math.ceil((maxAge + frameLife + DELAY.halt) / 2);
  const fits = (value: number, range: { min: number; max: number }) => value >= range.min && value <= range.max;
  return {
    helloTime,
    maxAge,
    forwardDelay,
    legal: fits(helloTime, TIMERS.helloTime) && fits(maxAge, TIMERS.maxAge) && fits(forwardDelay, TIMERS.forwardDelay),
  };
}
