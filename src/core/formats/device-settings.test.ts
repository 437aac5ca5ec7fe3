/** Settings by device: the demo in each form, and that nothing is dropped. */
import { asCabled, asMeant, asPair } from '@/demo/brackwater';
import { setField } from '../design';
import { after } from '../../../tests/support/edits';
import { smallDesign } from '../../../tests/support/small-design';
import { exportSettings } from './device-settings';
import { exportLinuxLab } from './linux-lab';
import { exportNetworkd } from './networkd';
import { ieeeYangOf } from './ieee-yang';
import { openConfigOf } from './openconfig';

type Json = Record<string, unknown>;
const dig = (of: unknown, ...path: (string | number)[]): unknown => path.reduce((v, key) => (v as Json)[key], of);

describe('OpenConfig', () => {
  test('a tree per VLAN: priorities, costs and what a port carries', () => {
    const devices = openConfigOf(asMeant());
    const stp = dig(devices, 'core-east', 'openconfig-spanning-tree:stp');
    expect(dig(stp, 'global', 'config', 'enabled-protocol')).toEqual(['openconfig-spanning-tree-types:RAPID_PVST']);
    const trees = dig(stp, 'rapid-pvst', 'vlan') as Json[];
    expect(
      dig(
        trees.find((t) => t['vlan-id'] === 110),
        'config',
        'bridge-priority',
      ),
    ).toBe(4096);
    const [port] = (dig(devices, 'gate', 'openconfig-interfaces:interfaces', 'interface') as Json[]).filter(
      (p) => p.name === '2',
    );
    expect(dig(port, 'openconfig-if-ethernet:ethernet', 'openconfig-vlan:switched-vlan', 'config')).toEqual({
      'interface-mode': 'TRUNK',
      'trunk-vlans': [110, 120, 130, 140, 150, 160, 199],
    });
  });
  test('bundles are interfaces of their own, with LACP beside them', () => {
    const devices = openConfigOf(asPair());
    const list = dig(devices, 'quay-a', 'openconfig-lacp:lacp', 'interfaces', 'interface') as Json[];
    expect(list.find((i) => i.name === 'to-quay-b')).toMatchObject({
      config: { 'lacp-mode': 'PASSIVE', interval: 'SLOW' },
    });
    expect(dig(devices, 'core-east', 'notInModel')).toContain('bundle to-quay-a, shared: 1');
  });
  test('an instance has its VLANs as ranges, and the classic protocol is said to be in no model', () => {
    const design = after(asCabled(), [
      { type: 'settings', field: 'mode', value: 'mstp' },
      {
        type: 'add',
        kind: 'region',
        value: { id: 'r', name: 'harbour', revision: 3, map: { '1': '110-112,130' } },
      },
    ]);
    const mstp = dig(openConfigOf(design), 'gate', 'openconfig-spanning-tree:stp', 'mstp');
    expect(dig(mstp, 'config')).toEqual({ name: 'harbour', revision: 3 });
    expect(dig(mstp, 'mst-instances', 'mst-instance', 0, 'config', 'vlan')).toEqual(['110..112', 130]);
    const classic = after(asCabled(), [{ type: 'settings', field: 'mode', value: 'per-vlan-stp' }]);
    expect(dig(openConfigOf(classic), 'gate', 'notInModel')).toContain('the classic protocol, with all its settings');
  });
  test('a setting without a leaf is listed', () => {
    const design = after(smallDesign(), [
      setField('switch', 'a', 'ageingTime', 20),
      setField('port', 'a:3', 'stormLimit', 5),
    ]);
    expect(dig(openConfigOf(design), 'a', 'notInModel')).toEqual(
      expect.arrayContaining(['ageingTime: 20', 'port e3, stormLimit: 5']),
    );
  });
});

test('text names every setting of a switch and its ports', () => {
  const text = exportSettings(asMeant());
  const [gate] = text.split('\n\n').filter((part) => part.startsWith('switch gate,'));
  expect(gate).toContain('spanning tree: RSTP, one tree per VLAN');
  expect(gate).toContain('priority 61440');
  expect(gate).toMatch(/port 10\n.*BPDU guard/s);
  expect(text).toContain('bundle to-cold-store: ports 8, 9; LACP');
  expect(text).toContain('priority 4096 for VLANs 110,120,130');
});

test('networkd has a bridge, its bonds and its ports for each device', () => {
  const text = exportNetworkd(asMeant());
  expect(text).toContain('# quay-b: /etc/systemd/network/10-br.netdev');
  expect(text).toMatch(/Kind=bond\n\[Bond\]\nMode=802\.3ad/);
  expect(text).toMatch(
    /# quay-b: \/etc\/systemd\/network\/30-port8\.network\n\[Match\]\nName=port8\n\[Network\]\nBond=bond/,
  );
  expect(text).toMatch(/\[BridgeVLAN\]\nVLAN=110/);
});

test('a lab says what the kernel does not run, and divides costs that it does not take', () => {
  const script = exportLinuxLab(asMeant());
  expect(script).toMatch(/LEFT_OUT='modes: 10.switches run another protocol/);
  expect(script).toContain('FACTOR=1000');
  expect(script).toContain('10.0.110.1/24');
});

describe('IEEE YANG', () => {
  test('a bridge with its VLANs, and which ports carry them tagged and untagged', () => {
    const devices = ieeeYangOf(asMeant());
    const [bridge] = dig(devices, 'gate', 'ieee802-dot1q-bridge:bridges', 'bridge') as Json[];
    expect(bridge).toMatchObject({ name: 'gate', address: '00-00-5E-00-53-32' });
    const [component] = bridge!.component as Json[];
    expect(dig(component, 'bridge-vlan', 'vlan')).toHaveLength(asMeant().vlans.length);
    const entries = dig(component, 'filtering-database', 'vlan-registration-entry') as Json[];
    const cameras = entries.find((e) => e.vids === '130')!;
    const design = asMeant();
    const own = design.ports.filter((p) => p.switch === 'gate');
    const carried = own.filter((p) => p.vlans === undefined || p.vlans === 'all' || /130|120-/.test(p.vlans));
    expect((cameras['port-map'] as Json[]).map((p) => p['port-ref'])).toEqual(carried.map((p) => p.number));
    const ways = (cameras['port-map'] as Json[]).map((p) =>
      dig(p, 'static-vlan-registration-entries', 'vlan-transmitted'),
    );
    expect(new Set(ways)).toEqual(new Set(['tagged', 'untagged']));
  });

  test('instances are there, and what has no leaf is listed: spanning tree, bundles, guards', () => {
    const design = after(smallDesign(), [setField('switch', 'a', 'ageingTime', 20)]);
    const [first] = Object.values(ieeeYangOf(design)) as Json[];
    const [bridge] = dig(first, 'ieee802-dot1q-bridge:bridges', 'bridge') as Json[];
    expect(dig((bridge!.component as Json[])[0], 'filtering-database', 'aging-time')).toBe(20);
    const words = (first!.notInModel as string[]).join('\n');
    expect(words).toMatch(/^spanning tree: /);
    expect(words).toContain('bundle ');
    expect(words).not.toContain('ageing');
    const region = after(asCabled(), [
      { type: 'settings', field: 'mode', value: 'mstp' },
      { type: 'add', kind: 'region', value: { id: 'r', name: 'harbour', revision: 3, map: { '1': '110-120' } } },
    ]);
    const [inRegion] = dig(ieeeYangOf(region), 'gate', 'ieee802-dot1q-bridge:bridges', 'bridge') as Json[];
    expect(dig((inRegion!.component as Json[])[0], 'bridge-mst')).toEqual({
      mstid: [1],
      'fid-to-mstid': [
        { fid: 110, mstid: 1 },
        { fid: 120, mstid: 1 },
      ],
    });
  });
});
