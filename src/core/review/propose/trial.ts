/** A design with edits tried out, judged by its goals: those about the network as it is, and those about any single failure. */
import { applyEdits } from '../../design';
import type { Edit } from '../../design';
import { checkGoals } from '../../goals';
import type { CheckedGoal } from '../../goals';
import { solveDesign } from '../../trees';
import type { SolvedDesign } from '../../trees';
import { sweepBase } from '../after';
import type { SweepBase } from '../after';
import { availabilityIn } from '../availability';
import type { AvailabilityDetail } from '../availability';
import type { Element } from '../elements';
import { byWorst, failureOf } from '../sweep';
import type { Failure } from '../sweep';
import type { Step } from './step';

/** A design with everything that a choice between designs looks at. */
export interface Trial {
  readonly steps: readonly Step[];
  readonly solved: SolvedDesign;
  readonly base: SweepBase;
  readonly failures: readonly Failure[];
  readonly present: readonly CheckedGoal[];
  readonly availability: readonly AvailabilityDetail[];
}

export const editsOf = (steps: readonly Step[]): Edit[] => steps.flatMap((s) => s.edits);

/** How much a goal is broken by. */
export const strainOf = ({ breaking }: AvailabilityDetail): number => breaking.reduce((sum, b) => sum + b.size, 0);

/** `from`: a trial of much the same design, whose failures are taken over for the trees that are the same. */
export function trialOf(solved: SolvedDesign, steps: readonly Step[], from?: Trial): Trial {
  const base = sweepBase(solved, from?.base);
  const failures = base.elements.map((e) => failureOf(base, [e])).sort(byWorst);
  return {
    steps,
    solved,
    base,
    failures,
    present: checkGoals(solved),
    availability: availabilityIn(base, failures),
  };
}

/** The same after one step more, solved; null where the design does not take it. */
export function solvedWith(trial: Trial, step: Step): SolvedDesign | null {
  const applied = applyEdits(trial.solved.topology.design, step.edits);
  return applied.ok ? solveDesign(applied.design, trial.solved) : null;
}

/** What fails, as it is in another design: a bundle may have more members there; null where it is gone. */
const sameElements = (base: SweepBase, elements: readonly Element[]): Element[] =>
  elements.flatMap((e) => base.elements.filter((own) => own.kind === e.kind && own.id === e.id));

/** How much a goal is broken by the network as it is and by one failure alone. */
export function strainBy(solved: SolvedDesign, goalId: string, failure: Failure | null, from: Trial): number {
  const base = sweepBase(solved, from.base);
  const own = failure ? sameElements(base, failure.elements) : [];
  const failures = own.length > 0 ? [failureOf(base, own)] : [];
  const checked = availabilityIn(base, failures).find((c) => c.goal.id === goalId)!;
  return strainOf(checked);
}

/** Goals that are broken, about the network as it is and about failures, then by how much in all; `start`: what counts as one. */
export function scoreOf(trial: Trial, start: ReadonlyMap<string, number>): readonly number[] {
  const broken = (list: readonly CheckedGoal[]) => list.filter((c) => c.state === 'broken').length;
  const strain = trial.availability.reduce((sum, c) => sum + strainOf(c) / (start.get(c.goal.id) || 1), 0);
  return [broken(trial.present) + broken(trial.availability), strain];
}
