/** A plan as a script of the design that it begins with. */
import type { Design, Script } from '../design';
import { readyEdits } from './frame';
import { planScript } from './measure';
import type { ChangePlan } from './plan';
import { atWords } from './step-words';

/** Each step when the one before has come to rest. What stands ready in the frame of the plan comes with the first one: nothing moves by it. */
export function scriptOfPlan(design: Design, { steps, pairs }: ChangePlan, name: string): Script {
  const [first, last] = [steps[0]!.before, steps.at(-1)!.after];
  const ready = readyEdits(design, first);
  const events = steps.map((s, i) => ({
    edits: i === 0 ? [...ready, ...s.work.edits] : s.work.edits,
    label: `step ${i + 1} at ${atWords(s)}`.slice(0, 60),
    pause: s.work.pause ?? 0,
  }));
  return planScript(first, last, events, pairs, name).script;
}
