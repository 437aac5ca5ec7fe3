'use client';
import { useMemo, useState } from 'react';
import type { ObservedChange } from '../../core/observe';
import { EventStrip } from './EventStrip';
import strip from './EventStrip.module.css';
import type { Reading } from './reading';
import styles from './ObservedStage.module.css';

const clock = (at: number): string => new Date(at).toLocaleTimeString('en-GB');

/** Rows of the strip by what changes. */
const ROW: Readonly<Record<ObservedChange['kind'], string>> = {
  device: 'devices',
  link: 'links',
  root: 'roots',
  role: 'roles',
  bundle: 'bundles',
};

/** Changes of a watch: on a strip from its beginning on, and as a list, the newest first. */
export function Changes({ moments, watch, watched }: Pick<Reading, 'moments' | 'watch' | 'watched'>) {
  const [chosen, setChosen] = useState<number | null>(null);
  const from = watched?.from ?? moments.at(-1)?.at ?? 0;
  const events = useMemo(
    () =>
      [...moments].reverse().flatMap((m) =>
        m.changes.map(({ kind, alarm, text }) => ({
          at: (m.at - from) / 1000,
          clock: clock(m.at),
          alarm,
          row: ROW[kind],
          text,
        })),
      ),
    [moments, from],
  );
  // The newest reading first, and in it what weighs most.
  const newest = events.map((e, i) => ({ e, i })).sort((a, b) => b.e.at - a.e.at || a.i - b.i);
  if (!watched) return <p className={styles.pad}>No watch is running.</p>;
  const seconds = Math.max(1, (watched.to - watched.from) / 1000);
  return (
    <div className={styles.scroll}>
      <p className="quiet">
        {watch === null ? 'Watched' : 'Watching'} since {clock(watched.from)}
        {events.length === 0 ? '; nothing has changed.' : ''}
      </p>
      <EventStrip {...{ events, seconds, chosen }} onChoose={setChosen} />
      <ol className={strip.events} aria-live="polite">
        {newest.map(({ e, i }) => (
          <li key={`${e.at} ${e.text}`}>
            <button className="plain" aria-pressed={i === chosen} onClick={() => setChosen(i)}>
              <span className="mono quiet">{e.clock}</span>{' '}
              <span className={e.alarm ? 'alarm' : undefined}>{e.text}</span>
            </button>
          </li>
        ))}
      </ol>
    </div>
  );
}
