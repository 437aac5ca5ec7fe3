import type { pairMessages } from '../pairs';
import type { Samples } from './samples';

const two = { first: 'Core-east', second: 'core-west' };

export const pairSamples: Samples<typeof pairMessages> = {
  one: [[two]],
  alone: [[two]],
  'primary-only': [[two]],
  split: [[{ ...two, noticed: 'all' }], [{ ...two, noticed: 'some' }], [{ ...two, noticed: 'none' }]],
  off: [[]],
  'unlike-mode': [[]],
  'unlike-priority': [[]],
  'unlike-region': [[]],
  'unlike-scale': [[]],
  'unlike-system': [[]],
  'unlike-bundle': [[]],
  'on-one-only': [[]],
  'cabled-to-one': [[]],
  'partner-holds-with-one': [[]],
  'both-forward': [[]],
  'second-is-down': [[]],
  'keepalive-in-trees': [[{ vlans: 'VLANs 110, 120' }]],
  'one-peer-cable': [[]],
  'no-peer-cable': [[]],
  'keepalive-inside': [[]],
  'no-keepalive': [[]],
  'peer-vlans': [[]],
};
