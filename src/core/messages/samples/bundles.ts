import type { bundleMessages } from '../bundles';
import type { Samples } from './samples';

export const bundleSamples: Samples<typeof bundleMessages> = {
  'both-static': [[]],
  'static-alone': [[{ far: 'quay-b', bundled: true }], [{ far: 'quay-b', bundled: false }]],
  'far-static': [[{ far: 'Quay-b', individual: true }], [{ far: 'Quay-b', individual: false }]],
  'no-bundle-there': [[{ far: 'quay-b', individual: true }]],
  'other-protocol': [[{ far: 'Quay-b', individual: false }]],
  'both-passive': [[{ individual: true, lacp: true }], [{ individual: false, lacp: false }]],
  agree: [[]],
  'agree-standby': [[{ decides: 'This end' }]],
  active: [[{ active: 1, total: 2 }], [{ active: 2, total: 2 }]],
  'none-ready': [[]],
  'too-few': [[{ active: 1, total: 2, needed: 2 }], [{ active: 2, total: 4, needed: 3 }]],
};
