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
  /** Milliseconds that a pair takes, by some of them. */
  | { readonly kind: 'pace'; readonly milliseconds: number }
  | { readonly kind: 'availability'; readonly goals: readonly CheckedAvailability[] }
  /** `of`: how many failures there are to look at. */
  | { readonly kind: 'failures'; readonly failures: readonly Failure[]; readonly done: number; readonly of: number };

/** Milliseconds between two reports at least: each is drawn. */
const BETWEEN_REPORTS = 150;

/** The last design that was swept: what is found of trees that an edit cannot touch stays. */
let last: SweepBase | undefined;

/** Places among all pairs at which some are tried, how many at each, and what that takes at most, in milliseconds. */
const TRIED = { places: 12, each: 60, most: 200 };

/** What a pair takes; null where there is none. */
function paceOf(base: SweepBase): number | null {
  const [first, end] = [base.elements.length, failureCount(base, true)];
  const began = performance.now();
  const spent = () => performance.now() - began;
  let looked = 0;
  for (let place = 0; place < TRIED.places; place++) {
    const from = first + Math.floor(((end - first) * place) / TRIED.places);
    const pairs = toldIn(base, { from, to: Math.min(end, from + TRIED.each) });
    while (pairs.next().done !== true) {
      looked++;
      if (spent() > TRIED.most) return spent() / looked;
    }
  }
  return looked === 0 ? null : spent() / looked;
}

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
  const pace = depth === 'pairs' ? null : paceOf(base);
  if (pace !== null) report({ kind: 'pace', milliseconds: pace });
  return true;
});
