/** A change plan in a worker: searched, or in the order that was asked for; can be stopped, with the best so far. */
import type { Design } from '../core/design';
import { planArranged, planning } from '../core/plan';
import type { PlanOptions, PlanProgress, Planned, Reply, Work } from '../core/plan';
import { serveJob } from './job';

export interface PlanRequest {
  readonly from: Design;
  readonly to: Design;
  readonly options: PlanOptions;
  /** Steps in their order, where nothing is to be searched. */
  readonly arranged: readonly Work[] | null;
}

/** Milliseconds in which orders are compared at most, and between two reports at least. */
const LONGEST = 15_000;
const BETWEEN_REPORTS = 150;

const pause = () => new Promise((resolve) => setTimeout(resolve, 0));

serveJob<PlanRequest, PlanProgress, Planned>(async ({ from, to, options, arranged }, { report, stopped }) => {
  if (arranged) return planArranged(from, to, arranged, options);
  const began = performance.now();
  let reported = began;
  const run = planning(from, to, options);
  for (let reply: Reply = 'on'; ;) {
    const { done, value } = run.next(reply);
    if (done) return value;
    const now = performance.now();
    if (now - reported >= BETWEEN_REPORTS) {
      report(value);
      reported = now;
      await pause();
    }
    reply = stopped() ? 'stop' : now - began > LONGEST ? 'enough' : 'on';
  }
});
