/** Steps that meet availability goals, looked for one after the other; every one is judged by all single failures. */
import { workIn } from '../../design';
import { isLess } from '../less';
import { gapsOf } from './gaps';
import { joiningSteps } from './cable-steps';
import { relievingSteps } from './load-steps';
import { shorteningSteps } from './outage-steps';
import type { NewId, Step } from './step';
import { scoreOf, solvedWith, strainBy, strainOf, trialOf } from './trial';
import type { Trial } from './trial';

/** Steps in a row, and failures of the goal in work that are looked at before it is given up. */
const MOST_STEPS = 12;
const MOST_FAILURES = 3;
/** Ways begun with: one of each kind at most. */
const MOST_WAYS = 4;

export interface Watch {
  /** Called for every design tried; may throw to give up. */
  readonly tried: () => void;
  readonly newId: NewId;
}

const isOpen = (c: Trial['availability'][number]): boolean => c.state === 'broken';

/** Steps for what breaks a goal, its worst failures first. */
function stepsFor(trial: Trial, { goal, breaking }: Trial['availability'][number], newId: NewId) {
  const { solved, failures } = trial;
  return breaking.slice(0, MOST_FAILURES).flatMap(({ failure }) => {
    const steps: Step[] = [];
    if (goal.type === 'load-left') steps.push(...relievingSteps(solved, failure!, newId));
    else if (goal.type === 'stays-connected' || failure?.outage.seconds === null)
      steps.push(...joiningSteps(solved, goal, failure, gapsOf(solved, goal, failure), newId));
    else if (failure) steps.push(...shorteningSteps(solved, failure, failures));
    return steps.map((step) => ({ step, failure }));
  });
}

/** Trials one step on from a trial that are better than it, the best first. */
function next(trial: Trial, start: ReadonlyMap<string, number>, { tried, newId }: Watch): Trial[] {
  const before = scoreOf(trial, start);
  const seen = new Set<string>();
  const found: { trial: Trial; rank: readonly number[] }[] = [];
  for (const open of trial.availability.filter(isOpen)) {
    for (const { step, failure } of stepsFor(trial, open, newId)) {
      const key = JSON.stringify(step.edits).replace(/"id":"[^"]*"/g, '');
      if (seen.has(key)) continue;
      seen.add(key);
      tried();
      const solved = solvedWith(trial, step);
      // Looked at with this one failure first: all of them take longer.
      const own = open.breaking.find((b) => b.failure === failure)!.size;
      if (!solved || strainBy(solved, open.goal.id, failure, trial) >= own) continue;
      const after = trialOf(solved, [...trial.steps, step], trial);
      const score = scoreOf(after, start);
      if (isLess(score, before))
        found.push({ trial: after, rank: [...score, workIn(step.edits).cables, step.edits.length] });
    }
    // Another goal is taken up where nothing helps this one.
    if (found.length > 0) break;
  }
  return found.sort((a, b) => (isLess(a.rank, b.rank) ? -1 : 1)).map((f) => f.trial);
}

/** On from a trial by the best step each time, as long as one helps. */
function onward(trial: Trial, start: ReadonlyMap<string, number>, watch: Watch): Trial {
  let now = trial;
  while (now.steps.length < MOST_STEPS && now.availability.some(isOpen)) {
    const [best] = next(now, start, watch);
    if (!best) return now;
    now = best;
  }
  return now;
}

/** Steps that are not needed after all are left out. */
function pruned(trial: Trial, from: Trial, start: ReadonlyMap<string, number>, watch: Watch): Trial {
  let kept = trial;
  for (const step of trial.steps) {
    if (kept.steps.length < 2) break;
    const steps = kept.steps.filter((s) => s !== step);
    watch.tried();
    const solved = steps.reduce<Trial['solved'] | null>(
      (now, s) => now && solvedWith({ ...from, solved: now }, s),
      from.solved,
    );
    if (!solved) continue;
    const without = trialOf(solved, steps, from);
    if (!isLess(scoreOf(kept, start), scoreOf(without, start))) kept = without;
  }
  return kept;
}

/** Ways to meet what is open in a trial: one that begins with the best step of each kind. */
export function waysFrom(from: Trial, watch: Watch): Trial[] {
  const start = new Map(from.availability.map((c) => [c.goal.id, strainOf(c)]));
  const kinds = new Set<Step['kind']>();
  const begun = next(from, start, watch).filter(({ steps }) => {
    const { kind } = steps.at(-1)!;
    return kinds.has(kind) ? false : kinds.add(kind);
  });
  return begun.slice(0, MOST_WAYS).map((way) => pruned(onward(way, start, watch), from, start, watch));
}
