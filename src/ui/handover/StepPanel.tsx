'use client';
import Button from '@mui/material/Button';
import { lineWords, movesWords, outageLines, outageWords, wayBack } from '../../core/plan';
import type { PlanStep } from '../../core/plan';
import { switchById } from '../../core/design';
import { portChanges } from './words';
import styles from './HandoverStage.module.css';

interface Props {
  readonly step: PlanStep;
  readonly number: number;
  readonly ticked: ReadonlySet<number>;
  readonly onTick: (line: number) => void;
  readonly onDone: () => void;
  readonly onPause: (seconds: number) => void;
  readonly isDone: boolean;
}

/** One step: what is set, what moves, what to see, what to do if it is not so, and the way back. */
export function StepPanel({ step, number, ticked, onTick, onDone, onPause, isDone }: Props) {
  const outages = outageLines(step);
  const consoles = step.consoles.map((id) => switchById(step.before, id)?.name ?? id);
  return (
    <>
      <div className={styles.panel}>
        {consoles.length > 0 && (
          <p className="alarm">{consoles.join(', ')} cannot be reached for this step: a console is needed.</p>
        )}
        <dl className={styles.fields}>
          <div>
            <dt>set</dt>
            {step.set.map((l) => (
              <dd key={lineWords(l)}>
                {l.what}
                <br />
                <span className={styles.old}>{l.from}</span> <strong className="mono">{l.to}</strong>
              </dd>
            ))}
          </div>
          <div>
            <dt>what moves</dt>
            {portChanges(step).map((line) => (
              <dd key={line}>{line}</dd>
            ))}
            {step.moved.length === 0 && <dd>{movesWords(step)}</dd>}
          </div>
          <div>
            <dt>outage, rehearsed</dt>
            <dd className={step.measured.looped === 0 ? undefined : 'alarm'}>{outageWords(step)}</dd>
            {outages.map((line) => (
              <dd key={line} className="quiet">
                {line}
              </dd>
            ))}
          </div>
          <ToSee {...{ step, ticked, onTick }} />
          <div>
            <dt>if it is not so</dt>
            <dd>{step.otherwise}</dd>
          </div>
          <div>
            <dt>the way back</dt>
            {wayBack(step).map((line) => (
              <dd key={line} className="mono">
                {line}
              </dd>
            ))}
          </div>
        </dl>
      </div>
      <Actions {...{ step, number, onDone, onPause, isDone }} />
    </>
  );
}

/** What to see before going on, to be ticked. */
function ToSee({ step, ticked, onTick }: Pick<Props, 'step' | 'ticked' | 'onTick'>) {
  return (
    <div>
      <dt>before going on, see</dt>
      {step.see.map((line, i) => (
        <dd key={line}>
          <label className={styles.check}>
            <input type="checkbox" checked={ticked.has(i)} onChange={() => onTick(i)} /> {line}
          </label>
        </dd>
      ))}
    </div>
  );
}

type ActionsProps = Pick<Props, 'step' | 'number' | 'onDone' | 'onPause' | 'isDone'>;

/** Done, and how long to wait before the next step. */
function Actions({ step, number, onDone, onPause, isDone }: ActionsProps) {
  return (
    <div className={styles.actions}>
      <Button variant="contained" onClick={onDone}>
        {isDone ? `Step ${number} is not done` : 'Done, next step'}
      </Button>
      <label className="quiet">
        then wait{' '}
        <input
          type="number"
          min={0}
          max={120}
          value={Math.round((step.work.pause ?? 0) / 60)}
          onChange={(e) => onPause(60 * Math.max(0, Math.min(120, Number(e.target.value) || 0)))}
        />{' '}
        min
      </label>
    </div>
  );
}
