'use client';
import type { PointerEvent, RefObject } from 'react';
import type { Column, Table } from '../../core/editing/tables';
import { CellEditor } from './CellEditor';
import type { Shown } from './cells';
import { columnAt } from './columns';
import { inRange, single } from './range';
import type { Editing } from './useEditing';
import type { Chosen } from './useRange';
import styles from './GridRow.module.css';

/** Pixels of a letter, about: a text that is wider than its column has a title. */
const LETTER = 7;

export const cellId = (table: Table, row: number, column: number): string => `cell-${table.id}-${row}-${column}`;

/** Something wrong with a row, in sentences. */
export interface TableMark {
  readonly severity: 'fault' | 'risk';
  readonly sentences: readonly string[];
}

interface RowProps {
  readonly shown: Shown;
  readonly row: number;
  readonly selected: boolean;
  /** What is wrong with the element of the row. */
  readonly mark?: TableMark | undefined;
  readonly start: number;
  readonly template: string;
  readonly chosen: Chosen;
  readonly editing: Editing;
  readonly scroller: RefObject<HTMLDivElement | null>;
}

/** One row of a table; below the last one, a row that makes a new element. */
export function GridRow(props: RowProps) {
  const { shown, row, selected, mark, start, template, chosen } = props;
  const { table, design, ids } = shown;
  const id = ids[row];
  const element = id === undefined ? undefined : table.find(design, id);
  const onNumber = (event: PointerEvent) => {
    if (event.ctrlKey || event.metaKey) return chosen.toggle(row);
    const anchor = { row: event.shiftKey && chosen.range ? chosen.range.anchor.row : row, column: 0 };
    chosen.choose({ anchor, active: { row, column: table.columns.length - 1 } }, true);
  };
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      aria-selected={id !== undefined && selected}
      className={element ? styles.gridRow : `${styles.gridRow} ${styles.isNew}`}
      style={{ gridTemplateColumns: template, transform: `translateY(${start}px)` }}
    >
      <span
        role="rowheader"
        className={mark ? `row-number ${styles[mark.severity]}` : 'row-number'}
        title={mark?.sentences.join('\n')}
        aria-label={mark ? `${row + 1}, ${mark.severity}: ${mark.sentences.join(' ')}` : undefined}
        onPointerDown={onNumber}
      >
        {element ? row + 1 : '+'}
      </span>
      {table.columns.map((column, c) => (
        <GridCell
          key={column.id}
          {...props}
          index={c}
          column={column}
          text={element ? column.text(design, element) : c === 0 ? `new ${table.one}` : ''}
        />
      ))}
    </div>
  );
}

interface CellProps extends RowProps {
  readonly index: number;
  readonly column: Column<never>;
  readonly text: string;
}

const classesOf = (column: Column<never>, active: boolean, text: string): string =>
  [
    column.numeric && 'is-number',
    column.mono && 'mono',
    column.stays && 'stays',
    !column.set && 'is-derived',
    active && 'is-active',
    column.id === 'agree' && text && 'alarm',
  ]
    .filter(Boolean)
    .join(' ');

function GridCell({ shown, row, index, column, text, chosen, editing, scroller }: CellProps) {
  const { range, choose, toggle, dragging } = chosen;
  const cell = { row, column: index };
  const active = range?.active.row === row && range.active.column === index;
  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    if (event.ctrlKey || event.metaKey) return toggle(row);
    dragging.current = true;
    // Before anything is selected: a table without the focus goes to where the selection is.
    scroller.current?.focus({ preventScroll: true });
    choose(event.shiftKey && range ? { anchor: range.anchor, active: cell } : single(cell), true);
  };
  return (
    <span
      id={cellId(shown.table, row, index)}
      role="gridcell"
      aria-colindex={index + 1}
      aria-readonly={!column.set || undefined}
      aria-selected={inRange(range, row, index)}
      className={classesOf(column, active, text)}
      style={column.stays ? { left: columnAt(shown.table, index).left } : undefined}
      title={text.length * LETTER > column.width ? text : undefined}
      onPointerDown={onPointerDown}
      onPointerEnter={() => {
        if (dragging.current && range) choose({ anchor: range.anchor, active: cell }, true);
      }}
      onDoubleClick={() => editing.start(null)}
    >
      {active && editing.field ? (
        <CellEditor column={column} start={editing.field.text} whole={editing.field.whole} onDone={editing.end} />
      ) : (
        text
      )}
    </span>
  );
}
