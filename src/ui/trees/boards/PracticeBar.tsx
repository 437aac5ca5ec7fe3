'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { z } from 'zod';
import { differenceBetween } from '../../../core/design';
import { count } from '../../../core/standard';
import type { Marks } from '../../../core/trees';
import { PRACTICE_KINDS, PRACTICE_SIZE, PRACTICE_WORDS, practiceNetwork } from '../../../demo/practice';
import type { PracticeKind } from '../../../demo/practice';
import { readStored, writeStored } from '../../session/browser-store';
import { useBench, useSession } from '../../session/context';
import styles from './PracticeBar.module.css';

const KEY = 'knot-path:practice';
const scoreSchema = z.object({ sheets: z.number(), right: z.number(), wrong: z.number() });
export type Score = z.infer<typeof scoreSchema>;
const NO_SCORE: Score = { sheets: 0, right: 0, wrong: 0 };

/** What has been answered so far in this browser. */
export function usePracticeScore(): { score: Score; mark: (marks: Marks) => void; clear: () => void } {
  const [score, setScore] = useState(
    () => readStored('local', KEY, (text) => scoreSchema.safeParse(JSON.parse(text)).data ?? null) ?? NO_SCORE,
  );
  const keep = (next: Score) => {
    setScore(next);
    writeStored('local', KEY, JSON.stringify(next));
  };
  return {
    score,
    mark: ({ right, wrong }) =>
      keep({ sheets: score.sheets + 1, right: score.right + right.size, wrong: score.wrong + wrong.size }),
    clear: () => keep(NO_SCORE),
  };
}

interface Props {
  readonly score: Score;
  readonly onClear: () => void;
  /** Another network is there: answers and marks go. */
  readonly onNext: () => void;
}

/** Exercises without end: how large the next network is, what decides in it, and the score so far. */
export function PracticeBar({ score, onClear, onNext }: Props) {
  const { edit, setView } = useBench();
  const design = useSession((s) => s.design);
  const [switches, setSwitches] = useState(design.switches.length);
  const [kind, setKind] = useState<PracticeKind>('plain');
  const next = () => {
    const made = practiceNetwork({ switches, kind, seed: Math.floor(Math.random() * 2 ** 31) });
    const edits = differenceBetween(design, { ...made, name: design.name });
    const label = `Another network: ${count(switches, 'switch', 'switches')}, ${PRACTICE_WORDS[kind]}`;
    if (!edit(label, edits)) return;
    setView({ tree: null, selection: [] });
    onNext();
  };
  const answers = score.right + score.wrong;
  return (
    <section className={styles.bar} aria-label="Practice">
      <label>
        switches{' '}
        <select value={switches} onChange={(e) => setSwitches(Number(e.target.value))}>
          {Array.from({ length: PRACTICE_SIZE.max - PRACTICE_SIZE.min + 1 }, (_, i) => i + PRACTICE_SIZE.min).map(
            (n) => (
              <option key={n}>{n}</option>
            ),
          )}
        </select>
      </label>
      <label>
        with{' '}
        <select value={kind} onChange={(e) => setKind(e.target.value as PracticeKind)}>
          {PRACTICE_KINDS.map((k) => (
            <option key={k} value={k}>
              {PRACTICE_WORDS[k]}
            </option>
          ))}
        </select>
      </label>
      <Button onClick={next}>Next network</Button>
      {score.sheets > 0 && (
        <span className="quiet" role="status" aria-label="Score">
          {count(score.sheets, 'sheet')} checked, {score.right} of {count(answers, 'answer')} right{' '}
          <button className="plain" onClick={onClear}>
            begin again
          </button>
        </span>
      )}
    </section>
  );
}
