'use client';
/** The plan that is asked for: made in a worker, and made again when a design or the question changes. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { comesFrom } from '../../core/plan';
import type { ChangePlan, Migration, PinnedStep, PlanProgress, Work } from '../../core/plan';
import { runJob } from '../../workers/run-job';
import type { Job } from '../../workers/run-job';
import type { PlanAnswer, PlanRequest } from '../../workers/plan';

export interface PlanState {
  readonly plan: ChangePlan | null;
  /** Of a migration: the ways side by side. */
  readonly ways: readonly Migration[];
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
  /** Seconds to wait after a step. */
  readonly setPause: (step: number, seconds: number) => void;
  /** Ids of steps that stay in their place when the order is searched again. */
  readonly pinned: ReadonlySet<string>;
  readonly pin: (id: string) => void;
  /** Takes another way of a migration. */
  readonly takeWay: (way: Migration) => void;
}

export type Question = Omit<PlanRequest, 'arranged'>;

const NOTHING: PlanState = { plan: null, ways: [], sentence: null, progress: null, running: false };
const NOTHING_TO_DO = 'Every switch runs this mode already: there is nothing to migrate.';
/** Milliseconds without a change after which the search begins. */
const REST = 250;

const start = (request: PlanRequest, onProgress: (progress: PlanProgress) => void): Job<PlanAnswer> =>
  runJob<PlanRequest, PlanProgress, PlanAnswer>(
    new Worker(new URL('../../workers/plan.ts', import.meta.url), { type: 'module' }),
    request,
    { onProgress, failure: (why) => `The plan was not made: ${why}` },
  );

/** What is known after an answer. An arrangement that cannot be carried out leaves the plan as it was. */
function answered(was: PlanState, { planned, ways }: PlanAnswer, arranged: boolean): PlanState {
  const rest = { progress: null, running: false, ways: arranged ? was.ways : ways };
  if (!planned) return { ...rest, plan: null, sentence: NOTHING_TO_DO };
  if (!planned.ok) return { ...rest, plan: arranged ? was.plan : null, sentence: planned.sentence };
  // An arranged plan is compared with the same order of the tables as the one before.
  const { plan } = planned;
  const kept = arranged && was.plan ? { ...plan, table: was.plan.table, constraints: was.plan.constraints } : plan;
  return { ...rest, plan: kept, sentence: null };
}

/** Steps that stay in their place, by their ids; `pins`: what the next search has to keep. */
function usePins(plan: ChangePlan | null) {
  const [chosen, setPinned] = useState<ReadonlySet<string>>(new Set());
  const pins = useRef<readonly PinnedStep[]>([]);
  // A search puts steps together again that were split: the pin stays with what it came from.
  const ids = useMemo(() => plan?.steps.map((s) => s.work.id) ?? [], [plan]);
  const pinned = useMemo(
    () =>
      new Set(
        ids.filter((id) => chosen.has(id) || [...chosen].some((was) => !ids.includes(was) && comesFrom(was, id))),
      ),
    [ids, chosen],
  );
  useEffect(() => {
    pins.current = ids.flatMap((step, i) => (pinned.has(step) ? [{ step, after: ids.slice(0, i) }] : []));
  }, [ids, pinned]);
  const pin = useCallback(
    (id: string) =>
      setPinned((was) => {
        const next = new Set([...was].filter((one) => !comesFrom(one, id)));
        return next.size < was.size ? next : next.add(id);
      }),
    [],
  );
  return { pinned, pin, pins };
}

/** `question`: null while a design is not there yet; a new object asks again. */
export function usePlan(question: Question | null): Planning {
  const [state, setState] = useState<PlanState>(NOTHING);
  const job = useRef<Job<PlanAnswer> | null>(null);
  const run = useCallback((request: PlanRequest) => {
    job.current?.drop();
    const arranged = request.arranged !== null;
    setState((s) => ({ ...s, sentence: null, progress: null, running: true }));
    const mine = start(request, (progress) => setState((s) => ({ ...s, progress })));
    job.current = mine;
    mine.done.then(
      (answer) => answer !== null && setState((s) => answered(s, answer, arranged)),
      (error: Error) => setState((s) => ({ ...s, sentence: error.message, progress: null, running: false })),
    );
  }, []);
  const { plan } = state;
  const { pinned, pin, pins } = usePins(plan);
  useEffect(() => {
    const asked = question && { ...question, options: { ...question.options, pins: pins.current } };
    const timer = setTimeout(() => (asked ? run({ ...asked, arranged: null }) : setState(NOTHING)), REST);
    return () => {
      clearTimeout(timer);
      job.current?.drop();
    };
  }, [run, question, pins]);
  const arrange = useCallback(
    (works: readonly Work[]) => {
      if (!question || !plan) return;
      const [from, to] = [plan.steps[0]!.before, plan.steps.at(-1)!.after];
      run({ ...question, arranged: { from, to, works } });
    },
    [question, plan, run],
  );
  const setPause = useCallback(
    (step: number, pause: number) =>
      setState((s) => {
        if (!s.plan) return s;
        const steps = s.plan.steps.map((one, i) => (i === step ? { ...one, work: { ...one.work, pause } } : one));
        return { ...s, plan: { ...s.plan, steps } };
      }),
    [],
  );
  const takeWay = useCallback((way: Migration) => setState((s) => ({ ...s, plan: way.plan, sentence: null })), []);
  return { ...state, stop: useCallback(() => job.current?.stop(), []), arrange, setPause, pinned, pin, takeWay };
}
