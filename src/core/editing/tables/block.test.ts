import fc from 'fast-check';
import { asCabled } from '../../../demo/brackwater';
import { applyEdits, integrityFaults } from '../../design';
import { LINKS } from './links';
import { PORTS } from './ports';
import { SWITCHES } from './switches';
import { TABLES } from './tables';
import { headingOf, readBlock, renames, rowsOfBlock, writeBlock } from './block';
import { writeRows } from './paste';
import type { Table } from './column';

const demo = asCabled();
const ids = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-new${++n}`;
};
const any = (table: unknown) => table as Table;

describe('blocks', () => {
  const anchor = (table: Table, from: string, column: string, design = demo) => {
    const rows = table.rows(design).map((r) => r.id);
    const columns = table.columns.map((c) => c.id);
    return { ids: rows.slice(rows.indexOf(from)), columns: columns.slice(columns.indexOf(column)) };
  };
  test('a block goes to the right and down from where it is put, and beyond the last row makes new ones', () => {
    const table = any(SWITCHES);
    const block = readBlock(table, 'west\t00:00:5e:00:53:aa\nnorth\t00:00:5e:00:53:ab\n');
    const { rows } = rowsOfBlock(demo, table, block, anchor(table, 'workshop', 'name'));
    const change = writeRows(demo, table, rows, ids());
    expect(change.design.switches.slice(-2).map((s) => s.name)).toEqual(['west', 'north']);
    expect([change.changed, change.created.length]).toEqual([1, 1]);
  });
  test('a block with a heading finds its rows by name, in any order of columns', () => {
    const table = any(SWITCHES);
    const block = readBlock(table, 'Priority\tSwitch\n4096\tgate\n8192\tyard\n');
    const change = writeRows(demo, table, rowsOfBlock(demo, table, block, { ids: [], columns: [] }).rows, ids());
    expect(change.design.switches.find((s) => s.name === 'gate')!.priority).toBe(4096);
    expect(change.design.switches.at(-1)).toMatchObject({ name: 'yard', priority: 8192 });
  });
  test('cells that do not fit are refused one by one, the others are kept in one step', () => {
    const table = any(PORTS);
    const block = readBlock(table, '100\n1-x\nfast\n10000\n');
    const { rows } = rowsOfBlock(demo, table, block, anchor(table, 'core-east:1', 'speed'));
    const change = writeRows(demo, table, rows, ids());
    expect(change.refused.map((r) => [r.row, r.column, r.text])).toEqual([
      [1, 'speed', '1-x'],
      [2, 'speed', 'fast'],
    ]);
    expect(change.design.ports.slice(0, 4).map((p) => p.speed)).toEqual([100, 10_000, 10_000, 10_000]);
    expect(applyEdits(demo, change.edits)).toMatchObject({ ok: true, design: change.design });
  });
  test('copied cells come back as they were, line breaks and quotes included', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 8 }), { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 5 }),
        (rows) => {
          const square = rows.map((r) => r.slice(0, 2).map((c) => c.replace(/[\t\r\n\uFEFF]/g, ' ')));
          expect(readBlock(any(SWITCHES), `${writeBlock(square)}\n`)).toEqual(square);
        },
      ),
    );
  });
  test('headings are known by title and by other names', () => {
    const { columns, unknown } = headingOf(any(LINKS), ['A: switch', 'a_port', 'Speed Mbps'])!;
    expect([columns, unknown]).toEqual([['a_switch', 'a_port', 'speed'], []]);
    expect(headingOf(any(LINKS), ['gate', '1', 'x'])).toBeNull();
    expect(headingOf(any(SWITCHES), ['gate', 'core', 'stp'])).toBeNull();
  });
  test('a heading that the table does not have is named, what stands under it left out, and no switch gets another name', () => {
    const table = any(SWITCHES);
    const block = readBlock(table, 'Switch\tPriority\tLocation\ngate\t4096\tB\nyard\t8192\tC\n');
    const { rows, unknown } = rowsOfBlock(demo, table, block, anchor(table, 'core-east', 'name'));
    expect(unknown).toEqual(['Location']);
    expect(renames(demo, table, rows)).toBe(false);
    const change = writeRows(demo, table, rows, ids());
    expect(change.refused).toEqual([]);
    expect(change.design.switches.map((s) => s.name)).toEqual([...demo.switches.map((s) => s.name), 'yard']);
  });
  test.each([',', ';', '\t'])('cells separated by %j are read as such, with and without a heading', (mark) => {
    const table = any(SWITCHES);
    const lines = [
      ['Switch', 'Priority', 'Location'],
      ['gate', '4096', 'B'],
      ['yard', '8192', 'C'],
    ].map((line) => line.join(mark));
    expect(readBlock(table, lines.join('\n'))[0]).toEqual(['Switch', 'Priority', 'Location']);
    expect(readBlock(table, lines.slice(1).join('\r\n'))).toEqual([
      ['gate', '4096', 'B'],
      ['yard', '8192', 'C'],
    ]);
  });
  test('lists of VLANs stay in one cell each', () => {
    expect(readBlock(any(LINKS), '10,20\n30,40-50\n')).toEqual([['10,20'], ['30,40-50']]);
  });
  test('pasted over the names of what is there, a block gives them other names', () => {
    const table = any(SWITCHES);
    const block = readBlock(table, 'north\nsouth\n');
    const over = rowsOfBlock(demo, table, block, anchor(table, 'core-east', 'name'));
    expect(renames(demo, table, over.rows)).toBe(true);
    const below = rowsOfBlock(demo, table, block, { ids: [], columns: ['name'] });
    expect(renames(demo, table, below.rows)).toBe(false);
  });
  test('every table pasted over itself changes nothing', () => {
    for (const table of TABLES) {
      const rows = table.rows(demo).map((row) => ({
        id: row.id,
        cells: new Map(table.columns.map((c) => [c.id, c.text(demo, row)] as const)),
      }));
      const change = writeRows(demo, table, rows, ids());
      expect([table.id, change.refused, change.edits]).toEqual([table.id, [], []]);
    }
  });
  test('whatever is pasted wherever, the design stays right and undo leads back', () => {
    const words = fc.oneof(
      fc.string({ maxLength: 8 }),
      fc.integer({ min: -5, max: 70_000 }).map(String),
      fc.constantFrom(
        'gate',
        'quay-a',
        '1',
        '110',
        'yes',
        'all',
        '110-140,199',
        '00:00:5e:00:53:99',
        'core',
        'x'.repeat(300),
      ),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...TABLES),
        fc.nat(),
        fc.nat(),
        fc.array(fc.array(words, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 5 }),
        (table, r, c, block) => {
          const rows = [...table.rows(demo).map((e) => e.id), null];
          const from = r % rows.length;
          const start = c % table.columns.length;
          const lines = block.map((line, i) => ({
            id: rows[from + i] ?? null,
            cells: new Map(
              line.flatMap((text, k) =>
                table.columns[start + k] ? [[table.columns[start + k]!.id, text] as const] : [],
              ),
            ),
          }));
          const change = writeRows(demo, table, lines, ids());
          expect(integrityFaults(change.design)).toEqual([]);
          for (const { sentence } of change.refused) expect(sentence).toMatch(/[.)]$/);
          if (change.edits.length === 0) return;
          const applied = applyEdits(demo, change.edits);
          if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
          const back = applyEdits(applied.design, applied.inverse);
          expect(back.ok && back.design).toEqual(demo);
        },
      ),
      { numRuns: 400 },
    );
  });
});
