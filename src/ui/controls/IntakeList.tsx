'use client';
import { FILE_KINDS } from '../../core/messages';
import type { TakenFile } from '../../core/formats';
import { count } from '../../core/standard';
import { PreviewTable } from '../table/PreviewTable';
import styles from './IntakeList.module.css';

const MOST_FAULTS = 200;

/** What each file brings, and which of its rows stay out and why. Refused rows come first. */
export function IntakeList({ files }: { files: readonly TakenFile[] }) {
  return (
    <div className="intake">
      {files.map((f) => (
        <section key={f.file} aria-label={f.file}>
          <h3>
            {f.file}{' '}
            <span className="quiet">
              {FILE_KINDS[f.kind]}: {f.comes} {/^(1|nothing)( |$)/.test(f.comes) ? 'comes' : 'come'} in
            </span>
            {f.faults.length > 0 && <span className="alarm">, {count(f.faults.length, 'is', 'are')} refused</span>}
          </h3>
          {f.faults.length > 0 && (
            <ul className={styles.faultList} aria-label={`Refused in ${f.file}`}>
              {f.faults.slice(0, MOST_FAULTS).map((fault, i) => (
                <li key={i}>
                  {fault.row !== null && <b>row {fault.row}</b>}
                  {fault.column && <b>{fault.row === null ? fault.column : `, ${fault.column}`}</b>}
                  {(fault.row !== null || fault.column) && ': '}
                  {fault.sentence}
                </li>
              ))}
            </ul>
          )}
          {f.rows.length > 0 && <RowsPreview file={f} />}
        </section>
      ))}
    </div>
  );
}

function RowsPreview({ file: { columns, rows } }: { file: TakenFile }) {
  const sorted = [...rows.filter((r) => r.fault), ...rows.filter((r) => !r.fault)];
  return (
    <PreviewTable
      label="Rows of the file"
      columns={columns}
      rows={sorted}
      line={({ row, cells, fault }) => ({ number: row, cells, fault })}
    />
  );
}
