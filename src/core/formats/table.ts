/** Reading a table from CSV (RFC 4180, also with semicolons or tabs, also with a byte-order mark): header, rows, cells. */
import Papa from 'papaparse';

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

/** The rows of a table whose header is as asked, or what is wrong with it. Empty lines are skipped. */
export function readTable(file: string, text: string, columns: ColumnRule): { rows: TableRow[]; faults: TableFault[] } {
  const clean = text.replace(/^\uFEFF/, '');
  const refuse = (sentence: string, row: number | null = null) => ({
    rows: [],
    faults: [{ file, row, column: null, sentence }],
  });
  const expected = `${columns.required.join(',')}${columns.optional.length ? `, and if wanted ${columns.optional.join(',')}` : ''}`;
  if (clean.trim() === '') return refuse(`The file is empty: it needs a header row with ${expected}.`);
  if (/\u0000/.test(clean)) return refuse('The file is no CSV: it holds binary characters.');
  const firstLine = clean.slice(0, clean.search(/\r|\n|$/));
  const delimiter = [',', ';', '\t'].sort((a, b) => firstLine.split(b).length - firstLine.split(a).length)[0]!;
  const parsed = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: 'greedy' });
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken)
    return refuse('A quoted cell is not closed properly: quotes inside a cell are doubled.', (broken.row ?? 0) + 1);
  const header = parsed.data[0]!.map((h) => h.trim().toLowerCase());
  const missing = columns.required.filter((c) => !header.includes(c));
  if (missing.length > 0)
    return refuse(`The header lacks ${missing.map((c) => `'${c}'`).join(', ')}: it reads ${expected}.`, 1);
  const known = [...columns.required, ...columns.optional];
  const unknown = header.filter((h) => h !== '' && !known.includes(h));
  if (unknown.length > 0)
    return refuse(
      `The header has ${unknown.map((c) => `'${c}'`).join(', ')}, which is not known: it reads ${expected}.`,
      1,
    );
  const place = new Map(header.map((h, i) => [h, i]));
  const rows = parsed.data.slice(1).map((cells, i) => ({
    row: i + 2,
    cell: (column: string) => (cells[place.get(column) ?? -1] ?? '').trim(),
  }));
  return { rows, faults: [] };
}
