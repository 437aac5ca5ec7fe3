'use client';
/** The review of the design as it is: kept true while it changes, in a worker. */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Design } from '../../core/design';
import { byWorst, sweepKey } from '../../core/review';
import type { CheckedAvailability, Failure, Finding, MissingCables } from '../../core/review';
import { runJob } from '../../workers/run-job';
import type { Job } from '../../workers/run-job';
import type { ReviewProgress, ReviewRequest } from '../../workers/review';

export interface Review {
  /** Null until they are known for the first time. */
  readonly findings: readonly Finding[] | null;
  readonly missing: MissingCables | null;
  /** Worst first. */
  readonly failures: readonly Failure[];
  /** Failures that were looked at, and how many there are; null when nothing runs. */
  readonly progress: { readonly done: number; readonly of: number } | null;
  readonly failed: string | null;
  /** Goals that speak of what is left after failures; null until all single ones have been looked at. */
  readonly availability: readonly CheckedAvailability[] | null;
  /** The design that findings and failures are of. */
  readonly design: Design | null;
  /** Milliseconds of the last whole sweep, and how many failures it looked at. */
  readonly took: number | null;
  readonly swept: number;
  /** Milliseconds that a pair of failures takes; null until that is known. */
  readonly pace: number | null;
}

export type ReviewDepth = ReviewRequest['depth'];

const NOTHING: Review = {
  findings: null,
  missing: null,
  failures: [],
  progress: null,
  failed: null,
  availability: null,
  design: null,
  took: null,
  swept: 0,
  pace: null,
};
/** Milliseconds without a change after which the review begins: typing does not start it again with each key. */
const REST = 250;

const partsOf = (d: Design): readonly unknown[] => [
  d.switches,
  d.ports,
  d.links,
  d.segments,
  d.bundles,
  d.hosts,
  d.vlans,
  d.regions,
  d.pairs,
  d.goals,
  d.demands,
  d.risks,
  d.cableCosts,
  d.accepted,
  d.mode,
  d.costScale,
  d.bundleCost,
];

/** What the worker says, added to what is known; failures of the run before stay until the first of this one are there. */
function took(was: Review, said: ReviewProgress, fresh: Failure[], design: Design): Review {
  switch (said.kind) {
    case 'findings':
      return { ...was, findings: said.findings, design };
    case 'missing':
      return { ...was, missing: said.missing };
    case 'availability':
      return { ...was, availability: said.goals };
    case 'pace':
      return { ...was, pace: said.milliseconds };
    case 'failures':
      fresh.push(...said.failures);
      return {
        ...was,
        failures: [...fresh].sort(byWorst),
        progress: said.done < said.of ? { done: said.done, of: said.of } : null,
        swept: said.of,
      };
  }
}

/** What a whole sweep found. */
type Swept = Pick<Review, 'missing' | 'failures' | 'availability' | 'swept' | 'took' | 'pace'>;
/** Sweeps that are kept: an edit taken back, or made again, is looked at at once. */
const MOST_KEPT = 6;

/** Whole sweeps by what they depend on; the last ones only. */
class Sweeps {
  private readonly known = new Map<string, Swept>();
  get(key: string): Swept | undefined {
    const found = this.known.get(key);
    if (found) {
      this.known.delete(key);
      this.known.set(key, found);
    }
    return found;
  }
  keep(key: string, { missing, failures, availability, swept, took: time, pace }: Review): void {
    this.known.set(key, { missing, failures, availability, swept, took: time, pace });
    for (const oldest of this.known.keys()) if (this.known.size > MOST_KEPT) this.known.delete(oldest);
  }
}

export function useReview(design: Design, depth: ReviewDepth): Review & { readonly stop: () => void } {
  const [state, setState] = useState<Review>(NOTHING);
  const job = useRef<Job<boolean> | null>(null);
  const [sweeps] = useState(() => new Sweeps());
  // One worker for all reviews: it remembers what an edit cannot touch.
  const worker = useRef<Worker | null>(null);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  useEffect(() => {
    let mine: Job<boolean> | null = null;
    const timer = setTimeout(() => {
      const began = performance.now();
      const fresh: Failure[] = [];
      const key = depth === 'findings' ? null : `${depth} ${sweepKey(design)}`;
      const known = key === null ? undefined : sweeps.get(key);
      const runs = key !== null && !known;
      setState((s) => ({ ...s, ...known, failed: null, progress: runs ? { done: 0, of: 0 } : null }));
      mine = runJob<ReviewRequest, ReviewProgress, boolean>(
        (worker.current ??= new Worker(new URL('../../workers/review.ts', import.meta.url), { type: 'module' })),
        { design, depth: known ? 'cables' : depth },
        {
          onProgress: (said) => setState((s) => took(s, said, fresh, design)),
          failure: (why) => `The review stopped: ${why}`,
          lost: () => (worker.current = null),
        },
      );
      job.current = mine;
      mine.done.then(
        (whole) => {
          if (whole === null) return;
          const time = whole && runs ? performance.now() - began : null;
          setState((s) => {
            const next = { ...s, progress: null, took: time ?? s.took };
            if (time !== null) sweeps.keep(key!, next);
            return next;
          });
        },
        (error: Error) => setState((s) => ({ ...s, progress: null, failed: error.message })),
      );
    }, REST);
    return () => {
      clearTimeout(timer);
      mine?.drop();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [...partsOf(design), depth]);
  return useMemo(() => ({ ...state, stop: () => job.current?.stop() }), [state]);
}
