import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { asCabled } from '../../demo/brackwater';
import { roleAt, solveDesign } from '../trees';
import { exportCsv } from './csv-export';
import { formatTableFault } from './table';
import { importCsv } from './csv-import';
import { solutionOf } from './solution';

const S = 'switch,mac,priority\nnorth,00:00:5e:00:53:01,4096\nsouth,00-00-5E-00-53-02,\n';
const L = 'a_switch,a_port,b_switch,b_port,speed_mbps\nnorth,p1,south,p1,1000\n';
const read = (switches: string, links: string, vlans?: string) =>
  importCsv(
    'test',
    { file: 's.csv', text: switches },
    { file: 'l.csv', text: links },
    vlans === undefined ? undefined : { file: 'v.csv', text: vlans },
  );
const design = (switches = S, links = L, vlans?: string) => {
  const result = read(switches, links, vlans);
  if (!result.ok) throw new Error(result.faults.map(formatTableFault).join('\n'));
  return result.design;
};
const faults = (switches: string, links = L, vlans?: string) => {
  const result = read(switches, links, vlans);
  return result.ok ? [] : result.faults.map(formatTableFault);
};

describe('import of tables', () => {
  test('switches, links and defaults come in', () => {
    const d = design();
    expect(d.switches.map((s) => [s.name, s.mac, s.priority])).toEqual([
      ['north', '00:00:5e:00:53:01', 4096],
      ['south', '00:00:5e:00:53:02', undefined],
    ]);
    expect(d.vlans.map((v) => v.number)).toEqual([1]);
    expect(d.links).toHaveLength(1);
  });
  test('semicolons, tabs, a byte-order mark, CRLF and capitals in the header change nothing', () => {
    const plain = design();
    const semi = (text: string) =>
      `\uFEFF${text.replaceAll(',', ';').replaceAll('\n', '\r\n').replace('switch;mac', 'Switch;MAC')}`;
    expect(design(semi(S), semi(L))).toEqual(plain);
    expect(design(S.replaceAll(',', '\t'), L)).toEqual(plain);
  });
  test('a port takes the number given, else the one its name ends in if free, else the next free one', () => {
    const links = `${L.trim()}\nnorth,q1,south,up,1000\nnorth,7,south,other,1000\n`
      .replace('speed_mbps', 'speed_mbps,a_port_number')
      .replaceAll('1000', '1000,')
      .replace('7,south,other,1000,', '7,south,other,1000,30');
    const numbers = Object.fromEntries(design(S, links).ports.map((p) => [`${p.switch} ${p.name}`, p.number]));
    expect(numbers).toEqual({ 's1 p1': 1, 's1 q1': 2, 's1 7': 30, 's2 p1': 1, 's2 up': 2, 's2 other': 3 });
  });
  test('rows of a segment attach one port each', () => {
    const links =
      'a_switch,a_port,b_switch,b_port,speed_mbps,segment\nnorth,1,,,100,hub\nsouth,1,,,100,hub\nsouth,2,,,100,hub\n';
    expect(design(S, links).segments).toEqual([{ id: 'g1', name: 'hub', ports: ['p1', 'p2', 'p3'] }]);
  });
  test('VLANs come from their table, or from the links', () => {
    const links =
      'a_switch,a_port,b_switch,b_port,speed_mbps,vlans,native_vlan\nnorth,1,south,1,1000,"110-112,199",110\n';
    expect(design(S, links).vlans.map((v) => v.number)).toEqual([110, 111, 112, 199]);
    expect(design(S, links).ports[0]).toMatchObject({ vlans: '110-112,199', native: 110 });
    expect(design(S, links, 'vlan,name\n110,tickets\n').vlans).toEqual([{ id: 'v1', number: 110, name: 'tickets' }]);
  });
  test('what most switches run is the mode of the design, the others keep their own', () => {
    const switches =
      'switch,mac,protocol,cost_scale\na,00:00:5e:00:53:01,rstp,short\nb,00:00:5e:00:53:02,stp,long\nc,00:00:5e:00:53:03,rstp,short\n';
    const d = design(switches, 'a_switch,a_port,b_switch,b_port,speed_mbps\n');
    expect([d.mode, d.costScale, d.switches[1]!.protocol, d.switches[1]!.costScale]).toEqual([
      'rstp',
      'short',
      'stp',
      'long',
    ]);
  });

  test.each<[string, string[], RegExp]>([
    [
      'a header that lacks a column',
      [S.replace('mac', 'address')],
      /s\.csv, row 1: The header lacks 'mac': it reads switch,mac, and if wanted priority/,
    ],
    ['an unknown column', [S.replace('priority', 'prio')], /has 'prio', which is not known/],
    ['an empty file', [''], /is empty: it needs a header row/],
    ['binary', ['PK\u0000\u0003'], /not CSV: it holds binary characters/],
    ['a priority of 2478', [S.replace('4096', '2478')], /s\.csv, row 2, priority: .*the nearest is 4096/],
    ['a priority that is no number', [S.replace('4096', 'best')], /row 2, priority: The cell 'best' is not a number/],
    [
      'a MAC address twice',
      [S.replace('53-02', '53-01')],
      /row 3, mac: Switches 'north' and 'south' have the same MAC/,
    ],
    [
      'a MAC address that is none',
      [S.replace('00-00-5E-00-53-02', 'zz')],
      /row 3, mac: MAC address 'zz' cannot be read/,
    ],
    ['a missing switch', [S, L.replace('south', 'west')], /l\.csv, row 2, b_switch: There is no switch 'west'/],
    [
      'two cables in one port',
      [S, `${L}north,p1,south,p2,1000\n`],
      /row 3, a_port: Port 'p1' of north is already used in row 2/,
    ],
    ['no speed', [S, L.replace('1000', '')], /row 2, speed_mbps: The cell is empty/],
    ['a speed of 0', [S, L.replace('1000', '0')], /row 2, speed_mbps: Speed 0 is not legal/],
    [
      'VLAN 4095',
      [S, L.replace('speed_mbps', 'speed_mbps,vlans').replace('1000', '1000,4095')],
      /row 2, vlans: The list '4095' cannot be read/,
    ],
    ['a VLAN 4095 in the table', [S, L, 'vlan\n4095\n'], /v\.csv, row 2, vlan: VLAN 4095 is not legal/],
    [
      'a cost of 0',
      [S, L.replace('speed_mbps', 'speed_mbps,a_cost').replace('1000', '1000,0')],
      /row 2, a_cost: .*from 1 to 200000000/,
    ],
    [
      'an unknown protocol',
      [S.replace('priority', 'protocol').replace('4096', 'ring')],
      /Protocol 'ring' is not known: it is one of per-vlan-rstp/,
    ],
    [
      'an unknown protocol',
      ['switch,mac,protocol\na,00:00:5e:00:53:01,rapid\n'],
      /Protocol 'rapid' is not known: it is one of per-vlan-rstp, per-vlan-stp, rstp, stp, mstp/,
    ],
    [
      'a b side on a segment',
      [S, L.replace('speed_mbps', 'speed_mbps,segment').replace('1000', '1000,hub')],
      /leave the b side empty/,
    ],
  ])('%s is refused with file, row and column', (_, [s, l, v], sentence) =>
    expect(faults(s!, l, v).join('\n')).toMatch(sentence),
  );

  test('every faulty row is named, and nothing comes in', () => {
    const result = faults(S.replace('4096', '1'), `${L}north,p9,nowhere,p1,1000\n`);
    expect(result).toHaveLength(2);
  });

  test('10 000 rows are read', () => {
    const many = Array.from(
      { length: 100 },
      (_, i) =>
        `s${i},00:00:5e:10:${(i >> 8).toString(16).padStart(2, '0')}:${(i & 255).toString(16).padStart(2, '0')},`,
    ).join('\n');
    const rows = Array.from({ length: 10_000 }, (_, i) => `s${i % 100},x${i},s${(i * 7 + 1) % 100},y${i},1000`).join(
      '\n',
    );
    const d = design(`switch,mac,priority\n${many}\n`, `a_switch,a_port,b_switch,b_port,speed_mbps\n${rows}\n`);
    expect(d.links).toHaveLength(10_000);
  });
});

test('exported tables come in again with the same trees, whatever the network', () => {
  fc.assert(
    fc.property(networks, (network) => {
      // The tables have no column for what is down, off or set for single VLANs.
      const plain = structuredClone(network);
      for (const s of plain.switches) {
        delete s.off;
        delete s.vlanPriority;
      }
      for (const p of plain.ports) {
        delete p.down;
        delete p.vlanCost;
        delete p.vlans;
      }
      for (const l of [...plain.links, ...plain.segments]) delete l.down;
      const { switches, links, vlans } = exportCsv(plain);
      const back = design(switches, links, vlans);
      const summary = (d: typeof plain) => {
        const solved = solveDesign(d);
        return solved.trees.map((of) =>
          solved.topology.ports
            .map(
              ({ element }, p) =>
                `${d.switches.find((s) => s.id === element.switch)!.name} ${element.name} ${roleAt(of, p)}`,
            )
            .sort(),
        );
      };
      const used = new Set([
        ...plain.links.flatMap((l) => [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : []))),
        ...plain.segments.flatMap((g) => g.ports),
      ]);
      plain.ports = plain.ports.filter((p) => used.has(p.id));
      expect(summary(back)).toEqual(summary(plain));
    }),
    { numRuns: 200 },
  );
});

test('a solution names switches and ports, roles in lower case, states and costs', () => {
  const solved = solveDesign(asCabled());
  const tree = solutionOf(solved, solved.byId.get('vlan-110')!);
  expect(tree).toMatchObject({ id: 'vlan-110', vlans: [110], root: 'core-east' });
  expect(tree.switches).toContainEqual({
    switch: 'gate',
    rootPathCost: 22000,
    rootPort: '1',
    bridgeId: '806e.00:00:5e:00:53:32',
  });
  expect(tree.ports).toContainEqual({
    switch: 'gate',
    port: '2',
    role: 'alternate',
    state: 'discarding',
    cost: 20000,
    designatedSwitch: 'quay-b',
    designatedPort: '4',
  });
  expect(tree.ports.filter((p) => p.switch === 'cold-store').map((p) => [p.port, p.role, p.state])).toEqual([
    ['to-quay-b', 'root', 'forwarding'],
    ['2', 'disabled', 'disabled'],
  ]);
});
