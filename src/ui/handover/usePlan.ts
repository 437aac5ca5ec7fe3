'use client';
/** The plan from one variant to another: searched in a worker, and searched again when one of them changes. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '../../core/design';
import type { ChangePlan, PlanProgress, Planned, Work } from '../../core/plan';
import { runJob } from '../../workers/run-job';
import type { Job } from '../../workers/run-job';
import type { PlanRequest } from '../../workers/plan';

export interface PlanState {
  readonly plan: ChangePlan | null;
  /** Why there is none, in a sentence; or why an arrangement was not taken. */
  readonly sentence: string | null;
  readonly progress: PlanProgress | null;
  readonly running: boolean;
}

export interface Planning extends PlanState {
  /** Ends the search; the best so far is taken. */
  readonly stop: () => void;
  /** Asks for the figures of steps in an order of choice. */
  readonly arrange: (works: readonly Work[]) => void;
}

export interface PlanChoices {
  readonly from: Design | null;
  readonly to: Design | null;
  readonly at: string | null;
  readonly temporary: boolean;
  /** Counts up when a new search is asked for. */
  readonly round: number;
}

const NOTHING: PlanState = { plan: null, sentence: null, progress: null, running: false };
/** Milliseconds without a change after which the search begins. */
const REST = 250;

const start = (request: PlanRequest, onProgress: (progress: PlanProgress) => void): Job<Planned> =>
  runJob<PlanRequest, PlanProgress, Planned>(
    new Worker(new URL('../../workers/plan.ts', import.meta.url), { type: 'module' }),
    request,
    { onProgress, failure: (why) => `The plan was not made: ${why}` },
  );

export function usePlan({ from, to, at, temporary, round }: PlanChoices): Planning {
  const [state, setState] = useState<PlanState>(NOTHING);
  const job = useRef<Job<Planned> | null>(null);
  const run = useCallback(
    (arranged: readonly Work[] | null) => {
      if (!from || !to) return;
      job.current?.drop();
      const options = { temporary, ...(at === null ? {} : { at }) };
      setState((s) => ({ ...s, sentence: null, progress: null, running: true }));
      const mine = start({ from, to, options, arranged }, (progress) => setState((s) => ({ ...s, progress })));
      job.current = mine;
      mine.done.then(
        (planned) => {
          if (planned === null) return;
          // An arrangement that cannot be carried out leaves the plan as it was.
          const kept = arranged !== null && !planned.ok;
          setState((s) => ({
            plan: planned.ok ? taken(planned.plan, s.plan, arranged !== null) : kept ? s.plan : null,
            sentence: planned.ok ? null : planned.sentence,
            progress: null,
            running: false,
          }));
        },
        (error: Error) => setState((s) => ({ ...s, sentence: error.message, progress: null, running: false })),
      );
    },
    [from, to, at, temporary],
  );
  useEffect(() => {
    const timer = setTimeout(() => run(null), REST);
    return () => {
      clearTimeout(timer);
      job.current?.drop();
    };
  }, [run, round]);
  return { ...state, stop: useCallback(() => job.current?.stop(), []), arrange: run };
}

/** An arranged plan is compared with the same order of the tables as the one before. */
const taken = (plan: ChangePlan, before: ChangePlan | null, arranged: boolean): ChangePlan =>
  arranged && before ? { ...plan, table: before.table, constraints: before.constraints } : plan;
