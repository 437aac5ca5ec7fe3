import type { eventFaultMessages, eventMessages } from '../events';
import type { Samples } from './samples';

const link = 'gate p1 to quay-a p4';

export const eventSamples: Samples<typeof eventMessages> = {
  'carrier-lost': [[{ link, end: 'a' }]],
  'link-lost': [[{ link }]],
  'link-restored': [[{ link }]],
  flaps: [[{ link, times: 3, every: 0.5 }]],
  'flap-step': [[{ link, lost: true, turn: 1, of: 3 }], [{ link, lost: false, turn: 1, of: 3 }]],
  'switch-off': [[{ name: 'gate' }]],
  'switch-on': [[{ name: 'gate' }]],
  'root-off': [[{ vlan: 110, name: null }], [{ vlan: 110, name: 'core-east' }]],
  'cable-plugged': [[{ a: 'gate p1', b: 'quay-a p4' }]],
  'hub-plugged': [[{ port: 'gate p1' }]],
  'rogue-plugged': [[{ port: 'gate p1', priority: 0 }]],
  unplugged: [[{ port: 'gate p1' }]],
  'frames-lost': [
    [{ link, end: 'a', frames: 'bpdus' }],
    [{ link, end: 'b', frames: 'control' }],
    [{ link, end: 'b', frames: 'all' }],
    [{ link, end: 'b', frames: 'data' }],
  ],
  'frames-pass': [[{ link }]],
  'migration-check': [[{ port: 'gate p1' }]],
  'tree-off': [[{ name: 'gate' }]],
};

export const eventFaultSamples: Samples<typeof eventFaultMessages> = {
  gone: [[{ what: 'port', id: 'gate:9' }]],
};
