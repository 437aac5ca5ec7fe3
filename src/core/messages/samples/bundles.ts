import type { bundleMessages, bundlingMessages, memberMessages } from '../bundles';
import type { Samples } from './samples';

export const bundleSamples: Samples<typeof bundleMessages> = {
  'both-static': [[]],
  'static-alone': [[{ far: 'quay-b', bundled: true }], [{ far: 'quay-b', bundled: false }]],
  'static-far-minimum': [[{ far: 'Quay-b', active: 1, needed: 2 }], [{ far: 'Quay-b', active: 2, needed: 3 }]],
  'static-unlike': [[{ far: 'quay-b' }]],
  'far-static': [[{ far: 'Quay-b', individual: true }], [{ far: 'Quay-b', individual: false }]],
  'no-bundle-there': [[{ far: 'quay-b', individual: true }]],
  'other-protocol': [[{ far: 'Quay-b', individual: false }]],
  'both-passive': [[{ individual: true, lacp: true }], [{ individual: false, lacp: false }]],
  'partner-elsewhere': [[{ far: 'quay-b', other: 'bundle to-shed of shed-1' }]],
  agree: [[]],
  'agree-standby': [[{ decides: 'This end' }]],
  active: [[{ active: 1, total: 2 }], [{ active: 2, total: 2 }]],
  'none-ready': [[]],
  'too-few': [[{ active: 1, total: 2, needed: 2 }], [{ active: 2, total: 4, needed: 3 }]],
};

export const memberSamples: Samples<typeof memberMessages> = {
  active: [[]],
  standby: [[]],
  individual: [[]],
  suspended: [[]],
  down: [[]],
  unplugged: [[]],
  miscabled: [[{ where: 'bundle to-core of quay-a' }]],
};

export const bundlingSamples: Samples<typeof bundlingMessages> = {
  'unlike-speed': [[{ ports: 'gate p1 and gate p2', speeds: '100 and 1000' }]],
  'unlike-duplex': [[{ ports: 'gate p1 and gate p2' }]],
  'unlike-vlans': [[{ ports: 'gate p1 and gate p2' }]],
  'no-cables': [[]],
  'cable-to-host': [[]],
  'several-ends': [[{ names: 'gate, quay-a, quay-b' }]],
  'port-in-bundle': [[{ port: 'gate p1', bundle: 'to-core' }]],
  'pair-without-cable': [[]],
  'host-cannot-join': [[]],
  'nothing-faces': [[]],
  'port-not-free': [[{ port: 'quay-a 14' }]],
};
