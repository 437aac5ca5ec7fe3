'use client';
/** Which cells are chosen, and the rows that go with them. */
import type { Virtualizer } from '@tanstack/react-virtual';
import { useEffect, useImperativeHandle, useMemo, useRef, useState } from 'react';
import type { Ref, RefObject } from 'react';
import type { Shown } from './cells';
import { corners, single, within } from './range';
import type { Bounds, Range } from './range';
import { scrolledTo } from './columns';

export interface TableHandle {
  /** Goes to a cell, by row id and column id, and takes the focus there. */
  readonly goTo: (row: string, column: string | null) => void;
  readonly chosen: () => readonly string[];
}

interface Options {
  readonly shown: Shown;
  readonly bounds: Bounds;
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly virtual: Virtualizer<HTMLDivElement, Element>;
  readonly selected: ReadonlySet<string>;
  readonly onSelect: (ids: readonly string[]) => void;
  readonly handle: Ref<TableHandle> | undefined;
}

export function useRange({ shown, bounds, scroller, virtual, selected, onSelect, handle }: Options) {
  const { ids, table } = shown;
  const [raw, setRange] = useState<Range | null>(null);
  const dragging = useRef(false);
  const range = within(raw, bounds);
  const choose = (next: Range, byPointer = false) => {
    setRange(next);
    const { top, bottom } = corners(next);
    // Rows that slide away under the pointer would be taken for a drag over them.
    if (!byPointer) {
      virtual.scrollToIndex(next.active.row);
      const grid = scroller.current;
      if (grid) grid.scrollLeft = scrolledTo(table, next.active.column, grid.scrollLeft, grid.clientWidth);
    }
    onSelect(ids.slice(top, bottom + 1));
  };
  /** Takes a row into what is selected, or out of it; the others stay. */
  const toggle = (row: number) => {
    const id = ids[row];
    if (id === undefined) return;
    setRange(single({ row, column: 0 }));
    const others = [...selected].filter((own) => own !== id);
    onSelect(selected.has(id) ? others : [...others, id]);
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
      const found = table.columns.findIndex((x) => x.id === column);
      choose(single({ row: at, column: Math.max(0, found) }));
      // The cell is chosen already: the focus that comes in chooses none.
      dragging.current = true;
      scroller.current?.focus();
      dragging.current = false;
    },
  }));
  // What is selected in the drawing comes into sight here.
  const first = useMemo(() => ids.findIndex((id) => selected.has(id)), [ids, selected]);
  useEffect(() => {
    if (first >= 0 && !scroller.current?.contains(document.activeElement))
      virtual.scrollToIndex(first, { align: 'center' });
  }, [first, selected, virtual, scroller]);
  const begin = () => {
    if (!range && !dragging.current) setRange(single({ row: Math.max(0, first), column: 0 }));
  };
  return { range, setRange, choose, toggle, chosen, begin, dragging };
}

export type Chosen = ReturnType<typeof useRange>;
