import type { Difference } from './difference';
import { gatherTrees } from './gather';

const row = (device: string, field: string, designed = '1', kind: Difference['kind'] = 'tree'): Difference => ({
  device,
  field,
  designed,
  observed: '2',
  verdict: 'differs',
  switch: null,
  element: null,
  kind,
});

test('what differs alike in many trees is one row, and each difference is in exactly one', () => {
  const all = [
    row('gate 2', 'cost in vlan-10'),
    row('vlan-10', 'root', 'gate'),
    row('gate 2', 'cost in vlan-11'),
    row('gate 2', 'cost in vlan-12', '5'),
    row('vlan-11', 'root', 'gate'),
    row('gate 2', 'duplex', 'full', 'port'),
    row('gate 2', 'duplex', 'full', 'port'),
    row('gate', 'priority in msti-2', '1', 'switch'),
  ];
  const rows = gatherTrees(all);
  expect(rows.map((r) => `${r.where}: ${r.what}`)).toEqual([
    'gate 2: cost in VLANs 10-11',
    'VLANs 10-11: root',
    'gate 2: cost in VLAN 12',
    'gate 2: duplex',
    'gate 2: duplex',
    'gate: priority in instance 2',
  ]);
  expect(rows.flatMap((r) => r.of)).toHaveLength(all.length);
});
