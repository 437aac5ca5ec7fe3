/** A rectangle of cells, by row and column of what is shown. */

export interface Cell {
  readonly row: number;
  readonly column: number;
}

export interface Range {
  readonly anchor: Cell;
  readonly active: Cell;
}

export interface Bounds {
  readonly rows: number;
  readonly columns: number;
}

export const single = (cell: Cell): Range => ({ anchor: cell, active: cell });

export const corners = ({ anchor, active }: Range) => ({
  top: Math.min(anchor.row, active.row),
  bottom: Math.max(anchor.row, active.row),
  left: Math.min(anchor.column, active.column),
  right: Math.max(anchor.column, active.column),
});

export function inRange(range: Range | null, row: number, column: number): boolean {
  if (!range) return false;
  const { top, bottom, left, right } = corners(range);
  return row >= top && row <= bottom && column >= left && column <= right;
}

const clamp = (n: number, size: number) => Math.max(0, Math.min(size - 1, n));

/** A range brought back within a table that has become smaller; null when nothing is left. */
export function within(range: Range | null, { rows, columns }: Bounds): Range | null {
  if (!range || rows === 0 || columns === 0) return null;
  const put = (cell: Cell) => ({ row: clamp(cell.row, rows), column: clamp(cell.column, columns) });
  return { anchor: put(range.anchor), active: put(range.active) };
}

interface Step {
  readonly key: string;
  readonly shift: boolean;
  readonly ctrl: boolean;
}

/** Where a key leads; with shift the range grows, else it becomes the one cell. Null for a key that leads nowhere. */
export function stepped(range: Range | null, { key, shift, ctrl }: Step, bounds: Bounds, page: number): Range | null {
  const from = range?.active ?? { row: 0, column: 0 };
  const moves: Record<string, Cell> = {
    ArrowUp: { row: ctrl ? 0 : from.row - 1, column: from.column },
    ArrowDown: { row: ctrl ? bounds.rows - 1 : from.row + 1, column: from.column },
    ArrowLeft: { row: from.row, column: ctrl ? 0 : from.column - 1 },
    ArrowRight: { row: from.row, column: ctrl ? bounds.columns - 1 : from.column + 1 },
    Home: { row: ctrl ? 0 : from.row, column: 0 },
    End: { row: ctrl ? bounds.rows - 1 : from.row, column: bounds.columns - 1 },
    PageUp: { row: from.row - page, column: from.column },
    PageDown: { row: from.row + page, column: from.column },
  };
  const to = moves[key];
  if (!to) return null;
  const active = range ? to : from;
  return within({ anchor: shift && range ? range.anchor : active, active }, bounds);
}
