import { asCabled } from '../../demo/brackwater';
import { applyEdits, emptyDesign } from '../design';
import type { Design } from '../design';
import { exportCsv } from './csv-export';
import { exportGraphml } from './graphml-export';
import { intakeAsDesign, intakeInto } from './intake';

const demo = asCabled();
let n = 0;
const newId = (prefix: string) => `${prefix}-i${++n}`;
const SWITCHES = 'switch,mac,priority\nnorth,00:00:5e:00:53:a1,4096\nsouth,00:00:5e:00:53:a2,\n';
const LINKS = 'a_switch,a_port,b_switch,b_port,speed_mbps,vlans\nnorth,1,south,1,1000,1\nnorth,2,south,2,1000,1\n';
const csv = (file: string, text: string) => ({ file, text });

describe('a new design from files', () => {
  test('what a file is shows from what is in it, whatever it is called', () => {
    const intake = intakeAsDesign('x', [csv('b.txt', LINKS), csv('a.dat', SWITCHES)]);
    expect(intake.files.map((f) => [f.kind, f.comes])).toEqual([
      ['links', '2 links'],
      ['switches', '2 switches'],
    ]);
    expect(intake.design.links).toHaveLength(2);
  });
  test('rows with a fault stay out, with those that hang on them; the others come in', () => {
    const { files, design } = intakeAsDesign('x', [
      csv('s.csv', `${SWITCHES}west,00:00:5e:00:53:a2,2478\n`),
      csv('l.csv', `${LINKS}west,1,north,3,1000,1\nnorth,4,south,4,fast,1\n`),
    ]);
    expect(design.switches.map((s) => s.name)).toEqual(['north', 'south']);
    expect(design.links).toHaveLength(2);
    expect(files[0]!.rows.map((r) => r.fault !== null)).toEqual([false, false, true]);
    expect(files[1]!.faults.map((f) => [f.row, f.column]).sort()).toEqual([
      [4, 'a_switch'],
      [5, 'speed_mbps'],
    ]);
  });
  test('the demo goes out as tables and comes in whole', () => {
    const tables = exportCsv(demo);
    const { files, design } = intakeAsDesign('x', [
      csv('s', tables.switches),
      csv('l', tables.links),
      csv('v', tables.vlans),
    ]);
    expect(files.flatMap((f) => f.faults)).toEqual([]);
    expect(design.switches).toHaveLength(10);
    expect(design.links).toHaveLength(demo.links.filter((l) => 'port' in l.a && 'port' in l.b).length);
  });
  test('a graph is taken as it is, a table beside it is not', () => {
    const { files, design } = intakeAsDesign('x', [csv('g.graphml', exportGraphml(demo)), csv('s.csv', SWITCHES)]);
    expect(design.name).toBe('Brackwater Ferries');
    expect(files[1]!.faults[0]!.sentence).toMatch(/is a whole network/);
  });
  test.each([
    ['nothing', '', /The file is empty/],
    ['a picture', '\u0089PNG\r\n', /none that can be read/],
    ['JSON cut short', '{"format": "knot', /not complete JSON/],
    ['another JSON', '{"a": 1}', /not a Knot Path design/],
    ['a table with a strange heading', 'mac,colour\n', /header lacks 'switch'/],
  ])('%s is named with the reason', (_, text, sentence) =>
    expect(intakeAsDesign('x', [csv('f', text)]).files[0]!.faults[0]!.sentence).toMatch(sentence),
  );
});

/** The same network under other ids. */
function withOtherIds(design: Design): Design {
  const single = new Set(['id', 'switch', 'port', 'host', 'region', 'keepalive']);
  const listed = new Set(['members', 'ports', 'switches', 'peer']);
  const other = (value: unknown) => (typeof value === 'string' ? `x-${value}` : value);
  return JSON.parse(JSON.stringify(design), (key, value: unknown) =>
    single.has(key) ? other(value) : listed.has(key) && Array.isArray(value) ? value.map(other) : value,
  ) as Design;
}

describe('files into an open design', () => {
  test('rows that are there change, the others come in beside them, in one step', () => {
    const intake = intakeInto(
      demo,
      [
        csv('l.csv', 'a_switch,a_port,b_switch,b_port,speed_mbps\neast-1,1,quay-a,40,1000\nquay-b,4,gate,2,100\n'),
        csv('s.csv', 'switch,mac,priority\ngate,00:00:5e:00:53:32,8192\neast-1,00:00:5e:00:53:e1,\n'),
      ],
      newId,
    );
    expect(intake.files.flatMap((f) => f.faults)).toEqual([]);
    const { design } = intake;
    expect(design.switches.find((s) => s.name === 'gate')!.priority).toBe(8192);
    expect(design.switches.at(-1)!.name).toBe('east-1');
    expect(design.ports.find((p) => p.id === 'gate:2')!.speed).toBe(100);
    expect(applyEdits(demo, intake.edits)).toMatchObject({ ok: true, design });
  });
  test('a row that does not fit is named with its line in the file', () => {
    const { files, edits } = intakeInto(demo, [csv('s.csv', 'switch,mac\ngate,zz\nyard,00:00:5e:00:53:e2\n')], newId);
    expect(files[0]).toMatchObject({ comes: '1 switch', faults: [{ file: 's.csv', row: 2, column: 'mac' }] });
    expect(edits).toHaveLength(1);
  });
  test('another design comes in below, under names that are free', () => {
    const { design } = intakeInto(demo, [csv('other.json', JSON.stringify(demo))], newId);
    expect(design.switches).toHaveLength(20);
    expect(design.links).toHaveLength(2 * demo.links.length);
    expect(Math.min(...design.switches.slice(10).map((s) => s.y!))).toBeGreaterThan(
      Math.max(...demo.switches.map((s) => s.y!)),
    );
  });
  test('a design merged by names changes what differs and adds what is new, whatever its ids are', () => {
    const other = withOtherIds({ ...demo, goals: [], scripts: [], demands: [] });
    expect(other.switches.map((s) => s.name)).toEqual(demo.switches.map((s) => s.name));
    expect(other.switches.map((s) => s.id)).not.toEqual(demo.switches.map((s) => s.id));
    const same = intakeInto(demo, [csv('same.json', JSON.stringify(other))], newId, 'merge');
    expect([same.edits, same.files[0]]).toEqual([[], expect.objectContaining({ comes: 'nothing', faults: [] })]);
    const changed: Design = {
      ...other,
      switches: [
        ...other.switches.map((s) => (s.name === 'gate' ? { ...s, priority: 8192, x: 9, y: 9 } : s)),
        { id: 'yard', name: 'yard', mac: '00:00:5e:00:53:e9' },
      ],
    };
    const { design, edits, files } = intakeInto(demo, [csv('m.json', JSON.stringify(changed))], newId, 'merge');
    expect(files[0]!.comes).toBe('1 new thing and 1 change of what is here');
    expect(edits).toHaveLength(2);
    const gate = (d: Design) => d.switches.find((s) => s.name === 'gate')!;
    expect(gate(design)).toEqual({ ...gate(demo), priority: 8192 });
    expect(design.switches.at(-1)!.name).toBe('yard');
  });
  test('a merged design that contradicts what is here comes in where it fits, and the rest is said', () => {
    const [link] = demo.links;
    const port = (link!.a as { port: string }).port;
    const other: Design = {
      ...demo,
      links: [{ ...link!, id: 'other', b: { host: demo.hosts[0]!.id } }, ...demo.links.slice(1)],
    };
    const { files, design } = intakeInto(demo, [csv('m.json', JSON.stringify(other))], newId, 'merge');
    expect(files[0]!.faults.length).toBeGreaterThan(0);
    expect(design.links.filter((l) => [l.a, l.b].some((e) => 'port' in e && e.port === port))).toHaveLength(1);
  });
  test('lists of neighbours with one name are of the switches that their folders are named after', () => {
    const list = JSON.stringify({
      lldp: {
        interface: {
          p1: {
            chassis: { far: { id: { type: 'local', value: 'far' } } },
            port: { id: { type: 'ifname', value: 'p9' } },
          },
        },
      },
    });
    const { receptions } = intakeInto(
      emptyDesign('x'),
      ['site/quay-1/lldp.json', 'site/quay-2/lldp.json'].map((file) => ({ file, text: list })),
      newId,
    );
    expect(receptions.map((r) => r.from)).toEqual(['quay-1', 'quay-2']);
  });
  test('neighbours are kept apart from the design', () => {
    const { receptions, edits } = intakeInto(
      emptyDesign('x'),
      [csv('n.csv', 'switch,port,neighbour,neighbour_port\na,1,b,1\n')],
      newId,
    );
    expect([receptions.length, edits.length]).toEqual([1, 0]);
  });
});
