/** Text into cells: typed, filled down, pasted from a spreadsheet. Good cells are kept, the others named with the reason. */
import Papa from 'papaparse';
import type { Design, Edit } from '../../design';
import { Wiring, applyWhatFits } from '..';
import type { Change, NewId } from '..';
import { isFault, isRefusal } from './column';
import type { Table } from './column';

export interface CellRefusal {
  /** Row of the block, from 0. */
  readonly row: number;
  readonly column: string | null;
  readonly text: string;
  readonly sentence: string;
}

export interface TableChange {
  readonly design: Design;
  readonly edits: readonly Edit[];
  readonly refused: readonly CellRefusal[];
  /** Ids of rows that came into being. */
  readonly created: readonly string[];
  /** Rows that were there and changed. */
  readonly changed: number;
}

interface From {
  readonly row: number;
  readonly column: string | null;
  readonly text: string;
  /** Row that comes into being, or that changes. */
  readonly created: string | null;
}

/** One row to write: the id of the row that it goes to, or null for a new one, and its cells by column id. */
export interface RowText {
  readonly id: string | null;
  readonly cells: ReadonlyMap<string, string>;
}

/** A block of cells from the clipboard: tabs or, where there are none, commas or semicolons between them. */
export function readBlock(text: string): string[][] {
  const clean = text.replace(/^\uFEFF/, '').replace(/(\r?\n)+$/, '');
  if (clean === '') return [];
  const delimiter = clean.includes('\t') ? '\t' : /^[^\n;]*;/.test(clean) ? ';' : '\t';
  return Papa.parse<string[]>(clean, { delimiter }).data;
}

/** The other way: cells as a block that a spreadsheet takes. */
export const writeBlock = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { delimiter: '\t', newline: '\n' });

const bare = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/[\s_:.]+/g, ' ');

/** Column ids of a heading row, when every cell of it is a known heading; null otherwise. */
export function headingColumns(table: Table, cells: readonly string[]): string[] | null {
  const known = new Map<string, string>();
  for (const { id, title, also } of table.columns)
    for (const word of [id, title, ...(also ?? [])]) if (!known.has(bare(word))) known.set(bare(word), id);
  const found = cells.map((cell) => known.get(bare(cell)));
  return found.length > 0 && found.every((id) => id !== undefined) ? found : null;
}

/** The rows that a block means: by its heading when it has one, else from an anchor to the right and down. */
export function rowsOfBlock(
  design: Design,
  table: Table,
  block: readonly (readonly string[])[],
  anchor: { readonly columns: readonly string[]; readonly ids: readonly string[] },
): RowText[] {
  const heading = block.length > 1 ? headingColumns(table, block[0]!) : null;
  const columns = heading ?? anchor.columns;
  const body = heading ? block.slice(1) : block;
  return body
    .map((line, i) => {
      const cells = new Map(line.flatMap((text, c) => (columns[c] === undefined ? [] : [[columns[c], text] as const])));
      const id = heading ? (table.match?.(design, cells)?.id ?? null) : (anchor.ids[i] ?? null);
      return { id, cells };
    })
    .filter(({ cells }) => [...cells.values()].some((text) => text.trim() !== ''));
}

function rowChanges(wiring: Wiring, table: Table, row: number, { id, cells }: RowText): (Change<From> | CellRefusal)[] {
  const element = id === null ? undefined : table.find(wiring.design, id);
  if (!element) {
    const made = table.create(wiring, cells);
    if (isRefusal(made))
      return [{ row, column: made.column, text: cells.get(made.column ?? '') ?? '', sentence: made.fault }];
    return [{ from: { row, column: null, text: '', created: made.id }, edits: made.edits }];
  }
  const changes: (Change<From> | CellRefusal)[] = [];
  const add = (column: string, edits: ReturnType<NonNullable<Table['columns'][number]['set']>>) => {
    const text = cells.get(column) ?? '';
    if (isFault(edits)) changes.push({ row, column, text, sentence: edits.fault });
    else changes.push({ from: { row, column, text, created: null }, edits });
  };
  const done = new Set<string>();
  for (const { columns, edits } of table.together?.(wiring, element, cells) ?? []) {
    add(columns.at(-1)!, edits);
    for (const column of columns) done.add(column);
  }
  for (const [id, text] of cells) {
    const column = table.columns.find((c) => c.id === id);
    if (done.has(id) || !column || text === column.text(wiring.design, element)) continue;
    if (column.set) add(id, column.set(wiring, element, text));
    else
      changes.push({
        row,
        column: id,
        text,
        sentence: `'${column.title}' is calculated and cannot be changed.`,
      });
  }
  return changes;
}

/** Writes rows of text into a table. One step for the whole. */
export function writeRows(design: Design, table: Table, rows: readonly RowText[], newId: NewId): TableChange {
  const wiring = new Wiring(design, newId);
  const all = rows.flatMap((row, i) => rowChanges(wiring, table, i, row));
  const changes = all.filter((c): c is Change<From> => 'edits' in c);
  const refused = all.filter((c): c is CellRefusal => 'sentence' in c);
  const fitted = applyWhatFits(design, changes);
  const late = fitted.refused.map(({ from, sentence, field }): CellRefusal => {
    const named = field === null ? null : (table.fields[field] ?? field);
    const column = from.column ?? (table.columns.some((c) => c.id === named) ? named : null);
    const text = from.column === null ? (rows[from.row]!.cells.get(column ?? '') ?? '') : from.text;
    return { row: from.row, column, text, sentence };
  });
  return {
    design: fitted.design,
    edits: fitted.edits,
    refused: [...refused, ...late].sort((a, b) => a.row - b.row),
    created: fitted.kept.flatMap((k) => k.created ?? []),
    changed: new Set(fitted.kept.filter((k) => k.created === null).map((k) => k.row)).size,
  };
}
