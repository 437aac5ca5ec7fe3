import type { fileMessages } from '../files';
import type { Samples } from './samples';

const expected = 'switch,mac, and if wanted priority';
const text = 'x'.repeat(59);

export const fileSamples: Samples<typeof fileMessages> = {
  empty: [[]],
  'unknown-kind': [[]],
  'whole-network': [[{ file: 'Harbour.json' }]],
  'second-of-kind': [[]],
  'unknown-format': [[{ format: 'x', legal: ['json', 'graphml'] }]],
  'empty-table': [[{ expected }]],
  binary: [[]],
  'not-utf8-csv': [[]],
  'line-ends': [[]],
  quotes: [[]],
  'header-lacks': [[{ names: "'mac'", expected }]],
  'header-unknown': [[{ names: "'colour'", expected }]],
  'header-twice': [[{ names: "'mac'" }]],
  'not-a-number': [[{ text }]],
  'unknown-mode': [[{ text, legal: ['stp', 'rstp'] }]],
  'unknown-scale': [[{ text }]],
  'link-cell-empty': [[]],
  'no-switch-in-table': [[{ text }]],
  'port-used': [[{ port: 'p1', name: 'gate', row: 4 }]],
  'speed-cell-empty': [[]],
  'segment-with-b-side': [[]],
  'vlan-list': [[{ text: '10,x', part: 'x' }]],
  'vlan-cell-empty': [[]],
  'xml-ends-within': [[{ within: '<![CDATA[ … ]]>' }]],
  xml: [[{ reason: "closing tag 'graph' is expected" }]],
  'xml-broken': [[]],
  'xml-name': [[]],
  'xml-depth': [[{ levels: 60 }]],
  'xml-entities': [[]],
  'no-graph': [[]],
  'node-without-id': [[{ number: 3 }]],
  'no-neighbours': [[]],
  'neighbour-unnamed': [[{ port: 'eth0' }]],
  'neighbour-cell-empty': [[]],
};
