/** What other rooms use of editing/tables. */
export { speedCell } from './column';
export type { Column, Table, TableId } from './column';
export { DEMANDS } from './demands';
export { LINKS } from './links';
export { VLANS } from './others';
export { changesOf, readBlock, renames, rowsOfBlock, writeBlock } from './block';
export type { BlockRows } from './block';
export { writeRows } from './paste';
export type { CellRefusal, RowText } from './paste';
export { unlikeSettings, usualOf } from './likeness';
export { SWITCHES } from './switches';
export { TABLES, tableById } from './tables';
