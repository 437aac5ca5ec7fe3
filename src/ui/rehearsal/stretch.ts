/** Moments of a run and the stretch of time that is shown, in microseconds. */
import type { Trace } from '../../core/trace';

export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** Moments at which something changed: roles, states, reachability, or an event of the script. */
export function changesOf(trace: Pick<Trace, 'ports' | 'contacts' | 'roots' | 'happenings'>): number[] {
  const all = new Set<number>();
  for (const lane of [...trace.ports, ...trace.contacts, ...trace.roots]) for (const s of lane.spans) all.add(s.at);
  for (const h of trace.happenings) if (h.kind === 'script') all.add(h.at);
  return [...all].sort((a, b) => a - b);
}

const HALF = 50_000;

/** A tenth of a second around a moment, within the run. */
export function around(at: number, until: number): Stretch {
  const from = Math.max(0, at - HALF);
  return { from, to: Math.min(until, from + 2 * HALF) };
}

/** The stretch moved so that a moment outside of it is in its middle; null, for the whole run, stays. */
export function broughtIn(shown: Stretch | null, at: number): Stretch | null {
  if (!shown || (at >= shown.from && at <= shown.to)) return shown;
  const length = shown.to - shown.from;
  const from = Math.max(0, at - length / 2);
  return { from, to: from + length };
}
