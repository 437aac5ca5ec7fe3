import type { tableMessages } from '../tables';
import type { Samples } from './samples';

const text = 'x'.repeat(59);
const at = { port: 'p1', name: 'gate' };

export const tableSamples: Samples<typeof tableMessages> = {
  'not-a-vlan': [[{ text }]],
  'not-yes-or-no': [[{ text }]],
  'not-one-of': [[{ what: 'Link type', text, legal: ['shared', 'point-to-point'] }]],
  'no-switch': [[{ text }]],
  'no-switch-or-host': [[{ text }]],
  'nothing-for-note': [[{ text }]],
  'note-needs-words': [[]],
  'number-missing': [[]],
  'port-needs-switch': [[]],
  'port-name-taken': [[at]],
  'member-moves': [[{ port: 'p1', bundle: 'to-core' }]],
  'port-used': [[at]],
  'port-cabled': [[{ ...at, by: 'gate p1 – quay-a p4' }]],
  'link-cell-empty': [[]],
  'same-end': [[at]],
  'segment-with-b-side': [[]],
  'segment-with-host': [[]],
  'host-has-no-vlan': [[]],
  'host-has-no-cost': [[]],
  'traffic-ends': [[]],
  'traffic-vlan': [[]],
  'every-vlan': [[]],
  'received-at-one-end': [[{ silent: 'gate', from: 'quay-a p4' }]],
  'both-report': [[]],
  'one-reports': [[{ name: 'Gate' }]],
  'on-segment': [[{ segment: 'hub' }]],
  'drawn-otherwise': [[{ a: 'gate p1', b: 'quay-a p4' }]],
  'not-drawn': [[]],
  'not-received': [[{ names: ['gate'] }], [{ names: ['gate', 'quay-a'] }]],
};
