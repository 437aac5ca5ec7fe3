import type { ReactNode } from 'react';
import type { TermId } from '../../core/messages';
import { Label } from './Term';
import styles from './LedgerTable.module.css';

/** Candidates as rows, the parts of their vectors as columns; the part that decided is marked, losing ones are struck. */
export interface LedgerRow {
  readonly key: string;
  readonly label: ReactNode;
  readonly wins: boolean;
  /** On hover. */
  readonly note?: string;
  readonly cells: readonly {
    readonly text: string;
    /** The whole of what is cut short. */
    readonly full?: string;
    /** Its octets, where they are worth seeing. */
    readonly hex?: string;
    readonly mark: 'decided' | 'struck' | null;
  }[];
}

/** Heads too short to be the term itself. */
const COLUMN_TERMS: Readonly<Record<string, TermId | undefined>> = {
  root: 'root',
  cost: 'rootPathCost',
  inside: 'rootPathCost',
  outside: 'rootPathCost',
  bridge: 'bridgeId',
  from: 'bridgeId',
  port: 'portId',
  'its port': 'portId',
  priority: 'bridgePriority',
  regional: 'regionalRoot',
};

interface Props {
  caption?: string;
  /** The first one is that of the labels. */
  heads: readonly string[];
  rows: readonly LedgerRow[];
  /** More columns than fit in the usual size. */
  wide: boolean;
}

export function LedgerTable({ caption, heads, rows, wide }: Props) {
  return (
    <table className={wide ? `ledger ${styles.ledgerWide}` : 'ledger'}>
      {caption && <caption>{caption}</caption>}
      <thead>
        <tr>
          {heads.map((h) => (
            <th key={h} scope="col">
              {h ? <Label text={h} id={COLUMN_TERMS[h]} /> : <span className="visually-hidden">whose</span>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.key} className={row.wins ? 'wins' : 'loses'} title={row.note}>
            <th scope="row">{row.label}</th>
            {row.cells.map((cell, i) => (
              <td
                key={i}
                className={cell.mark ?? undefined}
                title={[cell.full, cell.hex && `hexadecimal ${cell.hex}`].filter(Boolean).join(', ') || undefined}
              >
                {cell.text}
                {cell.mark === 'decided' && <span className="visually-hidden"> (decided here)</span>}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
