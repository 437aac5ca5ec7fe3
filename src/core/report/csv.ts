/** Rows as text for spreadsheets (RFC 4180). */
import Papa from 'papaparse';

/** What a spreadsheet would take for a formula; a number with a sign is none. */
const FORMULA = /^(?![+-]\d+([.,]\d+)?$)[=+\-@\t\r]/;

/** Cells that would be run as formulas get an apostrophe before them. */
export const csvText = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(rows as string[][], { newline: '\r\n', escapeFormulae: FORMULA })}\r\n`;
