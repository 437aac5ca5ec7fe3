import { asCabled } from '../../../demo/brackwater';
import { emptyDesign, linkAt, linkSpeed, priorityInForce } from '../../design';
import type { Design } from '../../design';
import { HOSTS, SEGMENTS, VLANS } from './others';
import { LINKS } from './links';
import { PORTS } from './ports';
import { SWITCHES } from './switches';
import { tableById } from './tables';
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
    ['what a note is about', 'notes', 'workshop-key', 'about', 'ticket-hall; gate', 'ticket-hall, gate'],
    ['a link that a note is about', 'notes', 'workshop-key', 'about', 'quay-a 4 – gate 1', 'quay-a 4 – gate 1'],
    ['the form of a note', 'notes', 'workshop-key', 'form', 'box', 'box'],
    ['a layer', 'notes', 'workshop-key', 'layer', ' keys ', 'keys'],
    ['a note hidden', 'notes', 'workshop-key', 'hidden', 'yes', 'yes'],
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

test('a row of notes needs words, and speaks of what there is', () => {
  const made = write(tableById('notes'), null, { text: 'Spare pair', about: 'quay-a, quay-b', layer: 'ducts' });
  expect(made.refused).toEqual([]);
  expect(made.design.notes.at(-1)).toMatchObject({ text: 'Spare pair', about: ['quay-a', 'quay-b'], layer: 'ducts' });
  expect(refusal(tableById('notes'), null, { about: 'gate' })).toBe('A note needs words.');
  expect(refusal(tableById('notes'), 'workshop-key', { about: 'attic' })).toContain(
    "no switch, host, segment or link 'attic'",
  );
});
