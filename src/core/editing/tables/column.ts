/** What a table of the design's elements is made of: columns that read a cell and turn typed text into edits. */
import type { Design, Edit } from '../../design';
import type { Wiring } from '..';
import { clipped, tableMessages as say } from '../../messages';

/** Why a cell cannot take a text. */
export interface CellFault {
  readonly fault: string;
}
export type CellEdits = readonly Edit[] | CellFault;
export const isFault = (result: CellEdits): result is CellFault => 'fault' in result;

export interface Column<E> {
  readonly id: string;
  readonly title: string;
  /** Other headings under which a spreadsheet may bring it. */
  readonly also?: readonly string[];
  /** Width in pixels at the base size. */
  readonly width: number;
  readonly numeric?: boolean;
  /** Names the row, and stays in sight; the first columns of a table alone. */
  readonly stays?: boolean;
  readonly mono?: boolean;
  /** Legal words, where there are few. */
  readonly choices?: readonly string[];
  text(design: Design, element: E): string;
  /** Value to sort by, where the text is not it. */
  sort?(design: Design, element: E): number | string;
  /** Edits that make the cell read as typed; absent for a column that is only read. */
  set?(wiring: Wiring, element: E, text: string): CellEdits;
}

export interface Refusal {
  /** Column to blame, when one is. */
  readonly column: string | null;
  readonly fault: string;
}
export type Created = { readonly edits: readonly Edit[]; readonly id: string } | Refusal;
export const isRefusal = (created: Created): created is Refusal => 'fault' in created;

export type TableId = 'switches' | 'ports' | 'links' | 'vlans' | 'hosts' | 'segments' | 'demands' | 'notes';

export interface Table<E extends { readonly id: string } = { readonly id: string }> {
  readonly id: TableId;
  readonly title: string;
  /** One of its rows, for labels: `switch`. */
  readonly one: string;
  readonly kind: 'switch' | 'port' | 'link' | 'vlan' | 'host' | 'segment' | 'demand' | 'note';
  readonly columns: readonly Column<E>[];
  /** Columns that name a row: a heading is known by them, and what is pasted over them gives a thing another name. */
  readonly naming: readonly string[];
  /** Schema field to column, where the names differ; refusals of the document lead back to cells by it. */
  readonly fields: Readonly<Record<string, string>>;
  rows(design: Design): readonly E[];
  find(design: Design, id: string): E | undefined;
  /** A new row from cells by column id. Cells that are missing take what is usual. */
  create(wiring: Wiring, cells: ReadonlyMap<string, string>): Created;
  /** Cells of one row that only make sense taken together, such as the switch and the port of an end. */
  together?(
    wiring: Wiring,
    element: E,
    cells: ReadonlyMap<string, string>,
  ): readonly { readonly columns: readonly string[]; readonly edits: CellEdits }[];
  /** The row that a pasted or imported row with these cells speaks of, if it is there already. */
  match?(design: Design, cells: ReadonlyMap<string, string>): E | undefined;
}

/** A typed number: null for an empty cell, the text itself for the schema to refuse when it is none. */
export function numberCell(text: string): number | string | null {
  const clean = text.replace(/[\s\u00a0']/g, '');
  if (clean === '') return null;
  const value = Number(clean);
  return Number.isFinite(value) ? value : text;
}

const TRUE = new Set(['yes', 'y', 'true', '1', 'x', 'on']);
const FALSE = new Set(['', 'no', 'n', 'false', '0', '-', 'off']);

/** A typed yes or no: true, or null for the field to go. */
export function yesCell(text: string): true | null | CellFault {
  const word = text.trim().toLowerCase();
  if (TRUE.has(word)) return true;
  if (FALSE.has(word)) return null;
  return { fault: say['not-yes-or-no']({ text: clipped(text.trim()) }) };
}

/** Mb/s from `1000`, `1G`, `100M`, `2.5 Gb/s`; the text itself when it is none. */
export function speedCell(text: string): number | string {
  const match = /^\s*([\d.,\s]+?)\s*(g|m)?(b(it)?(\/s|ps)?)?\s*$/i.exec(text);
  const value = match ? Number(match[1]!.replace(/\s/g, '').replace(',', '.')) : NaN;
  if (!Number.isFinite(value) || text.trim() === '') return text;
  return match![2]?.toLowerCase() === 'g' ? value * 1000 : value;
}

/** A word out of few; null for an empty cell. */
export function choiceCell<T extends string>(what: string, text: string, legal: readonly T[]): T | null | CellFault {
  const word = text.trim().toLowerCase();
  if (word === '') return null;
  const found = legal.find((l) => l === word) ?? (word.length > 1 ? legal.find((l) => l.startsWith(word)) : undefined);
  return found ?? { fault: say['not-one-of']({ what, text: clipped(text.trim()), legal }) };
}

/** The fault of a cell that could not be read, or the edits that its value makes. */
export const unlessFault = (value: unknown, edits: (value: unknown) => readonly Edit[]): CellEdits =>
  typeof value === 'object' && value !== null && 'fault' in value ? (value as CellFault) : edits(value);
