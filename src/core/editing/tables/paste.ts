/** Texts into cells: typed, filled down, pasted. Good cells are kept, the others named with the reason. */
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
