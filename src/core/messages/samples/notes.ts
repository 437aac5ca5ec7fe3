import type { noteMessages } from '../notes';
import type { Samples } from './samples';

export const noteSamples: Samples<typeof noteMessages> = {
  'silence-classic': [[]],
  'silence-shared': [[]],
  'silence-alone': [[]],
  'hello-classic': [[]],
  'filter-and-guard': [[]],
  'guards-shared': [[]],
  'keepalives-alone': [[]],
  'keepalives-unlike': [[]],
  'storm-shut': [[]],
  'untagged-shared': [[]],
  'access-classic': [[]],
  'key-twice': [[{ other: 'to-gate of quay-a' }]],
  'keepalive-of-pair': [[{ vlans: '110, 120' }]],
  'one-end-apart': [[]],
  'kept-alone': [[]],
  'kept-history': [[]],
};
