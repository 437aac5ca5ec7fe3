'use client';
import type { ReactNode } from 'react';
import { more } from '../../core/standard';
import styles from './PreviewTable.module.css';

const MOST_ROWS = 200;

interface Line {
  readonly number: ReactNode;
  readonly cells: readonly ReactNode[];
  /** What is wrong with the row. */
  readonly fault?: string | null;
}

interface Props<Row> {
  /** What the rows are, for those who do not see them. */
  readonly label: string;
  readonly columns: readonly string[];
  readonly rows: readonly Row[];
  readonly line: (row: Row, index: number) => Line;
}

/** Rows that are to come in, the first of them: refused ones struck, with the reason when pointed at. */
export function PreviewTable<Row>({ label, columns, rows, line }: Props<Row>) {
  return (
    <div className={styles.rows} tabIndex={0} role="region" aria-label={label}>
      <table>
        <thead>
          <tr>
            <th className="number">Row</th>
            {columns.map((c) => (
              <th key={c}>{c}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map((row, i) => {
            const { number, cells, fault } = line(row, i);
            return (
              <tr key={i} className={fault ? styles.isRefused : undefined} title={fault ?? undefined}>
                <td className="number mono">{number}</td>
                {cells.map((cell, c) => (
                  <td key={c} className="mono">
                    {cell}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      {rows.length > MOST_ROWS && <p className="quiet small">and {more(rows.length - MOST_ROWS, 'row')}</p>}
    </div>
  );
}
