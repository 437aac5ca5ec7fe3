import type { pairMessages } from '../pairs';
import type { Samples } from './samples';

const two = { first: 'Core-east', second: 'core-west' };

export const pairSamples: Samples<typeof pairMessages> = {
  one: [[two]],
  alone: [[two]],
  'primary-only': [[two]],
  split: [[two]],
  off: [[]],
  'unlike-mode': [[]],
  'unlike-priority': [[]],
  'unlike-region': [[]],
  'unlike-scale': [[]],
  'unlike-system': [[]],
  'unlike-bundle': [[]],
  'on-one-only': [[]],
  'cabled-to-one': [[]],
  'one-peer-cable': [[]],
  'no-peer-cable': [[]],
  'keepalive-inside': [[]],
  'no-keepalive': [[]],
  'peer-vlans': [[]],
};
