import type { planMessages, seeMessages } from '../plan';
import type { Samples } from './samples';

const trees = 'VLANs 110, 120';

export const planSamples: Samples<typeof planMessages> = {
  'map-first': [[{ name: 'quay-a' }]],
  'static-first': [[{ bundle: 'quay-b to-gate' }]],
  pinned: [[]],
  'static-shut': [[]],
  'no-common-switch': [[]],
  'nothing-to-do': [[]],
  'no-place': [[{ place: 'attic' }]],
  'no-watched': [[{ name: 'attic' }]],
  'watched-apart': [[{ a: 'ticket-desk', b: 'recorder' }]],
  'not-here': [[{ step: 2, name: 'gate' }]],
  'loops-here': [[]],
  'no-order': [[{ works: 'cable quay-b 9' }]],
  'else-loop': [[{ ports: 'gate 2' }]],
  'else-root': [[{ name: 'core-east' }]],
  'else-bundle': [[]],
  'else-cable': [[]],
  'else-mode': [[]],
  'else-back': [[]],
};

export const seeSamples: Samples<typeof seeMessages> = {
  'see-root': [[{ name: 'core-east', trees }]],
  'see-no-root': [[{ trees }]],
  'see-port': [[{ port: 'gate 2', role: 'alternate, discarding', trees }]],
  'see-more-ports': [[{ n: 1 }], [{ n: 4 }]],
  'see-bundle': [[{ bundle: 'quay-b to-gate', state: 'up', active: 1, of: 2 }]],
  'see-nothing': [[]],
  'see-reach': [[{ name: 'gate' }]],
  'see-pair': [[{ a: 'ticket-desk', b: 'ferry-server', vlan: 110 }]],
  'see-no-other-way': [[{ name: 'quay-b' }]],
  'see-empty': [[{ name: 'quay-b' }]],
  'orders-all': [[{ orders: 362880 }]],
  'orders-some': [[{ looked: 1200 }]],
};
