'use client';
import { useDeferredValue, useMemo } from 'react';
import { checkGoals, goalChange, goalChangeWords, goalSentence } from '../../core/goals';
import type { CheckedGoal } from '../../core/goals';
import type { Script } from '../../core/design';
import { asItStands, carriedOut } from '../../core/trace';
import { eventWords } from '../../core/simulation';
import type { Trace } from '../../core/trace';
import { solveDesign } from '../../core/trees';
import { useSession } from '../session/context';
import styles from './GoalsNow.module.css';

const NONE: readonly CheckedGoal[] = [];

/** Which goals are met once the network has settled as the events up to the moment leave it, and which the events broke. */
export function GoalsNow({ script, trace, at }: { script: Script; trace: Trace; at: number }) {
  const drawn = useSession((s) => s.solved);
  const { design } = drawn.topology;
  const wanted = design.goals.length > 0;
  const events = useMemo(() => (wanted ? carriedOut(trace, Infinity) : []), [trace, wanted]);
  // Pulling the moment over an event does not wait for the trees.
  const upTo = useDeferredValue(events.findLast((e) => e.at <= at)?.at);
  const before = useMemo(() => (wanted ? checkGoals(drawn) : NONE), [drawn, wanted]);
  const stands = useMemo(
    () => (upTo === undefined ? null : asItStands(design, script, trace, upTo)),
    [design, script, trace, upTo],
  );
  const change = useMemo(
    () => stands && goalChange(before, checkGoals(solveDesign(stands.design, drawn))),
    [before, stands, drawn],
  );
  if (!wanted || !stands || !change) return null;
  const extras = stands.extras.map((e) => eventWords(stands.design, e)).join('; ');
  return (
    <details className={styles.goalsNow} aria-label="Goals after this">
      <summary className={change.lost.length > 0 ? 'alarm' : 'quiet'}>
        After convergence, {goalChangeWords(change)}.
      </summary>
      {change.lost.map(({ goal, reason }) => (
        <p key={goal.id} className="sentence wrong">
          {goalSentence(stands.design, goal)} {reason}
        </p>
      ))}
      {change.lost.length === 0 && <p className="quiet">No goal is broken so far.</p>}
      {extras !== '' && <p className="quiet">The prediction leaves this out: {extras}.</p>}
    </details>
  );
}
