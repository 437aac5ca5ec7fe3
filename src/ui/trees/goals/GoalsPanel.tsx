'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { goalSentence } from '../../../core/goals';
import type { CheckedGoal } from '../../../core/goals';
import { isAvailability } from '../../../core/design';
import type { Goal } from '../../../core/design';
import { useBench, useSession } from '../../session/context';
import { GoalForm } from './GoalForm';
import { Proposing } from './Proposing';
import styles from './GoalsPanel.module.css';

const MARK = { met: '✓', broken: '✗', void: '○' } as const;

const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

/** `2 of 7 broken`, `all met`, with how many are not known yet. */
function stateWords(checked: readonly CheckedGoal[]): string {
  const broken = checked.filter((c) => c.state === 'broken').length;
  const pending = checked.filter((c) => c.pending).length;
  const known = checked.length - pending;
  const words = broken > 0 ? `${broken} of ${known} broken` : known > 0 ? 'all met' : '';
  return [words, pending > 0 && `${pending} not known yet`].filter(Boolean).join(', ');
}

/** What the engineer wants, each met, broken or void at this moment, and proposals that would meet it. */
export function GoalsPanel({ checked }: { checked: readonly CheckedGoal[] }) {
  const { edit, draft } = useBench();
  const design = useSession((s) => s.design);
  const [adding, setAdding] = useState(false);
  const broken = checked.filter((c) => c.state === 'broken').length;
  const add = (goal: Goal) => {
    if (edit(`Goal: ${goalSentence(design, goal)}`, [{ type: 'add', kind: 'goal', value: goal }])) setAdding(false);
  };
  return (
    <aside className="panel goals" aria-label="Goals">
      <h2>Goals</h2>
      <p className="quiet">
        {checked.length === 0
          ? 'Set goals, and Knot Path checks them at every change: which switch is root, which end is blocked, which link carries which VLANs, how many hops lie between two places, what stays connected after any failure.'
          : draft
            ? `With this change previewed: ${stateWords(checked)}.`
            : sentence(stateWords(checked))}
      </p>
      <ul className={styles.goalList}>
        {checked.map((c) => (
          <GoalRow key={c.goal.id} checked={c} />
        ))}
      </ul>
      {adding || checked.length === 0 ? (
        <GoalForm onAdd={add} onCancel={checked.length === 0 ? null : () => setAdding(false)} />
      ) : (
        <div className="buttons">
          <Button onClick={() => setAdding(true)}>Add a goal</Button>
        </div>
      )}
      {(broken > 0 || draft) && <Proposing />}
    </aside>
  );
}

function GoalRow({ checked: { goal, state, reason, trees, pending } }: { checked: CheckedGoal }) {
  const { edit, setView, select, go } = useBench();
  const design = useSession((s) => s.design);
  const show = () => {
    if (trees[0]) setView({ tree: trees[0] });
    if (goal.type === 'cut' || goal.type === 'carries')
      select(
        design.bundles.some((b) => b.id === goal.port)
          ? { kind: 'bundle', id: goal.port }
          : { kind: 'port', id: goal.port },
      );
    else if (goal.type === 'root') select({ kind: 'switch', id: goal.switch });
    else if (goal.type === 'path') {
      const ref = (p: typeof goal.from) =>
        'host' in p ? { kind: 'host' as const, id: p.host } : { kind: 'switch' as const, id: p.switch };
      setView({ selection: [ref(goal.from), ref(goal.to)], path: true });
    }
    setView({ board: 'chart', panel: 'goals' });
  };
  return (
    <li className={`goal goal-${pending ? 'pending' : state}`}>
      <span className={styles.goalMark} aria-hidden="true">
        {MARK[state]}
      </span>
      <div>
        <button className="plain" onClick={show} title="Show it on the chart">
          {goalSentence(design, goal)}
        </button>
        <span className="visually-hidden"> {state}. </span>
        {reason && <div className={`small ${state === 'broken' ? 'alarm' : 'quiet'}`}>{reason}</div>}
        {state === 'broken' && isAvailability(goal) && (
          <button className="plain quiet small" onClick={() => go('review')}>
            failures and missing cables
          </button>
        )}
      </div>
      <button
        className="plain quiet remove"
        aria-label={`Delete the goal: ${goalSentence(design, goal)}`}
        onClick={() => edit('Delete a goal', [{ type: 'remove', kind: 'goal', id: goal.id }])}
      >
        ×
      </button>
    </li>
  );
}
