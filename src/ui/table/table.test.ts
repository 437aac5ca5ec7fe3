import fc from 'fast-check';
import { asCabled } from '../../demo/brackwater';
import { tableById } from '../../core/editing/tables';
import { filterRows, sortRows } from './order';
import { corners, inRange, single, stepped, within } from './range';

const demo = asCabled();
const bounds = { rows: 5, columns: 3 };

describe('a range of cells', () => {
  test('shift makes it grow from where it began, a plain key makes it one cell', () => {
    const start = single({ row: 1, column: 1 });
    const grown = stepped(start, { key: 'ArrowDown', shift: true, ctrl: false }, bounds, 4)!;
    expect(corners(grown)).toEqual({ top: 1, bottom: 2, left: 1, right: 1 });
    expect(stepped(grown, { key: 'ArrowRight', shift: false, ctrl: false }, bounds, 4)).toEqual(
      single({ row: 2, column: 2 }),
    );
  });
  test('no key leads out of the table', () => {
    const keys = fc.constantFrom(
      'ArrowUp',
      'ArrowDown',
      'ArrowLeft',
      'ArrowRight',
      'Home',
      'End',
      'PageUp',
      'PageDown',
    );
    fc.assert(
      fc.property(fc.array(fc.record({ key: keys, shift: fc.boolean(), ctrl: fc.boolean() })), (steps) => {
        let range = single({ row: 2, column: 1 });
        for (const step of steps) range = stepped(range, step, bounds, 4)!;
        const { top, bottom, left, right } = corners(range);
        expect(top >= 0 && left >= 0 && bottom < 5 && right < 3).toBe(true);
        expect(inRange(range, range.active.row, range.active.column)).toBe(true);
      }),
    );
  });
  test('a table that has become smaller takes the range back in, an empty one ends it', () => {
    expect(within(single({ row: 4, column: 2 }), { rows: 2, columns: 3 })).toEqual(single({ row: 1, column: 2 }));
    expect(within(single({ row: 0, column: 0 }), { rows: 0, columns: 3 })).toBeNull();
  });
  test('another key leads nowhere', () =>
    expect(stepped(null, { key: 'x', shift: false, ctrl: false }, bounds, 4)).toBeNull());
});

describe('rows shown', () => {
  const links = tableById('links');
  const switches = tableById('switches');
  test('every word of the filter has to be found', () => {
    expect(filterRows(links, demo, 'gate 1000')).toHaveLength(2);
    expect(filterRows(switches, demo, 'GATE')).toEqual(['gate']);
    expect(filterRows(switches, demo, 'nothing like it')).toEqual([]);
  });
  test('a word may be looked for in one column', () => {
    expect(filterRows(switches, demo, 'tier:core')).toEqual(['core-east', 'core-west']);
    expect(filterRows(links, demo, 'a_switch:gate')).toEqual(['gate:10--gate-camera']);
  });
  test('numbers are sorted as numbers, names as people count, empty cells last', () => {
    const ids = filterRows(switches, demo, '');
    const names = (column: string, down: boolean) =>
      sortRows(switches, demo, ids, { column, down }).map((id) =>
        switches.columns.find((c) => c.id === column)!.text(demo, switches.find(demo, id)!),
      );
    expect(names('ports', false).map(Number)).toEqual([...names('ports', false).map(Number)].sort((a, b) => a - b));
    expect(names('tier', false).slice(0, 4)).toEqual(['core', 'core', 'distribution', 'distribution']);
    expect(names('name', true)[0]).toBe('workshop');
    const priorities = names('priorities', true);
    expect(priorities.slice(-1)).toEqual(['']);
  });
});
