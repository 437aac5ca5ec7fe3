/** Files as devices print them: what each is taken for, whose it is, and what it tells. */
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { asMeant } from '../../../demo/brackwater';
import { quarryInstances } from '../../../demo/quarry';
import type { Design } from '../../design';
import { exportFormat } from '../../formats';
import { asBuilt } from '../as-built';
import { compareWithDesign } from '../compare/compare';
import { deviceOfFile, partOfFile } from './names';
import { readObservedFiles } from './read';

const file = (name: string, text: string, inside = path.basename(name)) => ({
  path: name,
  inside,
  octets: new TextEncoder().encode(text),
  at: null,
});
const json = (name: string, value: unknown, inside?: string) => file(name, JSON.stringify(value), inside);

test.each([
  ['read/quay-1/link.json', 'quay-1/link.json', 'quay-1', 'link'],
  ['read/quay-1.links.json', 'quay-1.links.json', 'quay-1', 'links'],
  ['read/quay-1.json', 'quay-1.json', 'quay-1', 'quay-1'],
  ['read/quay-1/vlan.json', 'vlan.json', 'quay-1', 'vlan'],
  ['vlan.json', 'vlan.json', null, 'vlan'],
  ['read/quay-1/bonding/bond0', 'quay-1/bonding/bond0', 'quay-1', 'bond0'],
  ['read/quay-1.bond0.txt', 'quay-1.bond0.txt', 'quay-1', 'bond0'],
])('%s is of its device', (name, inside, device, part) => {
  expect(deviceOfFile({ path: name, inside })).toBe(device);
  expect(partOfFile({ path: name, inside })).toBe(part);
});

/** A kernel bridge as `ip -d -j link` prints it, with a root port, whose own identifier stands in place of the root's. */
const BRIDGE = [
  { ifname: 'lo', flags: ['LOOPBACK', 'UP', 'LOWER_UP'], link_type: 'loopback', address: '00:00:00:00:00:00' },
  {
    ifname: 'br0',
    flags: ['UP', 'LOWER_UP'],
    link_type: 'ether',
    address: '00:00:5e:00:53:02',
    linkinfo: {
      info_kind: 'bridge',
      info_data: {
        stp_state: 1,
        hello_time: 200,
        max_age: 2000,
        forward_delay: 1500,
        ageing_time: 30000,
        topology_change: 0,
        vlan_filtering: 1,
        bridge_id: '8000.0:0:5e:0:53:2',
        root_id: '8000.0:0:5e:0:53:2',
        root_port: 1,
        root_path_cost: 4,
      },
    },
  },
  ...[
    { ifname: 'p1', state: 'forwarding', no: '0x1', bridge_id: '1000.0:0:5e:0:53:1', designated_port: 32771 },
    { ifname: 'p2', state: 'blocking', no: '0x2', bridge_id: '1000.0:0:5e:0:53:1', designated_port: 32772 },
    { ifname: 'p3', state: 'forwarding', no: '0x3', bridge_id: '8000.0:0:5e:0:53:2', designated_port: 32771 },
    { ifname: 'p4', state: 'blocking', no: '0x4', bridge_id: '8000.0:0:5e:0:53:2', designated_port: 32771 },
  ].map(({ ifname, ...data }) => ({
    ifname,
    flags: ['UP', 'LOWER_UP'],
    master: 'br0',
    link_type: 'ether',
    linkinfo: {
      info_kind: 'veth',
      info_slave_kind: 'bridge',
      info_slave_data: { priority: 32, cost: 4, root_id: '1000.0:0:5e:0:53:1', ...data },
    },
  })),
];
const VLANS = [
  {
    ifname: 'p1',
    vlans: [
      { vlan: 1, flags: ['PVID', 'Egress Untagged'] },
      { vlan: 10, vlanEnd: 12 },
    ],
  },
  { ifname: 'p3', vlans: [{ vlan: 11, flags: ['PVID', 'Egress Untagged'] }] },
];

test('a kernel bridge: root of its ports, roles of what they hold, timers only at the root, VLANs in ranges', () => {
  const { observations, files } = readObservedFiles([
    json('read/yard/link.json', BRIDGE, 'yard/link.json'),
    json('read/yard/vlan.json', VLANS, 'yard/vlan.json'),
    json('read/yard/fdb.json', [], 'yard/fdb.json'),
  ]);
  expect(files.map((f) => f.fault)).toEqual([null, null, null]);
  expect(observations).toHaveLength(1);
  const [yard] = observations as [(typeof observations)[number]];
  expect(yard).toMatchObject({ name: 'yard', mac: '00:00:5e:00:53:02', protocol: 'stp', timers: { ageingTime: 300 } });
  expect(yard.timers.helloTime).toBeUndefined();
  expect(yard.trees[0]).toMatchObject({ id: 'single', root: { priority: 4096, mac: 0x5e005301 }, rootPort: 'p1' });
  expect(yard.trees[0]!.ports.map((p) => [p.port, p.role, p.priority])).toEqual([
    ['p1', 'root', 128],
    ['p2', 'alternate', 128],
    ['p3', 'designated', 128],
    ['p4', 'backup', 128],
  ]);
  expect(yard.ports.find((p) => p.name === 'p1')).toMatchObject({ vlans: '1,10-12', native: 1 });
  expect(yard.vlans.map((v) => v.number)).toEqual([1, 10, 11, 12]);
});

const BOND = `Ethernet Channel Bonding Driver: v6.1.0

Bonding Mode: IEEE 802.3ad Dynamic link aggregation
MII Status: up

802.3ad info
LACP active: on
LACP rate: fast
Min links: 1
System priority: 65535
System MAC address: 00:00:5e:00:53:02
Active Aggregator Info:
	Aggregator ID: 1
	Number of ports: 1
	Actor Key: 15
	Partner Key: 101
	Partner Mac Address: 00:00:5e:00:53:01

Slave Interface: p5
MII Status: up
Speed: 10000 Mbps
Duplex: full
Permanent HW addr: 00:00:5e:00:53:25
Aggregator ID: 1
details actor lacp pdu:
    system priority: 65535
    system mac address: 00:00:5e:00:53:02
    port key: 15
    port priority: 255
    port number: 1
    port state: 63
details partner lacp pdu:
    system priority: 4096
    system mac address: 00:00:5e:00:53:01
    oper key: 101
    port priority: 128
    port number: 7
    port state: 61

Slave Interface: p6
MII Status: down
Speed: Unknown
Aggregator ID: 2
`;

test('the state of a bond tells its members, who carries, and the partner', () => {
  const { observations } = readObservedFiles([file('read/yard.bond0.txt', BOND)]);
  const [bond] = observations[0]!.aggregates;
  expect(bond).toMatchObject({
    name: 'bond0',
    mode: 'lacp',
    timeout: 'short',
    systemPriority: 65535,
    system: '00:00:5e:00:53:02',
  });
  expect(bond!.members.map((m) => [m.port, m.active, m.partner?.port ?? null])).toEqual([
    ['p5', true, 7],
    ['p6', false, null],
  ]);
});

const FOLDER = path.join(__dirname, '../../../../tests/fixtures/lldp');

test('neighbours in all three shapes tell of the same cables', () => {
  const names = readdirSync(FOLDER).filter((n) => n.endsWith('.json') && n !== 'truth.json');
  const read = (shape: (name: string, text: string) => ReturnType<typeof file>) =>
    asBuilt(readObservedFiles(names.map((n) => shape(n, readFileSync(path.join(FOLDER, n), 'utf8')))).observations, 'x')
      .network.links;
  const long = read((n, text) => file(n, text));
  expect(long.length).toBeGreaterThan(7);
  expect(long.every((l) => l.certainty === 'lldp')).toBe(true);
  expect(read((n, text) => json(n, shorter(JSON.parse(text) as Long)))).toEqual(long);
  expect(read((n, text) => file(n.replace('.json', '.txt'), keyValues(JSON.parse(text) as Long)))).toEqual(long);
});

type Wrapped = readonly { readonly value: string; readonly type?: string }[];
interface Long {
  readonly lldp: readonly [
    {
      readonly interface: readonly {
        readonly name: string;
        readonly chassis: readonly [{ id: Wrapped; name: Wrapped }];
        readonly port: readonly [{ id: Wrapped; descr: Wrapped }];
      }[];
    },
  ];
}

/** The shape without lists: interfaces and chassis under their names. */
const shorter = ({ lldp }: Long) => ({
  lldp: {
    interface: lldp[0].interface.map((i) => ({
      [i.name]: {
        via: 'LLDP',
        chassis: { [i.chassis[0].name[0]!.value]: { id: i.chassis[0].id[0] } },
        port: { id: i.port[0].id[0], descr: i.port[0].descr[0]!.value },
      },
    })),
  },
});

const keyValues = ({ lldp }: Long) =>
  lldp[0].interface
    .map((i) =>
      [
        `lldp.${i.name}.via=LLDP`,
        `lldp.${i.name}.chassis.mac=${i.chassis[0].id[0]!.value}`,
        `lldp.${i.name}.chassis.name=${i.chassis[0].name[0]!.value}`,
        `lldp.${i.name}.chassis.Bridge.enabled=on`,
        `lldp.${i.name}.port.mac=${i.port[0].id[0]!.value}`,
        `lldp.${i.name}.port.descr=${i.port[0].descr[0]!.value}`,
      ].join('\n'),
    )
    .join('\n');

function exported(id: string, design: Design): string {
  const format = exportFormat(id);
  if (typeof format === 'string') throw new Error(format);
  return format.write(design);
}

test('our own exports of topology and settings come back as the design', () => {
  const design = asMeant();
  const { observations } = readObservedFiles([
    file('topology.json', exported('topology', design)),
    file('settings.json', exported('openconfig', design)),
  ]);
  const { network } = asBuilt(observations, 'read');
  const found = compareWithDesign(design, network).filter((d) => d.verdict !== 'not-observed');
  expect(found).toEqual([]);
  expect(network.links).toHaveLength(design.links.filter((l) => 'port' in l.a && 'port' in l.b).length);
});

test('instances of our own settings come back too', () => {
  const design = quarryInstances();
  const { observations } = readObservedFiles([file('settings.json', exported('openconfig', design))]);
  const { network } = asBuilt(observations, 'read');
  expect(compareWithDesign(design, network).filter((d) => d.verdict !== 'not-observed')).toEqual([]);
});

test('a file that cannot be read gets a sentence, and the others are read', () => {
  const { files, observations } = readObservedFiles([
    file('notes.txt', 'dear colleague'),
    file('half.json', '[{"ifname": "p1", '),
    json('other.json', { weather: 'fine' }),
    json('read/yard/link.json', BRIDGE, 'yard/link.json'),
  ]);
  expect(files.map((f) => f.fault === null)).toEqual([false, false, false, true]);
  expect(files[0]!.fault).toContain('is none of what can be read');
  expect(files[1]!.fault).toContain('is not complete JSON');
  expect(observations).toHaveLength(1);
});
