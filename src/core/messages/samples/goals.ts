import type { breachMessages, goalMessages } from '../goals';
import type { Samples } from './samples';

const path = { from: 'Ticket-desk', to: 'ferry-server', of: 'VLAN 110' };

export const goalSamples: Samples<typeof goalMessages> = {
  root: [
    [{ name: 'Core-east', next: null, of: 'VLAN 110' }],
    [{ name: 'Core-east', next: 'core-west', of: 'all VLANs' }],
  ],
  blocked: [[{ port: 'port gate p2 towards quay-b', of: 'VLAN 110' }]],
  carries: [
    [{ port: 'port gate p2', of: 'VLAN 110', only: false }],
    [{ port: 'port gate p2', of: 'VLAN 110', only: true }],
  ],
  path: [
    [{ ...path, atMost: null, avoid: null }],
    [{ ...path, atMost: 1, avoid: null }],
    [{ ...path, atMost: 3, avoid: 'quay-a' }],
  ],
  'never-root': [[{ tier: 'access', of: 'all VLANs' }]],
  load: [[{ percent: 80 }]],
  'stays-connected': [[{ who: 'all hosts', of: 'VLAN 110' }]],
  outage: [[{ atMost: 0 }], [{ atMost: 2 }]],
  'load-left': [[{ percent: 80 }]],
  'lost-separates': [
    [{ lost: 'Switch gate', who: 'gate-camera', vlans: ' in VLAN 130', more: '' }],
    [{ lost: 'Switch gate', who: 'gate-camera', vlans: '', more: '; so do 2 more failures' }],
  ],
  'lost-interrupts': [[{ lost: 'Switch gate', outage: 'for good', more: '' }]],
  'lost-fills': [[{ lost: 'Switch gate', percent: 130, more: '' }]],
  'apart-already': [[{ who: 'cold-store', vlans: ' in VLAN 130' }]],
  'not-yet-known': [[]],
  'known-when-applied': [[]],

  'void-gone': [[{ what: 'the port' }]],
  'void-no-tree': [[{ vlans: '110' }]],
  'void-no-tier': [[{ tier: 'access' }]],
  'void-bundle-down': [[]],
  'void-host': [[]],
  'void-not-cabled': [[]],
  'void-no-traffic': [[]],
  overload: [
    [{ port: 'Gate p1', percent: 120, more: 0 }],
    [{ port: 'Gate p1', percent: 120, more: 1 }],
    [{ port: 'Gate p1', percent: 120, more: 2 }],
  ],
  contradict: [[{ goals: 'These goals', trees: 'VLAN 110' }]],
  impossible: [[{ goals: 'This goal', trees: 'VLAN 110', reason: 'the link is down' }]],
  'not-found-alone': [[{ goals: 'this goal', trees: 'VLAN 110' }]],
  'not-found-together': [[{ goals: 'these goals', trees: 'VLAN 110' }]],
  'no-path-for-load': [[{ goals: 'This goal' }]],
  'no-way-to-stay': [[{ goals: 'This goal', reason: 'Switch gate lost: separates camera.' }]],
};

export const breachSamples: Samples<typeof breachMessages> = {
  'switch-off': [[{ name: 'gate' }]],
  'switch-outside': [[{ name: 'gate' }]],
  'other-root': [[{ name: 'gate' }]],
  'no-next': [[]],
  'other-next': [[{ name: 'gate' }]],
  'port-outside': [[]],
  'port-down': [[]],
  'port-role': [[{ role: 'designated' }]],
  'link-carries-too': [[]],
  'port-lacks-vlan': [[]],
  'link-down': [[]],
  'no-far-switch': [[]],
  'link-blocked': [[{ name: 'gate' }]],
  'link-silent': [[{ name: 'Gate' }]],
  'link-too-deep': [[{ name: 'Gate' }]],
  'no-path': [[]],
  'no-path-too-deep': [[{ name: 'gate', root: 'core-east' }]],
  'path-crosses': [[{ name: 'gate' }]],
  'path-too-long': [[{ hops: 1 }], [{ hops: 3 }]],
  'comes-before': [[{ name: 'gate', other: 'core-east' }]],
};
