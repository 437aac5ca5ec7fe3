'use client';
import { useMemo, useState } from 'react';
import type { CaptureLine } from '../../core/observe';
import { grouped } from '../../core/standard';
import type { CaptureRead } from '../../workers/observe';
import { FrameFields } from '../controls/FrameFields';
import { EventStrip } from './EventStrip';
import strip from './EventStrip.module.css';
import styles from './ObservedStage.module.css';

/** Events that are listed. */
const MOST = 500;

/** Rows of the strip by what happens. */
const ROW: Readonly<Record<CaptureLine['kind'], string>> = {
  root: 'root',
  role: 'role',
  change: 'topology change',
  notified: 'topology change',
  silent: 'silence',
  lacp: 'LACP',
};

/** What captures show over time: a strip, its events, and the frame that says the one that is looked at. */
export function OverTime({ captures }: { captures: readonly CaptureRead[] }) {
  return (
    <div className={styles.scroll}>
      {captures.map((c) => (
        <OneCapture key={c.path} capture={c} />
      ))}
    </div>
  );
}

function OneCapture({ capture }: { capture: CaptureRead }) {
  const { path, frames, seconds, lines, left } = capture;
  const events = useMemo(() => lines.map((l) => ({ ...l, row: ROW[l.kind] })), [lines]);
  const [chosen, setChosen] = useState<number | null>(lines.length > 0 ? 0 : null);
  // A place on the strip brings its event into sight; a click in the list is there already.
  const [moved, setMoved] = useState(false);
  const choose = (index: number, far: boolean) => {
    setMoved(far);
    setChosen(index);
  };
  const frame = chosen === null ? null : (lines[chosen]?.frame ?? null);
  return (
    <section aria-label={path}>
      <h3>{path}</h3>
      <p className="quiet">
        {grouped(frames)} frames in {seconds.toFixed(1)} s
        {lines.length + left > MOST && `; the first ${MOST} of ${grouped(lines.length + left)} events are listed`}
      </p>
      {lines.length === 0 && <p>Nothing changes: every port says the same from the first frame to the last.</p>}
      <EventStrip
        {...{ events, seconds, chosen }}
        lanes={capture.lanes}
        lanesLeft={capture.lanesLeft}
        onChoose={(i) => choose(i, true)}
      />
      <ol className={strip.events}>
        {lines.slice(0, MOST).map((l, i) => (
          <li key={i} ref={i === chosen && moved ? (li) => li?.scrollIntoView({ block: 'nearest' }) : null}>
            <button className="plain" aria-pressed={i === chosen} onClick={() => choose(i, false)}>
              <span className="mono quiet">{l.at.toFixed(3)} s</span>{' '}
              <span className={l.alarm ? 'alarm' : undefined}>{l.text}</span>
            </button>
            {i === chosen && frame && (
              <div className={strip.frame} role="region" aria-label="The frame that says it">
                <FrameFields octets={frame} />
              </div>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
