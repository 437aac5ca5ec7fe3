/** How a multi-chassis pair stands, and what its two switches must have alike, by code. */

interface Two {
  /** Name of the primary, and of the other switch. */
  readonly first: string;
  readonly second: string;
}

/** What partners of a pair that is split make of it: those that negotiate see two systems. */
const SPLIT_WORDS = {
  all: 'Partners see two LACP systems and suspend their members to one of them.',
  some: 'Partners that negotiate see two LACP systems and suspend their members to one of them; over static bundles frames arrive twice, come back or are lost, and no protocol detects it.',
  none: 'Frames arrive twice, come back or are lost, and no protocol detects it.',
} as const;

export const pairMessages = {
  one: ({ first, second }: Two) =>
    `${first} and ${second} are one bridge and one LACP system, with the identity of ${first}, the primary.`,
  alone: ({ first, second }: Two) => `One of ${first} and ${second} is off; the other carries all traffic.`,
  'primary-only': ({ first, second }: Two) =>
    `The peer link is down, and the keepalive shows that both are up: ${second} has shut down its shared bundles, and ${first} carries alone.`,
  split: ({ first, second, noticed }: Two & { noticed: 'none' | 'some' | 'all' }) =>
    `Peer link and keepalive are down: ${first} and ${second} each act as the only one left. ${SPLIT_WORDS[noticed]}`,
  off: () => 'Both are off.',

  'unlike-mode': () => 'When the primary fails, the other one runs another protocol.',
  'unlike-priority': () => 'When the primary fails, the roots move.',
  'unlike-region': () => 'When the primary fails, the region breaks.',
  'unlike-scale': () => 'When the primary fails, the same port has another cost.',
  'unlike-system': () => 'When the primary fails, partners see another system and renegotiate their bundles.',
  'unlike-bundle': () => 'Both switches must have the same value: to the partner they are one end.',
  'on-one-only': () => 'Only one switch has it: the bundle goes down with that switch.',
  'cabled-to-one': () => 'It is cabled to one of the two switches only: it goes down with that switch.',
  'partner-holds-with-one': () => 'The partner holds with one of the two alone: its members to the other pass nothing.',
  'both-forward': () => 'Both forward, each by itself: frames arrive twice, come back or are lost.',
  'second-is-down': () => 'The second switch has taken its members down until the peer link is back.',
  'keepalive-in-trees': ({ vlans }: { vlans: string }) =>
    `It carries ${vlans}, so that it is a link of their trees like any other: give it a VLAN that nothing else carries.`,
  'one-peer-cable': () => 'A single cable joins the two: add a second one.',
  'no-peer-cable': () => 'No cable joins the two.',
  'keepalive-inside': () => 'It runs over the peer link and fails with it: use a separate cable.',
  'no-keepalive': () => 'If the peer link fails, each switch acts as the only one left.',
  'peer-vlans': () => 'Frames of a missing VLAN that cross the pair are lost.',
} as const;
