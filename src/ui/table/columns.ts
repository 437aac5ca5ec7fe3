/** Where the columns of a table lie, in pixels. */
import type { Table } from '../../core/editing/tables';

/** Width of the row numbers, which stay in sight. */
export const NUMBERS = 44;

/** Left edge and width of a column, counted from that of the table. */
export function columnAt({ columns }: Table, index: number): { readonly left: number; readonly width: number } {
  const left = columns.slice(0, index).reduce((sum, c) => sum + c.width, NUMBERS);
  return { left, width: columns[index]?.width ?? 0 };
}

/** Pixels that stay in sight on the left: row numbers, and the columns that name the row. */
export const staying = ({ columns }: Table): number =>
  columns.reduce((sum, c) => sum + (c.stays ? c.width : 0), NUMBERS);

/** How far a table has to be scrolled for a column to be in sight beside those that stay; as it is where it is already. */
export function scrolledTo(table: Table, index: number, scrolled: number, room: number): number {
  if (table.columns[index]?.stays) return scrolled;
  const { left, width } = columnAt(table, index);
  const first = left - staying(table);
  if (scrolled > first) return first;
  return Math.max(scrolled, left + width - room);
}
