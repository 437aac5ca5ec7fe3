'use client';
import { useCallback, useEffect, useState } from 'react';
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/trace';
import { startRehearsing } from '../session/rehearse-job';
import type { RehearseJob } from '../session/rehearse-job';

export interface Run {
  readonly trace: Trace | null;
  /** Seconds rehearsed so far; null while nothing runs. */
  readonly progress: number | null;
  readonly failed: string | null;
  /** It was stopped before anything had happened: the trace is that of the run before. */
  readonly stoppedEarly: boolean;
  readonly took: number;
  readonly cancel: () => void;
  /** Runs the script once more, after a run that failed for example. */
  readonly again: () => void;
}

/** Only what a run depends on: names and places of things on the sheet do not count. */
const keyOf = (script: Script | null): string =>
  script
    ? JSON.stringify([
        script.events,
        script.until,
        script.probes,
        script.seed,
        script.linkDelay,
        script.processingDelay,
        script.helloSpread,
        script.id,
      ])
    : '';
/** The parts of a design that a run depends on. */
const partsOf = (design: Design): readonly unknown[] => [
  design.switches,
  design.ports,
  design.links,
  design.segments,
  design.bundles,
  design.hosts,
  design.mode,
  design.regions,
  design.pairs,
  design.vlans,
];

/** Rehearses a script whenever it or the design changes; the last trace stays until the next is there. */
export function useRun(design: Design, script: Script | null): Run {
  const [state, setState] = useState<Omit<Run, 'cancel' | 'again'>>({
    trace: null,
    progress: null,
    failed: null,
    stoppedEarly: false,
    took: 0,
  });
  const [attempt, setAttempt] = useState(0);
  const [job, setJob] = useState<RehearseJob | null>(null);
  const key = keyOf(script);
  useEffect(() => {
    if (!script) {
      setState((s) => ({ ...s, trace: null, progress: null }));
      return;
    }
    let mine: RehearseJob | null = null;
    const timer = setTimeout(() => {
      const began = performance.now();
      setState((s) => ({ ...s, progress: 0, failed: null, stoppedEarly: false }));
      mine = startRehearsing(design, script, (seconds) => setState((s) => ({ ...s, progress: seconds })));
      setJob(mine);
      mine.done.then(
        (trace) => {
          if (trace === null) return;
          const stoppedEarly = trace.ended === 'cancelled' && trace.until === 0;
          setState((s) => ({
            ...s,
            progress: null,
            stoppedEarly,
            trace: stoppedEarly ? s.trace : trace,
            took: performance.now() - began,
          }));
        },
        (error: Error) => setState((s) => ({ ...s, progress: null, failed: error.message })),
      );
    }, 150);
    return () => {
      clearTimeout(timer);
      mine?.drop();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [...partsOf(design), key, attempt]);
  const again = useCallback(() => setAttempt((n) => n + 1), []);
  return { ...state, cancel: () => job?.stop(), again };
}
