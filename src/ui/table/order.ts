/** Which rows of a table are shown, and in which order. */
import type { Design } from '../../core/design';
import type { Table } from '../../core/editing/tables';

export interface Sorting {
  readonly column: string;
  readonly down: boolean;
}

const words = (text: string) => text.toLowerCase().split(/\s+/).filter(Boolean);
const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Every word has to be found in some cell; `column:word` looks in the columns whose heading begins so. */
export function filterRows(table: Table, design: Design, filter: string): string[] {
  const wanted = words(filter).map((word) => {
    const [, head, rest] = /^([a-z._ ]+):(.+)$/.exec(word) ?? [];
    const columns =
      head === undefined
        ? []
        : table.columns.filter((c) => [c.id, c.title.toLowerCase()].some((t) => t.startsWith(head)));
    return columns.length > 0 ? { columns, text: rest! } : { columns: table.columns, text: word };
  });
  const rows = table.rows(design);
  const fits = (row: (typeof rows)[number]) =>
    wanted.every(({ columns, text }) => columns.some((c) => c.text(design, row).toLowerCase().includes(text)));
  return (wanted.length === 0 ? rows : rows.filter(fits)).map((r) => r.id);
}

/** Row ids in the order of a column; rows that are alike in it keep their order. */
export function sortRows(
  table: Table,
  design: Design,
  ids: readonly string[],
  sorting: Sorting | null,
): readonly string[] {
  const column = sorting && table.columns.find((c) => c.id === sorting.column);
  if (!sorting || !column) return ids;
  const value = (id: string) => {
    const row = table.find(design, id)!;
    return column.sort ? column.sort(design, row) : column.text(design, row);
  };
  const keyed = ids.map((id, i) => ({ id, i, value: value(id) }));
  const sign = sorting.down ? -1 : 1;
  keyed.sort((a, b) => {
    const [p, q] = [a.value, b.value];
    // Empty cells come last either way.
    if (p === '' || q === '') return (p === '' ? 1 : 0) - (q === '' ? 1 : 0) || a.i - b.i;
    const order = typeof p === 'number' && typeof q === 'number' ? p - q : natural.compare(String(p), String(q));
    return sign * order || a.i - b.i;
  });
  return keyed.map((k) => k.id);
}
