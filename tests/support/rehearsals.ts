/** Rehearsals for tests: a design, how long, and what happens. */
import type { Design, ScriptEvent } from '@/core/design';
import { rehearse } from '@/core/simulation';
import type { Trace } from '@/core/trace';

/** Events as they are written in a script, but for their ids. `probes`: whether pairs of hosts talk. */
export function runOf(design: Design, until: number, events: readonly object[], probes = false): Trace {
  return rehearse(design, {
    id: 's',
    name: 's',
    until,
    events: events.map((e, i) => ({ id: `e${i}`, ...e })) as ScriptEvent[],
    ...(probes ? {} : { probes: [] }),
  });
}
