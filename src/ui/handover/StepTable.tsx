'use client';
import { atWords, lineWords, longestOutage, movesWords, outageWords } from '../../core/plan';
import type { PlanStep } from '../../core/plan';
import { SCALE, onScale } from './words';
import styles from './HandoverStage.module.css';

/** Per cent of the column that the scale takes; the rest is for the figure behind the bar. */
const WIDE = 74;

interface Props {
  readonly steps: readonly PlanStep[];
  readonly picked: number;
  readonly done: ReadonlySet<string>;
  readonly onPick: (step: number) => void;
  readonly onMove: (step: number, by: -1 | 1) => void;
  readonly onSplit: (step: number) => void;
  readonly onJoin: (step: number) => void;
  readonly pinned: ReadonlySet<string>;
  readonly onPin: (id: string) => void;
}

/** The steps in their order, with the longest outage of each on one scale. */
export function StepTable({ steps, picked, done, onPick, pinned, ...tools }: Props) {
  return (
    <section className={styles.steps} aria-label="Steps of the plan">
      <table aria-label="Steps in their order">
        <thead>
          <tr>
            <th scope="col">step</th>
            <th scope="col">at</th>
            <th scope="col">set</th>
            <th scope="col">moves</th>
            <th scope="col">see before going on</th>
            <th scope="col" className={styles.scaleHead}>
              longest outage
              {SCALE.map(({ seconds, name }) => (
                <span key={name} style={{ left: `${onScale(seconds) * WIDE}%` }}>
                  {name}
                </span>
              ))}
            </th>
            <th scope="col">arrange</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step, i) => (
            <tr
              key={step.work.id}
              aria-selected={i === picked}
              data-done={done.has(step.work.id) || undefined}
              onClick={() => onPick(i)}
            >
              <td className="mono">{done.has(step.work.id) ? '✓' : i + 1}</td>
              <th scope="row">
                <button className="plain" onClick={() => onPick(i)}>
                  {atWords(step)}
                </button>
                {pinned.has(step.work.id) && <span className="quiet"> pinned</span>}
              </th>
              <td>
                {step.work.kind === 'temporary' && <em className="quiet">temporary: </em>}
                <Short lines={step.set.map(lineWords)} />
              </td>
              <td>{movesWords(step)}</td>
              <td>
                <Short lines={step.see} />
              </td>
              <td>
                <Bar step={step} />
              </td>
              <td className={styles.tools}>
                {i === picked && (
                  <Tools {...tools} step={i} of={steps.length} work={step} isPinned={pinned.has(step.work.id)} />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** The first of some lines, and how many more. */
function Short({ lines }: { lines: readonly string[] }) {
  const [first = ''] = lines;
  return (
    <span title={lines.join('\n')}>
      {first}
      {lines.length > 1 && <span className="quiet"> and {lines.length - 1} more</span>}
    </span>
  );
}

function Bar({ step }: { step: PlanStep }) {
  const seconds = longestOutage(step);
  const at = onScale(seconds) * WIDE;
  return (
    <span className={styles.scale} data-long={seconds >= 1 || undefined} data-none={seconds === 0 || undefined}>
      <i style={seconds > 0 ? { width: `${at}%` } : undefined} />
      <b style={{ left: `${at}%` }}>{seconds > 0 ? outageWords(step) : ''}</b>
    </span>
  );
}

interface ToolsProps extends Pick<Props, 'onMove' | 'onSplit' | 'onJoin' | 'onPin'> {
  readonly isPinned: boolean;
  readonly step: number;
  readonly of: number;
  readonly work: PlanStep;
}

/** Moves a step, splits it in its settings, joins it with the next, pins it where it is. */
function Tools({ step, of, work, isPinned, onMove, onSplit, onJoin, onPin }: ToolsProps) {
  const press = (act: () => void) => (event: React.MouseEvent) => {
    event.stopPropagation();
    act();
  };
  return (
    <>
      <button
        className="tool"
        disabled={step === 0}
        title="Earlier (Alt ↑)"
        aria-label="Earlier"
        onClick={press(() => onMove(step, -1))}
      >
        ↑
      </button>
      <button
        className="tool"
        disabled={step === of - 1}
        title="Later (Alt ↓)"
        aria-label="Later"
        onClick={press(() => onMove(step, 1))}
      >
        ↓
      </button>
      <button
        className="tool"
        disabled={work.set.length < 2}
        title="One step for each setting"
        onClick={press(() => onSplit(step))}
      >
        Split
      </button>
      <button
        className="tool"
        disabled={step === of - 1}
        title="In one go with the next step, at the same device"
        onClick={press(() => onJoin(step))}
      >
        Join
      </button>
      <button
        className="tool"
        aria-pressed={isPinned}
        title="It stays in its place when the order is searched again"
        onClick={press(() => onPin(work.work.id))}
      >
        {isPinned ? 'Unpin' : 'Pin'}
      </button>
    </>
  );
}
