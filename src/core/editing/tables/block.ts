/** Blocks of cells from and to the clipboard: what separates them, whether the first row is a heading, which rows they mean. */
import Papa from 'papaparse';
import type { Design } from '../../design';
import type { Column, Table } from './column';
import type { RowText } from './paste';

const parse = (text: string, delimiter: string): string[][] => Papa.parse<string[]>(text, { delimiter }).data;

const bare = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/[\s_:.]+/g, ' ');

/** A heading row: the column of each cell, and the headings that no column has. */
export interface Heading {
  readonly columns: readonly (string | null)[];
  readonly unknown: readonly string[];
}

/** Whether a cell holds a number, an address or a list of them, as no heading does. */
const isValue = (cell: string) =>
  /^[\d.,;:/\-\s]+$/.test(cell) || /^([0-9a-f]{2}[:-]){5}[0-9a-f]{2}$/i.test(cell.trim());

/**
 * The heading that a row of cells is: at least half of its cells are known headings, or one of them names the rows. Null
 * where it is none.
 */
export function headingOf(table: Table, cells: readonly string[]): Heading | null {
  const known = new Map<string, Column<{ readonly id: string }>>();
  for (const column of table.columns)
    for (const word of [column.id, column.title, ...(column.also ?? [])])
      if (!known.has(bare(word))) known.set(bare(word), column);
  const columns = cells.map((cell) => known.get(bare(cell)) ?? null);
  const written = cells.filter((cell) => cell.trim() !== '');
  const found = columns.filter((c) => c !== null);
  if (found.length === 0 || written.some(isValue)) return null;
  if (found.length * 2 < written.length && !found.some((c) => table.naming.includes(c.id))) return null;
  const unknown = cells.filter((cell, i) => columns[i] === null && cell.trim() !== '').map((cell) => cell.trim());
  return { columns: columns.map((c) => c?.id ?? null), unknown };
}

/** Whether every row has as many cells as the first, two at least. */
const isEven = (block: readonly (readonly string[])[]) => {
  const width = block[0]?.length ?? 0;
  return width > 1 && block.every((line) => line.length === width);
};

/** Whether some cell has words in it: lists of VLANs have commas too, and none. */
const hasWords = (block: readonly (readonly string[])[]) =>
  block.some((line) => line.some((cell) => /[a-z]/i.test(cell)));

/**
 * A block of cells from the clipboard. Spreadsheets put tabs between them; files of them semicolons or commas, which are
 * taken for it where they make a heading of the first row or cut every row alike.
 */
export function readBlock(table: Table, text: string): string[][] {
  const clean = text.replace(/^\uFEFF/, '').replace(/(\r?\n)+$/, '');
  if (clean === '') return [];
  const tabbed = parse(clean, '\t');
  if (clean.includes('\t')) return tabbed;
  for (const delimiter of [';', ',']) {
    if (!clean.includes(delimiter)) continue;
    const block = parse(clean, delimiter);
    const [first] = block;
    if (first && block.length > 1 && first.length > 1 && headingOf(table, first)) return block;
    if (isEven(block) && (delimiter === ';' || (block.length > 1 && hasWords(block)))) return block;
  }
  return tabbed;
}

/** The other way: cells as a block that a spreadsheet takes. */
export const writeBlock = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { delimiter: '\t', newline: '\n' });

export interface BlockRows {
  readonly rows: readonly RowText[];
  /** Headings that the table does not have; what stands under them is left out. */
  readonly unknown: readonly string[];
}

/** The rows that a block means: by its heading when it has one, else from an anchor to the right and down. */
export function rowsOfBlock(
  design: Design,
  table: Table,
  block: readonly (readonly string[])[],
  anchor: { readonly columns: readonly string[]; readonly ids: readonly string[] },
): BlockRows {
  const heading = block.length > 1 ? headingOf(table, block[0]!) : null;
  const columns = heading?.columns ?? anchor.columns;
  const body = heading ? block.slice(1) : block;
  const rows = body
    .map((line, i): RowText => {
      const cells = new Map(line.flatMap((text, c) => (columns[c] ? [[columns[c], text] as const] : [])));
      const id = heading ? (table.match?.(design, cells)?.id ?? null) : (anchor.ids[i] ?? null);
      return { id, cells };
    })
    .filter(({ cells }) => [...cells.values()].some((text) => text.trim() !== ''));
  return { rows, unknown: heading?.unknown ?? [] };
}

/** One cell that a row would change. */
export interface CellChange {
  readonly column: string;
  readonly before: string;
  readonly after: string;
}

/** Cells that rows would change in what is there already, by row; new rows and rows that stay as they are have none. */
export const changesOf = (design: Design, table: Table, rows: readonly RowText[]): readonly (readonly CellChange[])[] =>
  rows.map(({ id, cells }) => {
    const element = id === null ? undefined : table.find(design, id);
    if (!element) return [];
    return [...cells].flatMap(([id, after]) => {
      const before = table.columns.find((c) => c.id === id)?.text(design, element) ?? '';
      return before === after.trim() ? [] : [{ column: id, before, after: after.trim() }];
    });
  });

/** Whether rows give another name, or another end, to something that is there. */
export function renames(design: Design, table: Table, rows: readonly RowText[]): boolean {
  const { naming } = table;
  return changesOf(design, table, rows).some((cells) =>
    cells.some((c) => naming.includes(c.column) && c.before !== ''),
  );
}
