/** Reading a table from CSV (RFC 4180, also with semicolons or tabs, also with a byte-order mark): header, rows, cells. */
import Papa from 'papaparse';
import { clipped, fileMessages as say } from '../messages';

/** A refused place in a table: file, line of the file (1 is the header), column, and the sentence. */
export interface TableFault {
  readonly file: string;
  readonly row: number | null;
  readonly column: string | null;
  readonly sentence: string;
}

export interface TableRow {
  readonly row: number;
  /** Trimmed cell; empty when the column is missing. */
  cell(column: string): string;
}

export interface ColumnRule {
  readonly required: readonly string[];
  readonly optional: readonly string[];
}

/** `links.csv, row 12, speed_mbps: …` */
export function formatTableFault({ file, row, column, sentence }: TableFault): string {
  return `${[file, row === null ? null : `row ${row}`, column].filter((p) => p !== null).join(', ')}: ${sentence}`;
}

const BOM = /^\uFEFF/;
/** What text decoding leaves where octets are no UTF-8. */
const BROKEN_TEXT = '\uFFFD';

/** A cell that a spreadsheet would take for a formula; such cells are written with an apostrophe before them. */
const FORMULA = /^[=+\-@\t\r]/;
const GUARDED = /^'[=+\-@\t\r]/;
/** A number, signed or not, is no formula. */
const NUMBER = /^[+-]?\d+([.,]\d+)?$/;

/** A cell as a spreadsheet can open it without running it. */
export const guarded = (text: string): string => (FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text);
/** The other way: what `guarded` was given. */
export const unguarded = (text: string): string => (GUARDED.test(text) ? text.slice(1) : text);

/** What is wrong with a text as a table before it is taken apart; null when nothing is. */
function textFault(text: string, expected: string): { sentence: string; row: number | null } | null {
  const at = (sign: string) => text.slice(0, text.indexOf(sign)).split('\n').length;
  if (text.trim() === '') return { sentence: say['empty-table']({ expected }), row: null };
  if (text.includes('\u0000')) return { sentence: say.binary(), row: null };
  if (text.includes(BROKEN_TEXT)) return { sentence: say['not-utf8-csv'](), row: at(BROKEN_TEXT) };
  return null;
}

/** Line that ends with a carriage return alone in a file whose other lines end otherwise; null when there is none. */
function loneReturn(text: string): number | null {
  const at = text.search(/\r(?!\n)/);
  if (at < 0 || !text.includes('\n')) return null;
  return text.slice(0, at).split('\n').length;
}

interface Line {
  readonly cells: readonly string[];
  /** Line of the file on which the row begins, from 1. */
  readonly at: number;
}

/** Rows with the lines on which they begin: a quoted cell may hold line ends, and empty lines are left out. */
function linesOf(text: string, delimiter: string): { lines: Line[]; broken: number | null } {
  const lines: Line[] = [];
  let broken: number | null = null;
  let [at, cursor] = [1, 0];
  Papa.parse<string[]>(text, {
    delimiter,
    newline: '\n',
    step: ({ data, errors, meta }) => {
      if (broken === null && errors.some((e) => e.type === 'Quotes')) broken = at;
      if (data.some((cell) => cell.trim() !== '')) lines.push({ cells: data, at });
      for (; cursor < meta.cursor; cursor++) if (text[cursor] === '\n') at++;
    },
  });
  return { lines, broken };
}

/** The rows of a table whose header is as asked, or what is wrong with it. Empty lines are skipped. */
export function readTable(file: string, text: string, columns: ColumnRule): { rows: TableRow[]; faults: TableFault[] } {
  const refuse = (sentence: string, row: number | null = null) => ({
    rows: [],
    faults: [{ file, row, column: null, sentence }],
  });
  const expected = `${columns.required.join(',')}${columns.optional.length ? `, and if wanted ${columns.optional.join(',')}` : ''}`;
  const bare = text.replace(BOM, '');
  const lone = loneReturn(bare);
  if (lone !== null) return refuse(say['line-ends'](), lone);
  // Some programs end all lines with a carriage return alone.
  const clean = bare.replace(/\r\n?/g, '\n');
  const wrong = textFault(clean, expected);
  if (wrong) return refuse(wrong.sentence, wrong.row);
  const firstLine = clean.trimStart().split('\n')[0]!;
  const delimiter = [',', ';', '\t'].sort((a, b) => firstLine.split(b).length - firstLine.split(a).length)[0]!;
  const { lines, broken } = linesOf(clean, delimiter);
  if (broken !== null) return refuse(say.quotes(), broken);
  const [head, ...body] = lines;
  const header = (head?.cells ?? []).map((h) => h.trim().toLowerCase());
  const fault = headerFault(header, columns, expected);
  if (fault) return refuse(fault, head?.at ?? 1);
  const place = new Map(header.map((h, i) => [h, i]));
  const rows = body.map(({ cells, at }) => ({
    row: at,
    cell: (column: string) => unguarded((cells[place.get(column) ?? -1] ?? '').trim()),
  }));
  return { rows, faults: [] };
}

function headerFault(header: readonly string[], columns: ColumnRule, expected: string): string | null {
  const quoted = (names: readonly string[]) =>
    names
      .slice(0, 8)
      .map((n) => `'${clipped(n)}'`)
      .join(', ');
  const missing = columns.required.filter((c) => !header.includes(c));
  if (missing.length > 0) return say['header-lacks']({ names: quoted(missing), expected });
  const known = [...columns.required, ...columns.optional];
  const unknown = header.filter((h) => h !== '' && !known.includes(h));
  if (unknown.length > 0) return say['header-unknown']({ names: quoted(unknown), expected });
  const twice = header.filter((h, i) => h !== '' && header.indexOf(h) < i);
  return twice.length > 0 ? say['header-twice']({ names: quoted(twice) }) : null;
}
