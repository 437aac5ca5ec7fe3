'use client';
/** Editing of cells by keys, and what goes to and comes from the clipboard. */
import { useState } from 'react';
import type { ClipboardEvent, KeyboardEvent, RefObject } from 'react';
import { readBlock, renames, rowsOfBlock, writeBlock } from '../../core/editing/tables';
import type { BlockRows, RowText } from '../../core/editing/tables';
import { count } from '../../core/standard';
import type { CellMove } from './CellEditor';
import { filled, oneCell, textAt, textsOf } from './cells';
import type { Shown } from './cells';
import { corners, single, stepped } from './range';
import type { Bounds, Range } from './range';
import type { Chosen } from './useRange';

interface Options {
  readonly shown: Shown;
  readonly bounds: Bounds;
  readonly page: number;
  readonly chosen: Chosen;
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly onWrite: (rows: readonly RowText[], what: string, unknown?: readonly string[]) => void;
  readonly onRemove: (ids: readonly string[]) => void;
}

/** The field that is open in a cell. */
export interface OpenField {
  readonly text: string;
  /** Whether the whole text is marked. */
  readonly whole: boolean;
  /** Cells that were chosen when it was opened: Ctrl+Enter sets all of them. */
  readonly over: Range;
}

function useField({ shown, bounds, page, chosen: { range, setRange, choose }, scroller, onWrite }: Options) {
  const { table, ids } = shown;
  const [field, setField] = useState<OpenField | null>(null);
  const start = (text: string | null) => {
    if (!range) return;
    const { row, column } = range.active;
    if (!table.columns[column]!.set && row < ids.length) return;
    setRange(single(range.active));
    setField({ text: text ?? textAt(shown, row, column), whole: text === null, over: range });
  };
  const end = (text: string | null, move: CellMove) => {
    const over = field?.over;
    setField(null);
    scroller.current?.focus();
    if (!range) return;
    if (move === 'all' && over && text !== null) {
      choose(over);
      return onWrite(
        filled(shown, over, () => text),
        table.columns[over.active.column]!.title,
      );
    }
    const { row, column } = range.active;
    const changed = text !== null && (row < ids.length ? text !== textAt(shown, row, column) : text !== '');
    if (changed) onWrite([oneCell(shown, row, column, text)], table.columns[column]!.title);
    if (!move) return;
    const key = move !== 'right' ? 'ArrowDown' : 'ArrowRight';
    const next = stepped(range, { key, shift: false, ctrl: false }, bounds, page);
    if (next) choose(next);
  };
  return { field, start, end };
}

const ERASES = ['Delete', 'Backspace'];

/** Whether a key with these modifiers begins an edit by being typed. */
const types = (event: KeyboardEvent, ctrl: boolean) =>
  !ctrl && !event.altKey && event.key.length === 1 && event.key !== '/';

/** Blocks that are pasted: those that give other names to what is there are asked about first. */
function usePasting({ shown, scroller, onWrite }: Options) {
  const [pasted, setPasted] = useState<BlockRows | null>(null);
  const write = (rows: readonly RowText[], unknown: readonly string[]) =>
    onWrite(rows, `Paste ${count(rows.length, 'row')}`, unknown);
  const leavePasted = () => {
    setPasted(null);
    scroller.current?.focus();
  };
  const takePasted = (rows: readonly RowText[]) => {
    write(rows, pasted?.unknown ?? []);
    leavePasted();
  };
  const paste = (block: BlockRows) => {
    if (renames(shown.design, shown.table, block.rows)) setPasted(block);
    else write(block.rows, block.unknown);
  };
  return { pasted, paste, takePasted, leavePasted };
}

export function useEditing(options: Options) {
  const { shown, bounds, page, chosen, onWrite, onRemove } = options;
  const { range, setRange, choose } = chosen;
  const { field, start, end } = useField(options);
  const { pasted, paste, takePasted, leavePasted } = usePasting(options);
  const fill = (at: Range, line: (column: number) => string, what: string) => onWrite(filled(shown, at, line), what);

  /** What a key does; null when it does nothing here. */
  const actionOf = (event: KeyboardEvent): (() => void) | null => {
    const { key } = event;
    const ctrl = event.ctrlKey || event.metaKey;
    const next = stepped(range, { key, shift: event.shiftKey, ctrl }, bounds, page);
    if (next) return () => choose(next);
    if (key === 'F2' || key === 'Enter') return () => start(null);
    if (ERASES.includes(key) && (ctrl || event.shiftKey)) return () => onRemove(chosen.chosen());
    if (ERASES.includes(key) && range) return () => fill(range, () => '', 'Clear cells');
    if (ctrl && key.toLowerCase() === 'd' && range) {
      const { top, left } = corners(range);
      return () => fill(range, (c) => textAt(shown, top, left + c), 'Fill down');
    }
    if (ctrl && key.toLowerCase() === 'a') {
      const last = { row: Math.max(0, shown.ids.length - 1), column: bounds.columns - 1 };
      return () => choose({ anchor: { row: 0, column: 0 }, active: last });
    }
    if (key === 'Escape' && range && corners(range).top !== corners(range).bottom)
      return () => setRange(single(range.active));
    return types(event, ctrl) ? () => start(key) : null;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const action = field ? null : actionOf(event);
    if (!action) return;
    action();
    event.preventDefault();
  };
  const onCopy = (event: ClipboardEvent, cut: boolean) => {
    if (field || !range) return;
    event.clipboardData.setData('text/plain', writeBlock(textsOf(shown, range)));
    event.preventDefault();
    if (cut) fill(range, () => '', 'Cut cells');
  };
  const onPaste = (event: ClipboardEvent) => {
    if (field) return;
    event.preventDefault();
    const block = readBlock(shown.table, event.clipboardData.getData('text/plain'));
    if (block.length === 0) return;
    const at = range ?? single({ row: shown.ids.length, column: 0 });
    const { top, bottom, left } = corners(at);
    const [line] = block;
    if (block.length === 1 && bottom > top)
      return paste({ rows: filled(shown, at, (c) => line![c % line!.length] ?? ''), unknown: [] });
    const anchor = { ids: shown.ids.slice(top), columns: shown.table.columns.slice(left).map((c) => c.id) };
    paste(rowsOfBlock(shown.design, shown.table, block, anchor));
  };
  return { field, start, end, onKeyDown, onCopy, onPaste, pasted, takePasted, leavePasted };
}

export type Editing = ReturnType<typeof useEditing>;
