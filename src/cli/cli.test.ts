import { file, folder, printed } from '../../tests/support/command-line';
import { readFileSync, existsSync } from 'node:fs';
import path from 'node:path';
import { applyEdits, differenceBetween, setField } from '../core/design';
import { asCabled, asMeant } from '../demo/brackwater';
import { openDatabase } from '../server/database';
import { createDesign } from '../server/designs';
import { applyStep } from '../server/variants';
import { backup, restore } from './backup';
import { bundles } from './bundles';
import { check } from './check';
import { diff } from './diff';
import { digest } from './digest';
import { exportDesign } from './export';
import { goals, propose } from './goals';
import { history } from './history';
import { importTables } from './import';
import { neighbours } from './neighbours';
import { solve } from './solve';

const demo = file('demo.json', JSON.stringify(asCabled()));

test('solve prints every tree as JSON with names, roles and states', async () => {
  expect(await solve(demo, { json: true })).toBe(0);
  const { trees } = JSON.parse(printed.out);
  expect(trees.map((t: { id: string }) => t.id)).toEqual([
    'vlan-110',
    'vlan-120',
    'vlan-130',
    'vlan-140',
    'vlan-150',
    'vlan-160',
    'vlan-199',
  ]);
  expect(Object.keys(trees[0])).toEqual(['id', 'vlans', 'root', 'switches', 'ports']);
  expect(Object.keys(trees[0].ports[0])).toEqual([
    'switch',
    'port',
    'role',
    'state',
    'cost',
    'designatedSwitch',
    'designatedPort',
  ]);
});

test('one tree is chosen by its id or its VLAN, and an unknown one is refused with those there are', async () => {
  expect(await solve(demo, { json: true, tree: 'vlan-199' })).toBe(0);
  expect(JSON.parse(printed.out).trees[0].root).toBe('workshop');
  printed.out = '';
  await solve(demo, { tree: '130' });
  expect(printed.out).toMatch(/^Tree vlan-130: core-east is root/);
  expect(await solve(demo, { tree: '7' })).toBe(1);
  expect(printed.err).toContain("there is no tree '7': the design has vlan-110, vlan-120");
});

test('check says what is wrong, one line a fault with file and path', async () => {
  expect(await check(demo)).toBe(0);
  expect(printed.out).toContain('10 switches, 24 links, 7 VLANs');
  const broken = asCabled();
  broken.switches[1]!.priority = 2478;
  broken.vlans[0]!.number = 4095;
  const bad = file('bad.json', JSON.stringify(broken));
  expect(await check(bad)).toBe(1);
  const lines = printed.out.trim().split('\n').slice(1);
  expect(lines).toHaveLength(2);
  expect(lines.join('\n')).toContain(`${bad}: switches[1].priority: Bridge priority 2478`);
  expect(await check(path.join(folder, 'none.json'))).toBe(1);
  expect(printed.err).toContain('there is no such file');
});

test('import writes a design only when every row came in', async () => {
  const switches = file('s.csv', 'switch,mac,priority\na,00:00:5e:00:53:01,4096\nb,00:00:5e:00:53:02,\n');
  const links = file('l.csv', 'a_switch,a_port,b_switch,b_port,speed_mbps\na,1,b,1,1000\n');
  const bad = file('bad.csv', 'a_switch,a_port,b_switch,b_port,speed_mbps\na,1,c,1,1000\n');
  const target = path.join(folder, 'out.json');
  expect(await importTables({ switches, links: bad, out: target })).toBe(1);
  expect(printed.err).toContain(`${bad}, row 2, b_switch: There is no switch 'c'`);
  expect(existsSync(target)).toBe(false);
  expect(await importTables({ switches, links, out: target })).toBe(0);
  expect(JSON.parse(readFileSync(target, 'utf8')).name).toBe('out');
  printed.out = '';
  expect(await solve(target, { json: true })).toBe(0);
  expect(JSON.parse(printed.out).trees[0].root).toBe('a');
});

test('export writes GraphML and RFC 8345, and says which formats there are', async () => {
  expect(await exportDesign(demo, { format: 'graphml' })).toBe(0);
  expect(printed.out).toContain('<graphml');
  const to = path.join(folder, 'topology.json');
  expect(await exportDesign(demo, { format: 'topology', out: to })).toBe(0);
  expect(JSON.parse(readFileSync(to, 'utf8'))).toHaveProperty(['ietf-network:networks']);
  const only = path.join(folder, 'only.json');
  expect(await exportDesign(demo, { format: 'openconfig', since: demo, out: only })).toBe(0);
  expect(JSON.parse(readFileSync(only, 'utf8'))).toEqual({});
  expect(await exportDesign(demo, { format: 'links', since: demo })).toBe(1);
  expect(printed.err).toContain('only what differs of openconfig and ieee-yang can be written');
  expect(await exportDesign(demo, { format: 'png' })).toBe(1);
  expect(printed.err).toContain(
    "Format 'png' is not known: it is one of json, graphml, topology, linux-lab, openconfig, ieee-yang, settings, networkd, switches, links, vlans.",
  );
});

test('neighbours are held against the drawing; a difference gives status 1', async () => {
  const head = 'switch,port,neighbour,neighbour_port\n';
  const same = file('same.csv', `${head}gate,1,quay-a,4\ngate,2,quay-b,4\n`);
  expect(await neighbours(demo, [same], {})).toBe(0);
  expect(printed.out).toContain('as drawn     gate 1 – quay-a 4');
  const other = file('other.csv', `${head}gate,1,quay-a,9\ngate,2,quay-b,4\n`);
  expect(await neighbours(demo, [other], { json: true })).toBe(1);
  expect(printed.out).toContain('"verdict":"other port"');
  expect(await neighbours(demo, [file('broken.json', '{"lldp"')], {})).toBe(1);
  expect(printed.err).toContain('holds no list of LLDP neighbours');
});

test('goals tells each goal with its state, and ends with 1 when one is broken', async () => {
  expect(await goals(demo, {})).toBe(1);
  expect(printed.out.split('\n').filter((l) => l.startsWith('broken'))).toHaveLength(2);
  expect(printed.out).toContain('met     core-east is root of VLANs 110, 120, 130, core-west comes next.');
  printed.out = '';
  expect(await goals(file('meant.json', JSON.stringify(asMeant())), { json: true })).toBe(0);
  expect(JSON.parse(printed.out).goals.map((g: { state: string }) => g.state)).toEqual(Array(6).fill('met'));
});

test('propose prints edits that another run of goals finds met', async () => {
  expect(await propose(demo, { json: true })).toBe(0);
  const { broken, proposals } = JSON.parse(printed.out);
  expect([broken, proposals[0].settings]).toEqual([2, 2]);
  const applied = applyEdits(asCabled(), proposals[0].edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  expect(await goals(file('proposed.json', JSON.stringify(applied.design)), {})).toBe(0);
  printed.out = '';
  await propose(demo, {});
  expect(printed.out).toMatch(/^Proposal 1: 2 settings on 2 switches\n {2}workshop: priority \d+\n/);
});

test('propose ends with 1 and names goals that contradict each other', async () => {
  const design = asMeant();
  design.goals = ['gate', 'quay-a'].map((id) => ({ id, type: 'root', vlans: '110', switch: id }));
  expect(await propose(file('contradiction.json', JSON.stringify(design)), {})).toBe(1);
  expect(printed.out).toMatch(/contradict each other in VLAN 110/);
});

test('digest prints the value of every region and switch, one that differs with its own', async () => {
  const design = asMeant();
  design.mode = 'mstp';
  design.regions = [{ id: 'r', name: 'port', revision: 7, map: {} }];
  design.switches[3]!.vlanInstance = { '110': 1 };
  expect(await digest(file('mst.json', JSON.stringify(design)), { json: true })).toBe(0);
  const { regions, switches } = JSON.parse(printed.out);
  expect(regions).toEqual([{ region: 'port', revision: 7, digest: 'AC36177F50283CD4B83821D8AB26DE62' }]);
  const digests = switches.map((s: { digest: string }) => s.digest);
  expect(new Set(digests).size).toBe(2);
  expect(digests.filter((d: string) => d !== regions[0].digest)).toHaveLength(1);
  printed.out = '';
  await digest(demo, {});
  expect(printed.out).toBe('The design has no region, and no switch of it runs MSTP.\n');
});

test('diff tells what leads from one design to the other and what it moves; 0 when they are alike', async () => {
  const meant = file('meant.json', JSON.stringify(asMeant()));
  expect(await diff(demo, meant, {})).toBe(1);
  expect(printed.out).toContain('signal-tower 1: cost back to the default');
  expect(printed.out).toMatch(/tree vlan-199: root workshop → core-west, \d+ ports change their role/);
  printed.out = '';
  expect(await diff(demo, demo, {})).toBe(0);
  expect(printed.out).toBe('The designs are the same.\n');
  printed.out = '';
  expect(await diff(demo, meant, { json: true })).toBe(1);
  const applied = applyEdits(asCabled(), JSON.parse(printed.out).edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  expect(differenceBetween(applied.design, asMeant())).toEqual([]);
  expect(await diff(demo, path.join(folder, 'nowhere.json'), {})).toBe(2);
});

test('bundles tells the verdict at both ends and of each member; 1 when one does not form', async () => {
  expect(await bundles(demo, { json: true })).toBe(0);
  const rows = JSON.parse(printed.out).bundles;
  expect(rows.map((r: { switch: string; outcome: string }) => [r.switch, r.outcome])).toEqual([
    ['core-east', 'forms'],
    ['core-west', 'forms'],
    ['quay-b', 'forms'],
    ['cold-store', 'forms'],
  ]);
  expect(rows[2].members[1]).toMatchObject({ port: '9', far: null, state: 'down' });
  const design = asCabled();
  for (const b of design.bundles) b.activity = 'passive';
  printed.out = '';
  expect(await bundles(file('passive.json', JSON.stringify(design)), {})).toBe(1);
  expect(printed.out).toContain('core-east to-core-west: never comes up. Both ends are passive');
});

describe('history and copies of a database', () => {
  const at = path.join(folder, 'history.sqlite');
  let variant = '';
  beforeAll(() => {
    process.env.KNOT_PATH_DB = at;
    const db = openDatabase(at);
    let n = 0;
    const made = createDesign(db, 'Harbour', [{ name: 'v', design: asCabled() }], () => `c${++n}`, 1);
    variant = made.variants[0]!.id;
    [4096, 8192].forEach((value, revision) =>
      applyStep(
        db,
        variant,
        { revision, client: 'c', author: 'Mira' },
        `to ${value}`,
        [setField('switch', 'gate', 'priority', value)],
        60_000,
      ),
    );
    db.$client.close();
  });
  afterAll(() => {
    delete process.env.KNOT_PATH_DB;
  });

  test('steps are listed with who and when, a state is printed, and what differs', async () => {
    expect(await history('Harbour', {})).toBe(0);
    expect(printed.out).toBe('2\t1970-01-01 00:01\tMira\tto 8192\n1\t1970-01-01 00:01\tMira\tto 4096\n');
    printed.out = '';
    expect(await history('Harbour', { state: '0' })).toBe(0);
    expect(JSON.parse(printed.out)).toEqual(asCabled());
    printed.out = '';
    expect(await history('Harbour', { from: '1' })).toBe(0);
    expect(printed.out).toBe('gate: priority 8192\n');
    expect(await history('Harbour', { state: '9' })).toBe(1);
    expect(await history('Nowhere', {})).toBe(1);
    expect(await history('Harbour', { variant: 'w' })).toBe(1);
    expect(printed.err).toBe(
      "States run from 0 to 2: give whole numbers in that range.\nThere is no design 'Nowhere': there are 'Harbour'.\nDesign 'Harbour' has no variant 'w': it has 'v'.\n",
    );
  });

  test('a state is named, copied as a variant, and gone back to', async () => {
    expect(await history('Harbour', { state: '1', name: 'reviewed' })).toBe(0);
    expect(await history('Harbour', { state: '0', copy: 'as it began' })).toBe(0);
    expect(await history('Harbour', { goBack: '1' })).toBe(0);
    expect(printed.out).toBe(
      "State 1 is called 'reviewed'.\nMade variant 'as it began' from state 0.\nState 3 is what state 1 was.\n",
    );
    printed.out = '';
    await history('Harbour', {});
    expect(printed.out).toContain('to 4096 (reviewed)');
  });

  test('a copy is made and restored, and what is no copy is refused', async () => {
    const copy = path.join(folder, 'copy.sqlite');
    expect(await backup(copy)).toBe(0);
    expect(await restore(copy)).toBe(0);
    expect(printed.out).toMatch(
      /Copied .* 1 design\.\nRestored .* 1 design\.\nWhat was there before is kept as .*before-restore/s,
    );
    expect(await restore(demo)).toBe(1);
    expect(printed.err).toMatch(/demo\.json cannot be restored: .* Nothing was changed\./);
    expect(await backup(path.join(folder, 'no', 'such', 'folder.sqlite'))).toBe(1);
  });
});
