/** Cells of a table as texts, and what writing into them asks for. Pure: the grid and its tests use the same functions. */
import type { Design } from '../../core/design';
import type { RowText, Table } from '../../core/editing/tables';
import { corners } from './range';
import type { Range } from './range';

/** The rows that are shown, in their order. */
export interface Shown {
  readonly table: Table;
  readonly design: Design;
  readonly ids: readonly string[];
}

/** Text of a cell; empty below the last row. */
export function textAt({ table, design, ids }: Shown, row: number, column: number): string {
  const id = ids[row];
  const element = id === undefined ? undefined : table.find(design, id);
  return element ? table.columns[column]!.text(design, element) : '';
}

/** Texts of a range, line by line. */
export function textsOf(shown: Shown, range: Range): string[][] {
  const { top, bottom, left, right } = corners(range);
  return Array.from({ length: bottom - top + 1 }, (_, r) =>
    Array.from({ length: right - left + 1 }, (_, c) => textAt(shown, top + r, left + c)),
  );
}

/** One text written into one cell; below the last row it makes a new one. */
export const oneCell = ({ table, ids }: Shown, row: number, column: number, text: string): RowText => ({
  id: ids[row] ?? null,
  cells: new Map([[table.columns[column]!.id, text]]),
});

/** The same line of texts in every row of a range. Columns that are calculated are left out. */
export function filled({ table, ids }: Shown, range: Range, line: (column: number) => string): RowText[] {
  const { top, bottom, left, right } = corners(range);
  const cells = new Map(
    table.columns.slice(left, right + 1).flatMap((column, c) => (column.set ? [[column.id, line(c)] as const] : [])),
  );
  return ids.slice(top, bottom + 1).map((id) => ({ id, cells }));
}
