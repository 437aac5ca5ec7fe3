'use client';
import type { ObservedNetwork } from '../../core/design';
import { grouped } from '../../core/standard';
import type { Moment, Reading } from './reading';
import styles from './ObservedStage.module.css';

const KIND = {
  deviates: 'deviates',
  contradicts: 'contradiction',
  inferred: 'inferred',
  incomplete: 'incomplete',
} as const;

/** What is not certain about a reading, the gravest first: where devices deviate from the standard. */
export function Questions({ network, faults }: { network: ObservedNetwork; faults: readonly string[] }) {
  const { questions } = network;
  if (questions.length + faults.length === 0)
    return <p className={styles.pad}>Nothing is open: all that was read fits together.</p>;
  return (
    <ul className={styles.list}>
      {faults.map((text) => (
        <li key={text}>
          <span className={styles.deviates}>not read</span> <span>{text}</span>
        </li>
      ))}
      {questions.map((q) => (
        <li key={q.text}>
          <span className={q.kind === 'deviates' ? styles.deviates : styles.kind}>{KIND[q.kind]}</span>{' '}
          <span>{q.text}</span>
        </li>
      ))}
    </ul>
  );
}

/** The files of a reading, what each was taken for, and why one was not read. */
export function Sources({ files, network }: Pick<Reading, 'files'> & { network: ObservedNetwork | null }) {
  return (
    <div className={styles.scroll}>
      {files.length > 0 && (
        <table className={styles.table}>
          <tbody>
            {files.map((f) => (
              <tr key={f.path}>
                <th scope="row">{f.path}</th>
                <td>{f.kind}</td>
                <td className="alarm">{f.fault}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {network && files.length === 0 && (
        <table className={styles.table}>
          <thead>
            <tr>
              <th>Switch</th>
              <th>Read from</th>
              <th>Address of the bridge</th>
              <th>Ports</th>
            </tr>
          </thead>
          <tbody>
            {network.switches.map((s) => (
              <tr key={s.name}>
                <th scope="row">{s.name}</th>
                <td className="mono">{s.source.join(', ') || 'its neighbours only'}</td>
                <td className="mono">{s.mac ?? '–'}</td>
                <td className="number">{s.ports.length}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

const clock = (at: number): string => new Date(at).toLocaleTimeString('en-GB');

/** Changes of a watch, the newest first. */
export function Changes({ moments, watch }: { moments: readonly Moment[]; watch: number | null }) {
  if (moments.length === 0)
    return (
      <p className={styles.pad}>
        {watch === null ? 'No watch is running.' : 'Nothing has changed since the watch began.'}
      </p>
    );
  return (
    <ul className={styles.list} aria-live="polite">
      {moments.flatMap((m) =>
        m.changes.map((c) => (
          <li key={`${m.at} ${c.text}`}>
            <span className="mono quiet">{clock(m.at)}</span>{' '}
            <span className={c.alarm ? 'alarm' : undefined}>{c.text}</span>
          </li>
        )),
      )}
    </ul>
  );
}

/** What a capture shows over time. */
export function OverTime({ reading }: { reading: Reading }) {
  const MOST = 500;
  return (
    <div className={styles.scroll}>
      {reading.captures.map((c) => (
        <section key={c.path} aria-label={c.path}>
          <h3>{c.path}</h3>
          <p className="quiet">
            {grouped(c.frames)} frames in {c.seconds.toFixed(1)} s
            {c.lines.length + c.left > MOST && `; the first ${MOST} of ${grouped(c.lines.length + c.left)} events`}
          </p>
          {c.lines.length === 0 && <p>Nothing changes: every port says the same from the first frame to the last.</p>}
          <Strip lines={c.lines} seconds={c.seconds} />
          <ul className={styles.list}>
            {c.lines.slice(0, MOST).map((l, i) => (
              <li key={i}>
                <span className="mono quiet">{l.at.toFixed(3)} s</span>{' '}
                <span className={l.alarm ? 'alarm' : undefined}>{l.text}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** Where in a capture something happens: a tick each, tall for a root, a role or a silence. */
function Strip({ lines, seconds }: { lines: Reading['captures'][number]['lines']; seconds: number }) {
  if (lines.length === 0 || seconds <= 0) return null;
  const WIDTH = 1000;
  return (
    <svg
      className={styles.strip}
      viewBox={`0 0 ${WIDTH} 34`}
      preserveAspectRatio="none"
      role="img"
      aria-label="Events over time"
    >
      <line x1="0" x2={WIDTH} y1="33" y2="33" />
      {lines.map((l, i) => (
        <line
          key={i}
          x1={(l.at / seconds) * WIDTH}
          x2={(l.at / seconds) * WIDTH}
          y1={l.alarm ? 4 : 18}
          y2="33"
          className={l.alarm ? styles.tall : undefined}
        />
      ))}
    </svg>
  );
}
