/** Timers that a network of a diameter needs (802.1D-1998 clause 8.10.2, with the delays recommended there). */
import { TIMERS } from '../standard';

export interface TimerRow {
  readonly helloTime: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  /** Whether all three are within their ranges. */
  readonly legal: boolean;
}

/** Seconds a BPDU or a frame is under way in one switch at most, and by how much an age may be overstated there. */
const PER_SWITCH = { delay: 1, overestimate: 1 };
/** Seconds that a frame may live, and between two hellos of one port. */
const FRAME_LIFE = 7.5;

/** `diameter`: switches on the longest way, 2 and up; `helloTime` in seconds. */
export function timersForDiameter(diameter: number, helloTime: number): TimerRow {
  const hops = diameter - 1;
  // Two hellos may get lost, and each switch on the way adds to the age.
  const lost = 2;
  const propagation = lost * helloTime + hops * PER_SWITCH.delay;
  const maxAge = Math.max(
    2 * (helloTime + 1),
    Math.ceil(lost * (helloTime + 1) + 2 * hops * PER_SWITCH.overestimate + 2),
  );
  const forwardDelay = Math.ceil(Math.max((propagation + hops + FRAME_LIFE) / 2 + helloTime, maxAge / 2 + 1));
  const fits = (value: number, range: { min: number; max: number }) => value >= range.min && value <= range.max;
  return {
    helloTime,
    maxAge,
    forwardDelay,
    legal: fits(helloTime, TIMERS.helloTime) && fits(maxAge, TIMERS.maxAge) && fits(forwardDelay, TIMERS.forwardDelay),
  };
}
