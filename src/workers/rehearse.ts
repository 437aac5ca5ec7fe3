/** A run in a worker: takes a design and a script, reports its progress in seconds, answers with the trace; can be stopped. */
import type { Design, Script } from '../core/design';
import { buffersOf } from '../core/trace';
import { rehearsing } from '../core/simulation';
import type { Trace } from '../core/trace';
import { serveJob } from './job';

export interface RehearseRequest {
  readonly design: Design;
  readonly script: Script;
}

/** Milliseconds between two reports at least: each is drawn. */
const BETWEEN_REPORTS = 100;
/** Lets messages in that have come meanwhile. */
const pause = () => new Promise((resolve) => setTimeout(resolve, 0));

serveJob<RehearseRequest, number, Trace>(
  async ({ design, script }, { report, stopped }) => {
    const turns = rehearsing(design, script);
    let reported = performance.now();
    for (;;) {
      const { done, value } = turns.next(stopped());
      if (done) return value;
      if (performance.now() - reported > BETWEEN_REPORTS) {
        report(value);
        reported = performance.now();
      }
      await pause();
    }
  },
  (trace) => buffersOf(trace.frames),
);
