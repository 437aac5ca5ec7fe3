'use client';
import { memo, useEffect, useMemo, useRef } from 'react';
import type { Design, Script } from '../../core/design';
import { storyOf } from '../../core/trace';
import type { Line, Trace } from '../../core/trace';
import { GoalsNow } from './GoalsNow';
import { Now } from './Now';
import { SECOND, more } from '../../core/standard';
import styles from './Story.module.css';

/** What happened, in words; each line leads to its moment. */
export function Story({
  design,
  script,
  trace,
  at,
  onAt,
}: {
  design: Design;
  script: Script;
  trace: Trace;
  at: number;
  onAt: (at: number) => void;
}) {
  const lines = useMemo(() => storyOf(design, trace), [design, trace]);
  const shown = useMemo(() => lines.slice(0, 400), [lines]);
  const last = shown.findLastIndex((l) => l.at <= at);
  return (
    <section className={styles.storyPanel} aria-label="What happened">
      {/* Scrolled by key where much is wrong at once. */}
      <div className={styles.storyNow} role="group" aria-label="State" tabIndex={0}>
        <h2>What happened</h2>
        <Now design={design} trace={trace} at={at} />
        <GoalsNow script={script} trace={trace} at={at} />
        {trace.unkept > 0 && (
          <p className="quiet small">
            The first {trace.frames.count} control frames are kept; {trace.unkept} more were sent and only counted.
          </p>
        )}
        {trace.sentence !== '' && <p className="sentence wrong">{trace.sentence}</p>}
        {lines.length === 0 && <p className="quiet">No change: the network is stable.</p>}
      </div>
      <div className={styles.storyLines}>
        <Lines lines={shown} last={last} onAt={onAt} />
        {lines.length > shown.length && <p className="quiet">And {more(lines.length - shown.length, 'line')}.</p>}
      </div>
    </section>
  );
}

/** Drawn again only when another line is the last one. */
const Lines = memo(function Lines({
  lines,
  last,
  onAt,
}: {
  lines: readonly Line[];
  last: number;
  onAt: (at: number) => void;
}) {
  const list = useRef<HTMLOListElement>(null);
  // While time passes, what happens is in sight: of what happened at one moment, the first line.
  useEffect(() => {
    const first = lines.findIndex((l) => l.at === lines[last]?.at);
    for (const i of [last, first]) list.current?.children[i]?.scrollIntoView({ block: 'nearest' });
  }, [lines, last]);
  return (
    <ol className="story" ref={list}>
      {lines.map((line, i) => (
        <li key={i} className={i === last ? styles.isNow : undefined}>
          <button className="plain" onClick={() => onAt(line.at)}>
            <span className="mono quiet">{(line.at / SECOND).toFixed(3)}</span>
            <span
              className={line.kind === 'event' || line.kind === 'loop' || line.kind === 'guard' ? 'alarm' : undefined}
            >
              {line.text}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
});
