/** Values of settings as they are shown; the document has the keys. */

/** Spanning tree modes. */
export const MODE_WORDS = {
  'per-vlan-rstp': 'RSTP, one tree per VLAN',
  'per-vlan-stp': 'STP, one tree per VLAN',
  rstp: 'RSTP, one tree for all VLANs',
  stp: 'STP, one tree for all VLANs',
  mstp: 'MSTP, one tree per instance',
} as const;

/** Scales of default port costs. */
export const SCALE_WORDS = { long: '32-bit (1 Gb/s is 20 000)', short: '16-bit (1 Gb/s is 4)' } as const;

/** Which members count for the cost of a bundle. */
export const BUNDLE_COST_WORDS = { active: 'of active members', configured: 'of all members' } as const;

/** Kinds of bundles. */
export const BUNDLE_KIND_WORDS = {
  lacp: 'LACP',
  static: 'static, no negotiation',
  own: 'proprietary negotiation',
} as const;
