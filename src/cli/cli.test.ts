import { mkdtempSync, readFileSync, writeFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { asCabled } from '../demo/brackwater';
import { check } from './check';
import { exportDesign } from './export';
import { importTables } from './import';
import { neighbours } from './neighbours';
import { solve } from './solve';

const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-cli-'));
const file = (name: string, text: string) => {
  const full = path.join(folder, name);
  writeFileSync(full, text);
  return full;
};
let out = '';
let err = '';
beforeEach(() => {
  out = err = '';
  jest.spyOn(process.stdout, 'write').mockImplementation((chunk) => ((out += String(chunk)), true));
  jest.spyOn(process.stderr, 'write').mockImplementation((chunk) => ((err += String(chunk)), true));
});
afterEach(() => jest.restoreAllMocks());

const demo = file('demo.json', JSON.stringify(asCabled()));

test('solve prints every tree as JSON with names, roles and states', async () => {
  expect(await solve(demo, { json: true })).toBe(0);
  const { trees } = JSON.parse(out);
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
  expect(JSON.parse(out).trees[0].root).toBe('workshop');
  out = '';
  await solve(demo, { tree: '130' });
  expect(out).toMatch(/^Tree vlan-130: core-east is root/);
  expect(await solve(demo, { tree: '7' })).toBe(1);
  expect(err).toContain("there is no tree '7': the design has vlan-110, vlan-120");
});

test('check says what is wrong, one line a fault with file and path', async () => {
  expect(await check(demo)).toBe(0);
  expect(out).toContain('10 switches, 24 links, 7 VLANs');
  const broken = asCabled();
  broken.switches[1]!.priority = 2478;
  broken.vlans[0]!.number = 4095;
  const bad = file('bad.json', JSON.stringify(broken));
  expect(await check(bad)).toBe(1);
  const lines = out.trim().split('\n').slice(1);
  expect(lines).toHaveLength(2);
  expect(lines.join('\n')).toContain(`${bad}: switches[1].priority: Bridge priority 2478`);
  expect(await check(path.join(folder, 'none.json'))).toBe(1);
  expect(err).toContain('there is no such file');
});

test('import writes a design only when every row came in', async () => {
  const switches = file('s.csv', 'switch,mac,priority\na,00:00:5e:00:53:01,4096\nb,00:00:5e:00:53:02,\n');
  const links = file('l.csv', 'a_switch,a_port,b_switch,b_port,speed_mbps\na,1,b,1,1000\n');
  const bad = file('bad.csv', 'a_switch,a_port,b_switch,b_port,speed_mbps\na,1,c,1,1000\n');
  const target = path.join(folder, 'out.json');
  expect(await importTables({ switches, links: bad, out: target })).toBe(1);
  expect(err).toContain(`${bad}, row 2, b_switch: There is no switch 'c'`);
  expect(existsSync(target)).toBe(false);
  expect(await importTables({ switches, links, out: target })).toBe(0);
  expect(JSON.parse(readFileSync(target, 'utf8')).name).toBe('out');
  out = '';
  expect(await solve(target, { json: true })).toBe(0);
  expect(JSON.parse(out).trees[0].root).toBe('a');
});

test('export writes GraphML and RFC 8345, and says which formats there are', async () => {
  expect(await exportDesign(demo, { format: 'graphml' })).toBe(0);
  expect(out).toContain('<graphml');
  const to = path.join(folder, 'topology.json');
  expect(await exportDesign(demo, { format: 'topology', out: to })).toBe(0);
  expect(JSON.parse(readFileSync(to, 'utf8'))).toHaveProperty(['ietf-network:networks']);
  expect(await exportDesign(demo, { format: 'png' })).toBe(1);
  expect(err).toContain("Format 'png' is not known: it is one of json, graphml, topology, switches, links, vlans.");
});

test('neighbours are held against the drawing; a difference gives status 1', async () => {
  const head = 'switch,port,neighbour,neighbour_port\n';
  const same = file('same.csv', `${head}gate,1,quay-a,4\ngate,2,quay-b,4\n`);
  expect(await neighbours(demo, [same], {})).toBe(0);
  expect(out).toContain('as drawn     gate 1 – quay-a 4');
  const other = file('other.csv', `${head}gate,1,quay-a,9\ngate,2,quay-b,4\n`);
  expect(await neighbours(demo, [other], { json: true })).toBe(1);
  expect(out).toContain('"verdict":"other port"');
  expect(await neighbours(demo, [file('broken.json', '{"lldp"')], {})).toBe(1);
  expect(err).toContain('holds no list of LLDP neighbours');
});
