/** A review in a worker: findings first, then cables that are missing, then failures as they are found; can be stopped. */
import type { Design } from '../core/design';
import { byWorst, checkAvailability, failureCount, findingsOf, missingCables, sweepBase, toldIn } from '../core/review';
import type { CheckedAvailability, Failure, Finding, MissingCables, SweepBase } from '../core/review';
import { solveDesign } from '../core/trees';
import { serveJob } from './job';

export interface ReviewRequest {
  readonly design: Design;
  /** Findings alone, or missing cables too, or failures of single things as well, or of pairs too. */
  readonly depth: 'findings' | 'cables' | 'singles' | 'pairs';
}

export type ReviewProgress =
  | { readonly kind: 'findings'; readonly findings: readonly Finding[] }
  | { readonly kind: 'missing'; readonly missing: MissingCables }
  | { readonly kind: 'availability'; readonly goals: readonly CheckedAvailability[] }
  /** `of`: how many failures there are to look at. */
  | { readonly kind: 'failures'; readonly failures: readonly Failure[]; readonly done: number; readonly of: number };

/** Milliseconds between two reports at least: each is drawn. */
const BETWEEN_REPORTS = 150;

/** The last design that was swept: what is found of trees that an edit cannot touch stays. */
let last: SweepBase | undefined;

const pause = () => new Promise((resolve) => setTimeout(resolve, 0));

serveJob<ReviewRequest, ReviewProgress, boolean>(async ({ design, depth }, { report, stopped }) => {
  const solved = solveDesign(design, last?.solved);
  report({ kind: 'findings', findings: findingsOf(solved) });
  if (depth === 'findings') return true;
  report({ kind: 'missing', missing: missingCables(solved) });
  if (depth === 'cables') return true;
  const base = sweepBase(solved, last);
  last = base;
  const of = failureCount(base, depth === 'pairs');
  let [found, done, reported]: [Failure[], number, number] = [[], 0, performance.now()];
  const send = () => {
    report({ kind: 'failures', failures: found, done, of });
    [found, reported] = [[], performance.now()];
  };
  const singles: Failure[] = [];
  const tellGoals = () => report({ kind: 'availability', goals: checkAvailability(base, singles.sort(byWorst)) });
  if (of === 0) tellGoals();
  for (const failure of toldIn(base, { from: 0, to: of })) {
    done++;
    if (failure?.elements.length === 1) singles.push(failure);
    if (done === base.elements.length) tellGoals();
    if (failure) found.push(failure);
    if (performance.now() - reported < BETWEEN_REPORTS) continue;
    send();
    await pause();
    if (stopped()) return false;
  }
  done = of;
  send();
  return true;
});
