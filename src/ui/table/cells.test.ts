import { SWITCHES } from '../../core/editing/tables';
import type { Table } from '../../core/editing/tables';
import { asCabled } from '../../demo/brackwater';
import { filled, oneCell, textAt, textsOf } from './cells';
import type { Shown } from './cells';
import { single } from './range';

const design = asCabled();
const table = SWITCHES as unknown as Table;
const ids = design.switches.map((s) => s.id);
const shown: Shown = { table, design, ids };
const column = (id: string) => table.columns.findIndex((c) => c.id === id);
const cell = (row: number, id: string) => ({ row, column: column(id) });

test('a cell has the text of its element, and none below the last row', () => {
  expect(textAt(shown, 0, column('name'))).toBe(design.switches[0]!.name);
  expect(textAt(shown, ids.length, column('name'))).toBe('');
});

test('a range is read line by line, from whichever corner it was drawn', () => {
  const range = { anchor: cell(2, 'name'), active: cell(1, 'name') };
  expect(textsOf(shown, range)).toEqual([[design.switches[1]!.name], [design.switches[2]!.name]]);
});

test('one cell is written by the id of its row; below the last row there is none', () => {
  expect(oneCell(shown, 1, column('name'), 'x')).toEqual({ id: ids[1], cells: new Map([['name', 'x']]) });
  expect(oneCell(shown, ids.length, column('name'), 'x').id).toBeNull();
});

test('every row of a range gets the same line; columns that are calculated and the row for new ones are left out', () => {
  const all = {
    anchor: { row: ids.length - 1, column: 0 },
    active: { row: ids.length, column: table.columns.length - 1 },
  };
  const rows = filled(shown, all, (c) => `text ${c}`);
  expect(rows.map((r) => r.id)).toEqual([ids.at(-1)]);
  const calculated = table.columns.filter((c) => !c.set).map((c) => c.id);
  expect(calculated.length).toBeGreaterThan(0);
  for (const id of calculated) expect(rows[0]!.cells.has(id)).toBe(false);
  expect(rows[0]!.cells.get('mac')).toBe(`text ${column('mac')}`);
  expect(filled(shown, single(cell(0, 'name')), () => '')).toEqual([{ id: ids[0], cells: new Map([['name', '']]) }]);
});
