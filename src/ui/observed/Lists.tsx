'use client';
import type { ObservedNetwork } from '../../core/design';
import type { Reading } from './reading';
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
