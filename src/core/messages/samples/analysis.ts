import type { analysisMessages } from '../analysis';
import type { Samples } from './samples';

const text = 'x'.repeat(59);
const two = { a: 'gate', b: 'workshop' };

export const analysisSamples: Samples<typeof analysisMessages> = {
  'same-place': [[]],
  'host-without-port': [[{ name: 'Ticket-desk' }]],
  'switch-not-in-tree': [
    [{ name: 'Gate', why: 'off' }],
    [{ name: 'Gate', why: 'no-vlan' }],
    [{ name: 'Gate', why: 'not-run' }],
  ],
  'no-path': [[{ from: 'gate', to: 'workshop' }]],
  'vlan-missing': [[{ vlan: 110, port: 'p1', name: 'gate' }]],
  'end-missing': [[]],
  'two-ranks': [[{ name: 'Gate' }]],
  'not-in-tree': [[{ name: 'Gate', tree: '110' }]],
  'too-many-ranks': [[]],
  'no-tier': [[{ tier: 'access' }]],
  'balance-nowhere': [[]],
  'balance-needs-two': [[]],
  'not-parallel': [[]],
  'select-two-links': [[]],
  'in-larger-bundle': [[]],
  'carry-nothing': [[]],
  'one-tree-decides': [[]],
  'no-bundling': [[{ reason: 'Ports gate p1 and gate p2 carry different VLANs.' }]],
  'typed-line': [[{ line: 3, reason: `The load '${text}' is not a number of Mb/s.` }]],
  'typed-incomplete': [[{ text }]],
  'typed-load': [[{ text }]],
  'typed-vlan': [[{ text }]],
  'typed-port': [[{ text }]],
  'region-name': [[{ ...two, nameA: 'harbour', nameB: 'Harbour' }]],
  'region-revision': [[{ ...two, revisionA: 1, revisionB: 2 }]],
  'region-map': [
    [{ ...two, vlans: '110', one: true, mapA: 1, mapB: 0 }],
    [{ ...two, vlans: '110-120', one: false, mapA: 1, mapB: 2 }],
  ],
  'same-region': [[{ a: 'Gate', b: 'workshop' }]],
  'run-limit': [[{ seconds: '12.0', handled: 10_000_000 }]],
  'run-cancelled': [[{ seconds: '12.0' }]],
  'run-restless': [[{ ports: 'gate p1, quay-a p4' }]],
};
