import type { stepMessages } from '../steps';
import type { Samples } from './samples';

const ends = { near: 'quay-a', far: 'Gate' };
const made = { bundle: 'to-gate', ports: '1, 2' };

export const stepSamples: Samples<typeof stepMessages> = {
  nothing: [[]],
  'nothing-more': [[]],
  'first-stays': [[]],
  'leave-unplugged': [[{ ports: '2 of quay-a' }]],
  'if-up-already': [[{ blocked: '' }], [{ blocked: 'gate 2 in every tree' }]],
  'still-forwards': [[{ port: 'p1', near: 'quay-a' }]],
  'create-far': [[{ ...made, lacp: true, activity: 'active' }], [{ ...made, lacp: false, activity: 'passive' }]],
  'individual-meanwhile': [[{ wait: 30 }], [{ wait: null }]],
  'suspended-meanwhile': [[ends]],
  'still-reachable': [[ends]],
  'continue-at-once': [[]],
  'create-twin': [[{ ...made, shared: 7 }]],
  'pair-consistent': [[]],
  'create-near': [[{ ...made, activity: 'active' }]],
  'agreeing-meanwhile': [[{ wait: 30 }], [{ wait: null }]],
  collects: [[{ port: 'p1' }]],
  'bring-up-singly': [[{ ports: '2 of quay-a' }]],
  'joining-meanwhile': [[{ blocked: '' }], [{ blocked: 'gate 2 in every tree' }]],
  'each-active': [[]],
  'shut-down': [[{ ports: '1, 2' }]],
  'all-cables': [[ends]],
  'reachable-otherwise': [[ends]],
  'create-static-far': [[made]],
  'same-cables-down': [[]],
  'members-down': [[]],
  'create-static-near': [[made]],
  'same-cables': [[]],
  'settings-of-far': [[ends]],
  'bring-up-together': [[{ ports: '1, 2' }]],
  'opening-meanwhile': [[{ wait: 30 }], [{ wait: null }]],
  'no-flapping': [[]],
  save: [[]],
  'both-report': [[{ active: 1 }], [{ active: 2 }]],
};
