import type { frameMessages } from '../frames';
import type { Samples } from './samples';

const compared = { part: 'root path cost', received: '2000', held: '22000', better: true, against: 'Mine' } as const;
const worse = { ...compared, better: false, against: 'Received' } as const;
const aged = { ...compared, against: 'Aged' } as const;
const withAndWithout = [[{ compared: worse }], [{ compared: null }]] as const;
const lacp = { step: 'in-sync', receive: 'CURRENT', selected: 'SELECTED', before: 'ATTACHED' } as const;

export const frameSamples: Samples<typeof frameMessages> = {
  'superior-same': [[]],
  superior: [[{ compared }], [{ compared: aged }]],
  'superior-by-sender': [[{ compared: worse }]],
  repeated: [[]],
  inferior: [...withAndWithout].map(([v]) => [v]),
  dispute: [...withAndWithout].map(([v]) => [v]),
  agreement: [[{ role: 'root' }], [{ role: 'other' }]],
  'no-agreement': [[{ role: 'root' }], [{ role: 'other' }]],
  'own-bpdu': [[]],
  'not-designated': [[]],
  'nothing-applies': [[]],
  'classic-better': [...withAndWithout].map(([v]) => [v]),
  'classic-by-sender': [[{ compared: worse }]],
  'classic-repeated': [[]],
  'classic-answered': [...withAndWithout].map(([v]) => [v]),
  'classic-ignored': [...withAndWithout].map(([v]) => [v]),
  'root-guard': [[{ compared }]],
  notification: [[]],
  'vlan-one-again': [[]],
  'other-vlan': [[]],
  inconsistent: [[]],
  'bpdu-guard': [[]],
  keepalive: [[{ fault: true, hears: false }], [{ fault: false, hears: true }], [{ fault: false, hears: false }]],
  'no-lacp': [[]],
  lacp: [
    [{ ...lacp, after: 'COLLECTING_DISTRIBUTING' }],
    [{ ...lacp, step: 'outdated', selected: 'UNSELECTED', after: 'DETACHED' }],
    [{ ...lacp, step: 'not-in-sync', selected: 'STANDBY', before: 'WAITING', after: 'WAITING' }],
  ],
};
