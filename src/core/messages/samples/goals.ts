import type { breachMessages, goalMessages } from '../goals';
import type { Samples } from './samples';

export const goalSamples: Samples<typeof goalMessages> = {
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
  'no-path': [[]],
  'path-crosses': [[{ name: 'gate' }]],
  'path-too-long': [[{ hops: 1 }], [{ hops: 3 }]],
  'comes-before': [[{ name: 'gate', other: 'core-east' }]],
};
