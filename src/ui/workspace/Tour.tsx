'use client';
import { useEffect, useState } from 'react';
import { readStored, writeStored } from '../session/browser-store';
import type { StageId } from '../session/stages';
import { tourAfter, tourSteps } from '../session/tour';
import styles from './Tour.module.css';

const KEY = 'knot-path:tour';

/**
 * What a stage is for and where its tools are, when it is opened for the first time: one line at a time, below the page, so
 * that it covers nothing and blocks nothing.
 */
export function Tour({ stage }: { stage: StageId }) {
  const [done, setDone] = useState<string | null>(null);
  const [step, setStep] = useState(0);
  useEffect(() => setDone(readStored('local', KEY, (text) => text) ?? ''), []);
  useEffect(() => setStep(0), [stage]);
  if (done === null) return null;
  const steps = tourSteps(done, stage);
  const text = steps[step];
  if (text === undefined) return null;
  const close = (what: StageId | 'off') => {
    const next = tourAfter(done, what);
    writeStored('local', KEY, next);
    setDone(next);
  };
  return (
    <aside className={styles.tour} aria-label="Tour">
      <span className="quiet mono">
        {step + 1} / {steps.length}
      </span>
      <span className="grow">{text}</span>
      <button className="tool" onClick={() => (step + 1 < steps.length ? setStep(step + 1) : close(stage))}>
        {step + 1 < steps.length ? 'Next' : 'Done'}
      </button>
      <button className="plain quiet" onClick={() => close('off')}>
        No tour
      </button>
    </aside>
  );
}
