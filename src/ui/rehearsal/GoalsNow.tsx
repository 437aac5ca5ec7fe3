'use client';
import { useDeferredValue, useMemo } from 'react';
import { checkGoals, goalSentence } from '../../core/goals';
import type { CheckedGoal } from '../../core/goals';
import type { Script } from '../../core/design';
import { asItStands, carriedOut, eventWords } from '../../core/rehearsal';
import type { Trace } from '../../core/rehearsal';
import { solveDesign } from '../../core/trees';
import { useSession } from '../shell/context';

const NONE: readonly CheckedGoal[] = [];
const goals = (n: number) => `${n} ${n === 1 ? 'goal' : 'goals'}`;

/** Which goals hold once the network has settled as the events up to the moment leave it, and which the events broke. */
export function GoalsNow({ script, trace, at }: { script: Script; trace: Trace; at: number }) {
  const drawn = useSession((s) => s.solved);
  const { design } = drawn.topology;
  const wanted = design.goals.length > 0;
  const happened = wanted ? carriedOut(trace, at).length : 0;
  // Pulling the moment over an event does not wait for the trees.
  const counted = useDeferredValue(happened);
  const before = useMemo(() => (wanted ? checkGoals(drawn) : NONE), [drawn, wanted]);
  const stands = useMemo(() => {
    const upTo = carriedOut(trace, Infinity)[counted - 1];
    return upTo && asItStands(design, script, trace, upTo.at);
  }, [design, script, trace, counted]);
  const after = useMemo(() => stands && checkGoals(solveDesign(stands.design, drawn)), [stands, drawn]);
  if (!wanted || !stands || !after) return null;
  const was = new Map(before.map((c) => [c.goal.id, c.state]));
  const broken = after.filter((c) => c.state !== 'met' && was.get(c.goal.id) === 'met');
  const metNow = after.filter((c) => c.state === 'met' && was.get(c.goal.id) === 'broken').length;
  const asBefore = after.filter((c) => c.state === 'broken').length - broken.filter((c) => c.state === 'broken').length;
  const held = after.filter((c) => c.state === 'met').length;
  const numbers = [
    held === after.length ? `all ${goals(held)} hold` : `${held} of ${goals(after.length)} hold`,
    metNow > 0 && `${metNow} that ${metNow === 1 ? 'was' : 'were'} broken before ${metNow === 1 ? 'is' : 'are'} met`,
    asBefore > 0 && `${asBefore} ${asBefore === 1 ? 'is' : 'are'} broken as before`,
  ];
  const besides = stands.besides.map((e) => eventWords(design, e)).join('; ');
  return (
    <details className="goals-now" aria-label="Goals after this">
      <summary className={broken.length > 0 ? 'alarm' : 'quiet'}>
        Once this has settled, {numbers.filter(Boolean).join('; ')}.
      </summary>
      {broken.map(({ goal, reason }) => (
        <p key={goal.id} className="sentence wrong">
          {goalSentence(stands.design, goal)} {reason}
        </p>
      ))}
      {broken.length === 0 && <p className="quiet">What has happened so far breaks no goal.</p>}
      {besides !== '' && <p className="quiet">Trees can be foretold without this only: {besides}.</p>}
    </details>
  );
}
