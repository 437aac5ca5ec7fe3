'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useEffect, useImperativeHandle, useMemo, useRef, useState } from 'react';
import type { ClipboardEvent, KeyboardEvent, Ref } from 'react';
import type { Design } from '../../core/design';
import { readBlock, rowsOfBlock, writeBlock } from '../../core/editing/tables';
import type { RowText, Table } from '../../core/editing/tables';
import { CellEditor } from './CellEditor';
import { GridHead } from './GridHead';
import { filterRows, sortRows } from './order';
import type { Sorting } from './order';
import { corners, inRange, single, stepped, within } from './range';
import type { Range } from './range';

const ROW = 26;

export interface TableHandle {
  /** Goes to a cell, by row id and column id, and takes the focus there. */
  readonly goTo: (row: string, column: string | null) => void;
  readonly chosen: () => readonly string[];
}

interface Props {
  readonly table: Table;
  readonly design: Design;
  readonly filter: string;
  /** Rows to which the table is confined; null for all. */
  readonly only: ReadonlySet<string> | null;
  /** Rows that are selected, here or in the drawing. */
  readonly selected: ReadonlySet<string>;
  readonly onSelect: (ids: readonly string[]) => void;
  /** Writes rows; the words for undo come with them. */
  readonly onWrite: (rows: readonly RowText[], what: string) => void;
  readonly onRemove: (ids: readonly string[]) => void;
  readonly handle?: Ref<TableHandle>;
}

/** A table of the design: sorted, filtered, edited in place, with ranges of cells that go to and from a spreadsheet. */
export function DataTable({ table, design, filter, only, selected, onSelect, onWrite, onRemove, handle }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const [sorting, setSorting] = useState<Sorting | null>(null);
  const [rawRange, setRange] = useState<Range | null>(null);
  const [editing, setEditing] = useState<{ readonly text: string; readonly whole: boolean } | null>(null);
  const dragging = useRef(false);
  const words = useDeferredValue(filter);

  const ids = useMemo(() => {
    const found = filterRows(table, design, words);
    return sortRows(table, design, only ? found.filter((id) => only.has(id)) : found, sorting);
  }, [table, design, words, only, sorting]);
  // One row more than there is: writing into it makes a new one.
  const bounds = { rows: ids.length + 1, columns: table.columns.length };
  const range = within(rawRange, bounds);
  const virtual = useVirtualizer({
    count: bounds.rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
    scrollPaddingStart: ROW + 4,
  });
  const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 200) / ROW) - 2);

  const choose = (next: Range, byPointer = false) => {
    setRange(next);
    const { top, bottom } = corners(next);
    // Rows that slide away under the pointer would be taken for a drag over them.
    if (!byPointer) virtual.scrollToIndex(next.active.row);
    onSelect(ids.slice(top, bottom + 1));
  };
  const chosen = () => {
    if (!range) return [];
    const { top, bottom } = corners(range);
    return ids.slice(top, bottom + 1);
  };
  useImperativeHandle(handle, () => ({
    chosen,
    goTo: (row, column) => {
      const at = ids.indexOf(row);
      if (at < 0) return;
      const c = Math.max(
        0,
        table.columns.findIndex((x) => x.id === column),
      );
      choose(single({ row: at, column: c }));
      scroller.current?.focus();
    },
  }));

  // What is selected in the drawing comes into sight here.
  const first = useMemo(() => ids.findIndex((id) => selected.has(id)), [ids, selected]);
  useEffect(() => {
    if (first >= 0 && !scroller.current?.contains(document.activeElement))
      virtual.scrollToIndex(first, { align: 'center' });
  }, [first, selected, virtual]);

  const textAt = (row: number, column: number) => {
    const id = ids[row];
    const element = id === undefined ? undefined : table.find(design, id);
    return element ? table.columns[column]!.text(design, element) : '';
  };
  const cellsOfRange = () => {
    const { top, bottom, left, right } = corners(range!);
    return Array.from({ length: bottom - top + 1 }, (_, r) =>
      Array.from({ length: right - left + 1 }, (_, c) => textAt(top + r, left + c)),
    );
  };
  const write = (rows: readonly (readonly string[])[], top: number, left: number, what: string) =>
    onWrite(
      rows.map((line, r) => ({
        id: ids[top + r] ?? null,
        cells: new Map(
          line.flatMap((text, c) => (table.columns[left + c] ? [[table.columns[left + c]!.id, text] as const] : [])),
        ),
      })),
      what,
    );
  /** The same text, or the same row of texts, in every row of the range. */
  const fill = (line: (column: number) => string, what: string) => {
    const { top, bottom, left, right } = corners(range!);
    const texts = Array.from({ length: right - left + 1 }, (_, c) => line(c));
    const rows = Array.from({ length: Math.min(bottom, ids.length - 1) - top + 1 }, () => texts);
    // What is worked out cannot be written, and is passed over when a whole row is filled.
    const writable = (c: number) => table.columns[left + c]!.set !== undefined;
    onWrite(
      rows.map((r, i) => ({
        id: ids[top + i]!,
        cells: new Map(r.flatMap((text, c) => (writable(c) ? [[table.columns[left + c]!.id, text] as const] : []))),
      })),
      what,
    );
  };

  const startEdit = (text: string | null) => {
    if (!range) return;
    const column = table.columns[range.active.column]!;
    const isNew = range.active.row >= ids.length;
    if (!column.set && !isNew) return;
    setRange(single(range.active));
    setEditing({ text: text ?? textAt(range.active.row, range.active.column), whole: text === null });
  };
  const endEdit = (text: string | null, move: 'down' | 'right' | null) => {
    setEditing(null);
    scroller.current?.focus();
    if (!range) return;
    const { row, column } = range.active;
    if (text !== null && (text !== textAt(row, column) || row >= ids.length))
      if (text !== '' || row < ids.length) write([[text]], row, column, table.columns[column]!.title);
    if (move) {
      const key = move === 'down' ? 'ArrowDown' : 'ArrowRight';
      const next = stepped(range, { key, shift: false, ctrl: false }, bounds, page);
      if (next) choose(next);
    }
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (editing) return;
    const ctrl = event.ctrlKey || event.metaKey;
    const next = stepped(range, { key: event.key, shift: event.shiftKey, ctrl }, bounds, page);
    if (next) choose(next);
    else if (event.key === 'F2' || event.key === 'Enter') startEdit(null);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && (ctrl || event.shiftKey)) onRemove(chosen());
    else if ((event.key === 'Delete' || event.key === 'Backspace') && range) fill(() => '', 'Clear cells');
    else if (ctrl && event.key.toLowerCase() === 'd' && range) {
      const { top, left } = corners(range);
      fill((c) => textAt(top, left + c), 'Fill down');
    } else if (ctrl && event.key.toLowerCase() === 'a')
      choose({
        anchor: { row: 0, column: 0 },
        active: { row: Math.max(0, ids.length - 1), column: bounds.columns - 1 },
      });
    else if (event.key === 'Escape' && range && corners(range).top !== corners(range).bottom)
      setRange(single(range.active));
    else if (!ctrl && !event.altKey && event.key.length === 1 && event.key !== '/') startEdit(event.key);
    else return;
    event.preventDefault();
  };
  const onCopy = (event: ClipboardEvent, cut: boolean) => {
    if (editing || !range) return;
    event.clipboardData.setData('text/plain', writeBlock(cellsOfRange()));
    event.preventDefault();
    if (cut) fill(() => '', 'Cut cells');
  };
  const onPaste = (event: ClipboardEvent) => {
    if (editing) return;
    event.preventDefault();
    const block = readBlock(event.clipboardData.getData('text/plain'));
    if (block.length === 0) return;
    const at = range ?? single({ row: ids.length, column: 0 });
    const { top, bottom, left } = corners(at);
    if (block.length === 1 && bottom > top) {
      const [line] = block;
      return fill((c) => line![c % line!.length] ?? '', 'Paste into cells');
    }
    const anchor = { ids: ids.slice(top), columns: table.columns.slice(left).map((c) => c.id) };
    onWrite(rowsOfBlock(design, table, block, anchor), `Paste ${block.length} rows`);
  };

  const template = `44px ${table.columns.map((c) => `${c.width}px`).join(' ')} minmax(0, 1fr)`;
  const cellId = (row: number, column: number) => `cell-${table.id}-${row}-${column}`;
  return (
    <div
      ref={scroller}
      className="grid"
      role="grid"
      tabIndex={0}
      aria-label={table.title}
      aria-rowcount={bounds.rows + 1}
      aria-colcount={bounds.columns}
      aria-multiselectable="true"
      aria-activedescendant={range ? cellId(range.active.row, range.active.column) : undefined}
      onKeyDown={onKeyDown}
      onCopy={(e) => onCopy(e, false)}
      onCut={(e) => onCopy(e, true)}
      onPaste={onPaste}
      onFocus={() => {
        if (!range && !dragging.current) setRange(single({ row: Math.max(0, first), column: 0 }));
      }}
      onPointerUp={() => (dragging.current = false)}
    >
      <GridHead table={table} sorting={sorting} onSort={setSorting} template={template} />
      <div role="rowgroup" className="grid-body" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index: row, start }) => {
          const id = ids[row];
          const element = id === undefined ? undefined : table.find(design, id);
          return (
            <div
              key={id ?? 'new'}
              role="row"
              aria-rowindex={row + 2}
              aria-selected={id !== undefined && selected.has(id)}
              className={element ? 'grid-row' : 'grid-row is-new'}
              style={{ gridTemplateColumns: template, transform: `translateY(${start}px)` }}
            >
              <span
                role="rowheader"
                className="row-number"
                onPointerDown={(e) => {
                  const last = bounds.columns - 1;
                  const anchor = e.shiftKey && range ? { row: range.anchor.row, column: 0 } : { row, column: 0 };
                  choose({ anchor, active: { row, column: last } }, true);
                }}
              >
                {element ? row + 1 : '+'}
              </span>
              {table.columns.map((column, c) => {
                const active = range?.active.row === row && range.active.column === c;
                const text = element ? column.text(design, element) : c === 0 ? `new ${table.one}` : '';
                return (
                  <span
                    key={column.id}
                    id={cellId(row, c)}
                    role="gridcell"
                    aria-colindex={c + 1}
                    aria-readonly={!column.set || undefined}
                    aria-selected={inRange(range, row, c)}
                    className={[
                      column.numeric && 'is-number',
                      column.mono && 'mono',
                      !column.set && 'is-derived',
                      active && 'is-active',
                      column.id === 'agree' && text && 'alarm',
                    ]
                      .filter(Boolean)
                      .join(' ')}
                    title={text.length * 7 > column.width ? text : undefined}
                    onPointerDown={(e) => {
                      if (e.button !== 0) return;
                      dragging.current = true;
                      // Before anything is selected: a table without the focus goes to where the selection is.
                      scroller.current?.focus({ preventScroll: true });
                      const cell = { row, column: c };
                      choose(e.shiftKey && range ? { anchor: range.anchor, active: cell } : single(cell), true);
                    }}
                    onPointerEnter={() => {
                      if (dragging.current && range) choose({ anchor: range.anchor, active: { row, column: c } }, true);
                    }}
                    onDoubleClick={() => startEdit(null)}
                  >
                    {active && editing ? (
                      <CellEditor column={column} start={editing.text} whole={editing.whole} onDone={endEdit} />
                    ) : (
                      text
                    )}
                  </span>
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
}
