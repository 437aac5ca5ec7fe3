/** How a multi-chassis pair stands, and what its two switches must have alike, by code. */

interface Two {
  /** Name of the primary, and of the other switch. */
  readonly first: string;
  readonly second: string;
}

export const pairMessages = {
  one: ({ first, second }: Two) =>
    `${first} and ${second} are one bridge and one LACP system, with the identity of ${first}, the primary.`,
  alone: ({ first, second }: Two) => `One of ${first} and ${second} is off; the other carries all traffic.`,
  'primary-only': ({ first, second }: Two) =>
    `The peer link is down, and the keepalive shows that both are up: ${second} has shut down its shared bundles, and ${first} carries alone.`,
  split: ({ first, second }: Two) =>
    `Peer link and keepalive are down: ${first} and ${second} each act as the only one left. Frames loop or are lost, and no protocol detects it.`,
  off: () => 'Both are off.',

  'unlike-mode': () => 'When the primary fails, the other one runs another protocol.',
  'unlike-priority': () => 'When the primary fails, the roots move.',
  'unlike-region': () => 'When the primary fails, the region breaks.',
  'unlike-scale': () => 'When the primary fails, the same port has another cost.',
  'unlike-system': () => 'When the primary fails, partners see another system and renegotiate their bundles.',
  'unlike-bundle': () => 'Both switches must have the same value: to the partner they are one end.',
  'on-one-only': () => 'Only one switch has it: the bundle goes down with that switch.',
  'cabled-to-one': () => 'It is cabled to one of the two switches only: it goes down with that switch.',
  'one-peer-cable': () => 'A single cable joins the two: add a second one.',
  'no-peer-cable': () => 'No cable joins the two.',
  'keepalive-inside': () => 'It runs over the peer link and fails with it: use a separate cable.',
  'no-keepalive': () => 'If the peer link fails, each switch acts as the only one left.',
  'peer-vlans': () => 'Frames of a missing VLAN that cross the pair are lost.',
} as const;
