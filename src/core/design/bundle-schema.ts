/** Bundles of links, and pairs of switches that act as one end of them. */
import { z } from 'zod';
import { id, name, whole, choice, mac } from './values';
import { PORT_NUMBER, ACTIVE_MEMBERS, LACP_KEY, LACP_PRIORITY, PAIR_DOMAIN } from '../standard';
import { documentMessages as say } from '../messages';
import { treeSettings } from './tree-settings';

/** How a bundle comes about: by LACP, by no negotiation, or by one that a maker's switches have among themselves. */
export const BUNDLE_KINDS = ['lacp', 'static', 'own'] as const;

/** Fields of a frame that the distribution of a bundle may look at. */
export const HASH_FIELDS = ['src-mac', 'dst-mac', 'vlan', 'src-ip', 'dst-ip', 'src-port', 'dst-port'] as const;

/** One end of a bundle; the far end is a bundle of its own with its own number. */
export const bundleSchema = z.strictObject({
  id,
  switch: id,
  name,
  number: whole(PORT_NUMBER.min, PORT_NUMBER.max, say.portNumber),
  members: z.array(id),
  kind: choice('Bundle kind', BUNDLE_KINDS),
  /** Whether this end starts the negotiation or answers only; absent: active. */
  activity: choice('Activity', ['active', 'passive']).optional(),
  /** How soon a silent partner is given up: short 3 s, long 90 s; absent: long. */
  timeout: choice('LACP timeout', ['short', 'long']).optional(),
  /** Fewest members that must carry for the bundle to be up; absent: 1. */
  minActive: whole(ACTIVE_MEMBERS.min, ACTIVE_MEMBERS.max, (v) => say.members('The minimum', v)).optional(),
  /** Most active members at a time; absent: 8. */
  maxActive: whole(ACTIVE_MEMBERS.min, ACTIVE_MEMBERS.max, (v) => say.members('The maximum', v)).optional(),
  /** Fewest Mb/s of carrying members for the bundle to be up; absent: any. */
  minRate: whole(1, 1_000_000, say.minRate).optional(),
  /** LACP system of this end in place of its switch's; absent: the switch's address and priority. */
  systemMac: mac.optional(),
  systemPriority: whole(LACP_PRIORITY.min, LACP_PRIORITY.max, (v) => say.lacpPriority('System', v)).optional(),
  /** Seconds that a member waits after it came up before it is used; absent: 0. */
  returnDelay: whole(0, 3_600, say.returnDelay).optional(),
  /** Whether members that carry go on, though better ones come back; absent: no. */
  keepsWorking: z.boolean().optional(),
  /** Whether members go on as single ports while the partner is silent; absent: yes. */
  individual: z.boolean().optional(),
  /** LACP key; absent: the number of the bundle. */
  key: whole(LACP_KEY.min, LACP_KEY.max, say.lacpKey).optional(),
  /** Whether frames are expected from end devices only, a server's cards for example; absent: no. */
  edge: z.boolean().optional(),
  /** Number that the bundles of both switches of a pair have in common where they are one end together. */
  shared: whole(PORT_NUMBER.min, PORT_NUMBER.max, say.sharedNumber).optional(),
  /** Fields that choose the member a frame leaves by; absent: both addresses of the frame. */
  hash: z.array(choice('Hash field', HASH_FIELDS)).min(1).optional(),
  ...treeSettings,
});

/** Two switches that present themselves to others as one: bundles of a third may end on both. */
export const pairSchema = z.strictObject({
  id,
  /** Number that both switches of the pair, and no other pair of the network, have. */
  domain: whole(PAIR_DOMAIN.min, PAIR_DOMAIN.max, say.domain),
  /** The primary first: its identity is the pair's, and it goes on alone when the two lose each other. */
  switches: z.tuple([id, id]),
  /** Links between the two over which they act as one. A link that is gone is kept, and counts as down. */
  peer: z.array(id),
  /** Link by which each knows that the other lives when the peer link is lost. */
  keepalive: id.optional(),
});

export type Bundle = z.infer<typeof bundleSchema>;

export type SwitchPair = z.infer<typeof pairSchema>;
