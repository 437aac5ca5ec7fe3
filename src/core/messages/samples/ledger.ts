import type { ledgerMessages } from '../ledger';
import type { Samples } from './samples';

const plain = { rootPathCost: 22_000 };
const inside = { rootPathCost: 0, internalCost: 2_000 };
const both = { rootPathCost: 20_000, internalCost: 2_000 };
const root = { name: 'Core-east', next: 'core-west', priority: 4096, nextPriority: 8192 };
const port = { name: 'Gate', port: 'p1', from: 'quay-a', costs: plain };
const ports = { ...port, other: { port: 'p2', from: 'quay-b', costs: both } };

export const ledgerSamples: Samples<typeof ledgerMessages> = {
  'no-switch': [[]],
  root: [
    [{ root: { name: 'Gate' } }],
    [{ root }],
    [{ root: { name: 'Gate', next: 'crane-yard', priority: 32768, mac: '00:00:5e:00:53:01' } }],
  ],
  'regional-roots': [[{ count: 2, root }]],
  'several-roots': [[{ count: 3, root }]],
  'switch-off': [[{ name: 'Gate' }]],
  'no-vlan-on-switch': [[{ name: 'Gate' }]],
  'no-instance-on-switch': [[{ name: 'Gate', instance: 2 }]],
  'no-port-on-switch': [[{ name: 'Gate' }]],
  'root-port-alone': [[port]],
  'root-port-by-cost': [[ports], [{ ...ports, costs: inside }]],
  'root-port-by-regional-root': [[ports]],
  'root-port-by-bridge': [[ports]],
  'root-port-by-far-port': [[ports]],
  'root-port-by-own-port': [[ports]],
  'designated-of-root': [[]],
  'designated-by-cost': [[{ own: plain, name: 'gate', far: both }]],
  'designated-by-regional-root': [[{ cost: 20_000 }]],
  'designated-by-bridge': [[{ own: inside }]],
  'designated-by-port': [[]],
  'designated-at-hosts': [[]],
  'designated-without-peer': [[{ vlan: 110 }]],
  'designated-alone': [[]],
  backup: [[{ port: 'p3' }]],
  'blocked-by-root': [[{ far: 'the far end', own: plain }]],
  'blocked-by-cost': [[{ far: 'quay-a', costs: inside, own: both }]],
  'blocked-by-regional-root': [[{ name: 'quay-a', cost: 20_000 }]],
  'blocked-by-bridge': [[{ name: 'quay-a', own: plain }]],
  'blocked-by-port': [[]],
  'follows-vlan': [[{ name: 'Gate', vlan: 110, tree: 'the common tree' }]],
  master: [[]],
  boundary: [[]],
  inconsistent: [[{ vlans: 'VLANs 10, 20', difference: 'the ends differ in their untagged VLAN' }]],
  joined: [[{ vlan: 10 }]],
  'not-in-tree': [[{ tree: 'instance 2' }]],
  'vlan-not-carried': [[{ port: 'p1', vlan: 110 }]],
  filter: [[]],
  'far-filter': [[{ port: 'gate p2' }]],
  looping: [[]],
  'root-guard-path': [[{ name: 'gate' }]],
  'root-guard-root': [[{ name: 'gate', root: 'core-east' }]],
  'shut-by-guard': [[{ name: 'gate' }]],
  'far-shut': [[{ name: 'gate' }]],
  'peer-link': [[]],
  'down-switch-off': [[]],
  'down-by-setting': [[]],
  'waits-for-bundle': [[{ bundle: 'to-core' }]],
  'down-segment': [[{ segment: 'hub-1' }]],
  'down-unplugged': [[]],
  'down-link': [[]],
  'down-far-off': [[{ name: 'quay-a' }]],
  'down-far-by-setting': [[]],
  'down-far': [[]],
};
