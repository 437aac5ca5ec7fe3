'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import type { Ref } from 'react';
import type { Design } from '../../core/design';
import type { RowText, Table } from '../../core/editing/tables';
import { NUMBERS } from './columns';
import { GridHead } from './GridHead';
import { GridRow, cellId } from './GridRow';
import type { TableMark } from './GridRow';
import { filterRows, sortRows } from './order';
import type { Sorting } from './order';
import { PastePreview } from './PastePreview';
import { useEditing } from './useEditing';
import { useRange } from './useRange';
import type { TableHandle } from './useRange';
import styles from './DataTable.module.css';

export type { TableHandle };

const ROW = 26;

interface Props {
  readonly table: Table;
  readonly design: Design;
  readonly filter: string;
  /** Rows to which the table is confined; null for all. */
  readonly only: ReadonlySet<string> | null;
  /** Rows that are selected, here or in the drawing. */
  readonly selected: ReadonlySet<string>;
  readonly onSelect: (ids: readonly string[]) => void;
  /** Writes rows; the words for undo come with them, and the headings of a pasted block that the table does not have. */
  readonly onWrite: (rows: readonly RowText[], what: string, unknown?: readonly string[]) => void;
  readonly onRemove: (ids: readonly string[]) => void;
  readonly handle?: Ref<TableHandle>;
  /** What is wrong with rows, by `port gate:1`. */
  readonly marks?: ReadonlyMap<string, TableMark>;
}

/** The rows that are shown, filtered and sorted. */
function useRows({ table, design, filter, only }: Props, sorting: Sorting | null): readonly string[] {
  const words = useDeferredValue(filter);
  return useMemo(() => {
    const found = filterRows(table, design, words);
    return sortRows(table, design, only ? found.filter((id) => only.has(id)) : found, sorting);
  }, [table, design, words, only, sorting]);
}

/** A table of the design: sorted, filtered, edited in place, with ranges of cells that go to and from a spreadsheet. */
export function DataTable(props: Props) {
  const { table, design, selected, onSelect, onWrite, onRemove, handle } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [sorting, setSorting] = useState<Sorting | null>(null);
  const ids = useRows(props, sorting);
  const shown = { table, design, ids };
  // One row more than there is: writing into it makes a new one.
  const bounds = { rows: ids.length + 1, columns: table.columns.length };
  const virtual = useVirtualizer({
    count: bounds.rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
    scrollPaddingStart: ROW + 4,
  });
  const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 200) / ROW) - 2);
  const chosen = useRange({ shown, bounds, scroller, virtual, selected, onSelect, handle });
  const editing = useEditing({ shown, bounds, page, chosen, scroller, onWrite, onRemove });
  const { range } = chosen;
  const template = `${NUMBERS}px ${table.columns.map((c) => `${c.width}px`).join(' ')} minmax(0, 1fr)`;
  const row = { shown, template, chosen, editing, scroller };
  return (
    <>
      <div
        ref={scroller}
        className="grid"
        role="grid"
        tabIndex={0}
        aria-label={table.title}
        aria-rowcount={bounds.rows + 1}
        aria-colcount={bounds.columns}
        aria-multiselectable="true"
        aria-activedescendant={range ? cellId(table, range.active.row, range.active.column) : undefined}
        onKeyDown={editing.onKeyDown}
        onCopy={(e) => editing.onCopy(e, false)}
        onCut={(e) => editing.onCopy(e, true)}
        onPaste={editing.onPaste}
        onFocus={chosen.begin}
        onPointerUp={() => (chosen.dragging.current = false)}
      >
        <GridHead table={table} sorting={sorting} onSort={setSorting} template={template} />
        <div role="rowgroup" className={styles.gridBody} style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const id = ids[index];
            const marked = id !== undefined && selected.has(id);
            const mark = props.marks?.get(`${table.kind} ${id}`);
            return <GridRow key={id ?? 'new'} {...row} {...{ start, mark }} row={index} selected={marked} />;
          })}
        </div>
      </div>
      {editing.pasted && (
        <PastePreview
          {...{ table, design }}
          pasted={editing.pasted}
          onTake={editing.takePasted}
          onClose={editing.leavePasted}
        />
      )}
    </>
  );
}
