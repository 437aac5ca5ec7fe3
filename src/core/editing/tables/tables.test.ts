import fc from 'fast-check';
import { asCabled } from '../../../demo/brackwater';
import { applyEdits, emptyDesign, integrityFaults, linkAt, linkSpeed, priorityInForce } from '../../design';
import type { Design } from '../../design';
import { HOSTS, SEGMENTS, VLANS } from './others';
import { LINKS } from './links';
import { PORTS } from './ports';
import { SWITCHES } from './switches';
import { TABLES, tableById } from './tables';
import { headingOf, readBlock, renames, rowsOfBlock, writeBlock } from './block';
import { writeRows } from './paste';
import type { Table, TableId } from './column';

const demo = asCabled();
const ids = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-new${++n}`;
};
const any = (table: unknown) => table as Table;
const cell = (design: Design, table: unknown, id: string, column: string) =>
  any(table)
    .columns.find((c) => c.id === column)!
    .text(design, any(table).find(design, id)!);
/** Writes cells of one row. */
const write = (table: unknown, id: string | null, cells: Record<string, string>, design = demo) =>
  writeRows(design, any(table), [{ id, cells: new Map(Object.entries(cells)) }], ids());
const refusal = (table: unknown, id: string | null, cells: Record<string, string>, design = demo) =>
  write(table, id, cells, design).refused[0]?.sentence ?? '';

describe('typing into a cell', () => {
  test.each<[string, TableId, string, string, string, string]>([
    ['a name', 'switches', 'gate', 'name', 'main-gate', 'main-gate'],
    ['a MAC in another spelling', 'switches', 'gate', 'mac', '0000.5e00.53AA', '00:00:5e:00:53:aa'],
    ['the start of a tier', 'switches', 'gate', 'tier', 'dist', 'distribution'],
    ['a speed with its unit', 'ports', 'gate:1', 'speed', '2.5G', '2500'],
    ['half duplex', 'ports', 'gate:1', 'duplex', 'half', 'half'],
    ['ranges of VLANs, put in order', 'ports', 'gate:1', 'vlans', '199, 110-120,115', '110-120,199'],
    ['an untagged VLAN', 'ports', 'gate:1', 'native', '199', '199'],
    ['yes', 'ports', 'gate:1', 'down', 'x', 'yes'],
    ['a guard', 'ports', 'gate:1', 'silenceGuard', 'yes', 'yes'],
    ['no guard, whatever the switch gives', 'ports', 'gate:1', 'bpduGuard', 'no', 'no'],
    ['the start of an action', 'ports', 'gate:1', 'oneWay', 'sh', 'shut'],
    ['a timer', 'switches', 'gate', 'maxAge', '18', '18'],
    ['a recovery', 'switches', 'gate', 'guardRecovery', '45', '45'],
    ['a cost with a blank in it', 'ports', 'gate:1', 'cost', '20 000', '20000'],
    ['the VLANs of one end', 'links', 'quay-b:4--gate:2', 'b_vlans', '110', '110'],
    ['the hue of a VLAN', 'vlans', 'v110', 'hue', 'Rose', 'rose'],
    ['the VLAN of a host', 'hosts', 'recorder', 'vlan', '199', '199'],
  ])('%s', (_, table, id, column, typed, shown) => {
    const change = write(tableById(table), id, { [column]: typed });
    expect(change.refused).toEqual([]);
    expect(cell(change.design, tableById(table), id, column)).toBe(shown);
  });
  test('a priority typed holds in every tree', () => {
    const { design } = write(SWITCHES, 'core-east', { priority: '4096' });
    const at = design.switches.find((s) => s.id === 'core-east')!;
    expect([110, 140, 199].map((vlan) => priorityInForce(design, at, { vlan, instance: null }).value)).toEqual([
      4096, 4096, 4096,
    ]);
  });
  test('the speed of a link sets both ends; what is shown is the lower of them', () => {
    const slow = write(PORTS, 'gate:1', { speed: '100' }).design;
    const link = linkAt(slow, 'gate:1')!;
    expect(linkSpeed(slow, link)).toBe(100);
    const both = write(LINKS, link.id, { speed: '10G' }, slow).design;
    expect(both.ports.filter((p) => linkAt(both, p.id) === linkAt(both, 'gate:1')).map((p) => p.speed)).toEqual([
      10_000, 10_000,
    ]);
  });
  test('a port can be moved to another switch and takes a free number there', () => {
    const { design } = write(PORTS, 'gate:10', { switch: 'crane-yard' });
    const moved = design.ports.find((p) => p.id === 'gate:10')!;
    expect([moved.switch, moved.number === 10, linkAt(design, 'gate:10')?.id]).toEqual([
      'crane-yard',
      false,
      'gate:10--gate-camera',
    ]);
  });
  test('a link is plugged into another port by naming it; a port that is not there comes into being', () => {
    const { design } = write(LINKS, 'quay-b:4--gate:2', { b_switch: 'crane-yard', b_port: '48' });
    const port = design.ports.at(-1)!;
    expect([port.switch, port.name, port.number, linkAt(design, port.id)?.id]).toEqual([
      'crane-yard',
      '48',
      48,
      'quay-b:4--gate:2',
    ]);
    expect(linkAt(design, 'gate:2')).toBeUndefined();
  });
});

describe('a cell that does not take a text says why', () => {
  test.each<[string, TableId, string, Record<string, string>, RegExp]>([
    ['a priority off the steps', 'switches', 'gate', { priority: '2478' }, /steps of 4096.*nearest is 4096/],
    ['a priority in words', 'switches', 'gate', { priority: 'low' }, /'low' is not a number/],
    ['a name of 300 characters', 'switches', 'gate', { name: 'x'.repeat(300) }, /300 characters/],
    ['a storm limit above all', 'ports', 'gate:1', { stormLimit: '120' }, /Storm limit 120 is not legal/],
    ['a recovery at once', 'switches', 'gate', { guardRecovery: '5' }, /Recovery after 5 is not legal/],
    ['a taken MAC', 'switches', 'gate', { mac: '00:00:5e:00:53:21' }, /same MAC address/],
    [
      'a VLAN range with letters',
      'ports',
      'gate:1',
      { vlans: '110-abc' },
      /cannot be read at '110-abc' \(not a number\)/,
    ],
    ['VLAN 4095', 'ports', 'gate:1', { vlans: '1,4095' }, /numbers run from 1 to 4094/],
    ['a speed of nothing', 'ports', 'gate:1', { speed: 'fast' }, /Speed 'fast' is not legal/],
    ['a duplex of no kind', 'ports', 'gate:1', { duplex: 'both' }, /one of full, half/],
    ['a taken port number', 'ports', 'gate:1', { number: '2' }, /port number 2 twice/],
    ['a switch that is not there', 'ports', 'gate:1', { switch: 'nowhere' }, /no switch 'nowhere'/],
    [
      'two ends with one port',
      'links',
      'quay-b:4--gate:2',
      { b_switch: 'quay-b', b_port: '4' },
      /Both ends of the link|two different ends/,
    ],
    ['a port with a cable', 'links', 'quay-b:4--gate:2', { b_port: '1' }, /has a cable already \(quay-a 4 – gate 1\)/],
    ['a VLAN of letters', 'hosts', 'recorder', { vlan: 'x' }, /VLAN 'x' is not legal/],
    ['what is worked out', 'switches', 'gate', { ports: '12' }, /is calculated/],
    ['a taken VLAN number', 'vlans', 'v110', { number: '120' }, /VLAN 120 is listed twice/],
  ])('%s', (_, table, id, cells, sentence) => expect(refusal(tableById(table), id, cells)).toMatch(sentence));
});

describe('new rows', () => {
  test('a switch with nothing said has a free name, a stand-in address and a place', () => {
    const made = write(SWITCHES, null, {}).design.switches.at(-1)!;
    expect(made).toMatchObject({
      name: 'switch-1',
      mac: expect.stringMatching(/^00:00:5e:00:53/),
      x: expect.any(Number),
    });
  });
  test('a link by names makes the ports it needs', () => {
    const { design, created } = write(LINKS, null, {
      a_switch: 'gate',
      a_port: 'up-9',
      b_switch: 'workshop',
      speed: '1G',
      vlans: '110',
    });
    expect(created).toEqual([design.links.at(-1)!.id]);
    expect(design.ports.slice(-2).map((p) => [p.switch, p.name, p.number, p.vlans])).toEqual([
      ['gate', 'up-9', 9, '110'],
      ['workshop', '3', 3, '110'],
    ]);
  });
  test('a link to a host has an edge port in the VLAN of the host', () => {
    const { design } = write(LINKS, null, { a_switch: 'gate', b_switch: 'recorder' });
    expect(design.ports.at(-1)).toMatchObject({ edge: true, native: 130, vlans: '130' });
  });
  test('rows with a segment attach to it, and it comes into being once', () => {
    const rows = ['gate', 'workshop', 'crane-yard'].map((a) => ({
      id: null,
      cells: new Map([
        ['a_switch', a],
        ['segment', 'hub'],
      ]),
    }));
    const { design } = writeRows(demo, any(LINKS), rows, ids());
    expect(design.segments).toMatchObject([
      { name: 'hub', ports: [expect.any(String), expect.any(String), expect.any(String)] },
    ]);
  });
  test.each<[string, TableId, Record<string, string>, RegExp]>([
    ['a link to a missing switch', 'links', { a_switch: 'gate', b_switch: 'missing' }, /no switch or host 'missing'/],
    ['a link with one end', 'links', { a_switch: 'gate' }, /needs a switch or a host at both ends/],
    [
      'a link with one port twice',
      'links',
      { a_switch: 'gate', a_port: '30', b_switch: 'gate', b_port: '30' },
      /used already|two different ends/,
    ],
    ['a port without a switch', 'ports', { name: '7' }, /needs a switch/],
    ['a port that is there', 'ports', { switch: 'gate', name: '1' }, /has a port '1' already/],
    ['VLAN 0', 'vlans', { number: '0' }, /VLAN 0 is not legal/],
  ])('%s is refused', (_, table, cells, sentence) => expect(refusal(tableById(table), null, cells)).toMatch(sentence));
  test('4 095 VLANs: 4 094 of them come in', () => {
    const rows = Array.from({ length: 4095 }, (_, i) => ({ id: null, cells: new Map([['number', String(i + 1)]]) }));
    const empty = { ...emptyDesign('x'), vlans: [] };
    const change = writeRows(empty, any(VLANS), rows, ids());
    expect(change.created).toHaveLength(4094);
    expect(change.refused.map((r) => [r.row, r.sentence.slice(0, 9)])).toEqual([[4094, 'VLAN 4095']]);
  });
  test('hosts and segments have free names', () => {
    expect(write(HOSTS, null, {}).design.hosts.at(-1)!.name).toBe('host-1');
    expect(write(SEGMENTS, null, {}).design.segments.at(-1)!.name).toBe('segment-1');
  });
});

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
