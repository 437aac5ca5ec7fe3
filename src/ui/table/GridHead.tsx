import type { Table } from '../../core/editing/tables';
import type { Sorting } from './order';
import { columnAt } from './columns';
import styles from './GridHead.module.css';

interface Props {
  readonly table: Table;
  readonly sorting: Sorting | null;
  readonly onSort: (sorting: Sorting | null) => void;
  /** Widths of the columns, as the rows below have them. */
  readonly template: string;
}

const ORDER = { none: '', ascending: ' ↑', descending: ' ↓' } as const;

/** The headings of a table; a click sorts up, down, and not at all. */
export function GridHead({ table, sorting, onSort, template }: Props) {
  return (
    <div className={styles.gridHead} role="row" aria-rowindex={1} style={{ gridTemplateColumns: template }}>
      <span role="columnheader" className="row-number">
        <span className="visually-hidden">Row</span>
      </span>
      {table.columns.map((column, c) => {
        const own = sorting?.column === column.id ? sorting : null;
        const sorted = !own ? 'none' : own.down ? 'descending' : 'ascending';
        const next = !own ? { column: column.id, down: false } : own.down ? null : { column: column.id, down: true };
        return (
          <span
            key={column.id}
            role="columnheader"
            aria-colindex={c + 1}
            aria-sort={sorted}
            className={[column.numeric && 'is-number', column.stays && 'stays'].filter(Boolean).join(' ') || undefined}
            style={column.stays ? { left: columnAt(table, c).left } : undefined}
          >
            <button className="plain" tabIndex={-1} onClick={() => onSort(next)}>
              {column.title}
              <span aria-hidden="true">{ORDER[sorted]}</span>
            </button>
          </span>
        );
      })}
    </div>
  );
}
