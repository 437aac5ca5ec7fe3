/** The design document, version 1. One immutable value; see docs/design-format.md. */
import { z } from 'zod';
import {
  ACTIVE_MEMBERS,
  INSTANCE_ID,
  LACP_KEY,
  LACP_PRIORITY,
  MAX_HOPS,
  PAIR_DOMAIN,
  PORT_NUMBER,
  TIMERS,
} from '../standard';
import {
  saying,
  whole,
  choice,
  id,
  name,
  coordinate,
  bridgePriority,
  portPriority,
  pathCost,
  vlanNumber,
  perVlan,
  instanceKey,
  perInstance,
  regionName,
  revision,
  vlanSet,
  mac,
} from './values';
import { scriptSchema } from './script-schema';
import type { Script } from './script-schema';
import { wording } from './wording';

export const DESIGN_FORMAT = 'knot-path-design';
export const DESIGN_VERSION = 1;

export const MODES = ['per-vlan-rstp', 'per-vlan-stp', 'rstp', 'stp', 'mstp'] as const;
export const LINK_TYPES = ['point-to-point', 'shared'] as const;
/** How a bundle comes about: by LACP, by no negotiation, or by one that a maker's switches have among themselves. */
export const BUNDLE_KINDS = ['lacp', 'static', 'own'] as const;
/** Fields of a frame that the distribution of a bundle may look at. */
export const HASH_FIELDS = ['src-mac', 'dst-mac', 'vlan', 'src-ip', 'dst-ip', 'src-port', 'dst-port'] as const;
export const TIERS = ['core', 'distribution', 'access'] as const;

/** What a port and a bundle have in common: everything that spanning tree and VLANs ask of it. */
const treeSettings = {
  /** Port path cost for all trees; absent: by speed. */
  cost: pathCost.optional(),
  /** Port priority for all trees; absent: 128. */
  priority: portPriority.optional(),
  /** Port path cost for single VLANs, by VLAN number. */
  vlanCost: perVlan(pathCost),
  /** Port priority for single VLANs, by VLAN number. */
  vlanPriority: perVlan(portPriority),
  /** Cost inside an MST region where it differs from the one outside (802.1Q internal port path cost). */
  internalCost: pathCost.optional(),
  /** Internal port path cost for single MST instances, by MSTID; 0 is the CIST inside its region. */
  instanceCost: perInstance(pathCost),
  /** Port priority for single MST instances, by MSTID; 0 is the CIST. */
  instancePriority: perInstance(portPriority),
  /** VLANs carried, tagged and untagged together; absent: all. */
  vlans: vlanSet.optional(),
  /** The one of them that travels untagged; absent: none named. */
  native: vlanNumber.optional(),
  /** Becomes an edge port by itself while it hears no BPDU; absent: no. */
  autoEdge: z.boolean().optional(),
  /** Shuts the port on the first BPDU heard. */
  bpduGuard: z.boolean().optional(),
  /** Neither sends nor hears BPDUs. */
  bpduFilter: z.boolean().optional(),
  /** Blocks the port while it receives superior BPDUs (restrictedRole). */
  rootGuard: z.boolean().optional(),
  /** Holds the port back when BPDUs stop coming, instead of opening it. */
  loopGuard: z.boolean().optional(),
};

export const vlanSchema = z.strictObject({
  id,
  number: vlanNumber,
  name: name.optional(),
  /** Index into the hues of trees; absent: by order. */
  hue: z.int().min(0).max(63).optional(),
});

export const switchSchema = z.strictObject({
  id,
  name,
  mac,
  tier: choice('Tier', TIERS).optional(),
  /** Bridge priority for all trees; absent: 32768. */
  priority: bridgePriority.optional(),
  /** Bridge priority for single VLANs, by VLAN number. */
  vlanPriority: perVlan(bridgePriority),
  /** Bridge priority for single MST instances, by MSTID; 0 is the CIST. */
  instancePriority: perInstance(bridgePriority),
  /** MST region the switch is meant to be in; absent: the first of the design. */
  region: id.optional(),
  /** Name, revision and VLAN-to-instance entries where this switch differs from its region; 0 is the CIST. */
  mstName: regionName.optional(),
  mstRevision: revision.optional(),
  vlanInstance: perVlan(whole(0, INSTANCE_ID.max, wording.instance)),
  /** Spanning tree mode where it differs from the design's. */
  protocol: choice('Protocol', MODES).optional(),
  /** Cost scale where it differs from the design's. */
  costScale: choice('Cost scale', ['long', 'short']).optional(),
  /** What the cost of its bundles follows, where that differs from the design's. */
  bundleCost: choice('Bundle cost', ['active', 'configured']).optional(),
  /** LACP system priority; absent: 32768. */
  lacpPriority: whole(LACP_PRIORITY.min, LACP_PRIORITY.max, (v) => wording.lacpPriority('System', v)).optional(),
  /** Timers in seconds, in use in the whole tree while the switch is root; absent: 2, 20 and 15. */
  helloTime: whole(TIMERS.helloTime.min, TIMERS.helloTime.max, (v) => wording.timer('helloTime', v)).optional(),
  maxAge: whole(TIMERS.maxAge.min, TIMERS.maxAge.max, (v) => wording.timer('maxAge', v)).optional(),
  forwardDelay: whole(TIMERS.forwardDelay.min, TIMERS.forwardDelay.max, (v) =>
    wording.timer('forwardDelay', v),
  ).optional(),
  /** BPDUs that a port may send in a second, beyond the first; absent: 6. */
  holdCount: whole(TIMERS.holdCount.min, TIMERS.holdCount.max, (v) => wording.timer('holdCount', v)).optional(),
  /** Seconds after which a port that its BPDU guard has shut comes back by itself; absent: never. */
  guardRecovery: whole(30, 86_400, wording.recovery).optional(),
  /** Powered off. */
  off: z.boolean().optional(),
  x: coordinate.optional(),
  y: coordinate.optional(),
});

export const portSchema = z.strictObject({
  id,
  switch: id,
  name,
  number: whole(PORT_NUMBER.min, PORT_NUMBER.max, wording.portNumber),
  /** Mb/s. */
  speed: whole(1, 1_000_000, wording.speed),
  duplex: choice('Duplex', ['full', 'half']).optional(),
  /** Administratively down. */
  down: z.boolean().optional(),
  edge: z.boolean().optional(),
  /** LACP port priority; absent: 32768. */
  lacpPriority: whole(LACP_PRIORITY.min, LACP_PRIORITY.max, (v) => wording.lacpPriority('Port', v)).optional(),
  /** Point-to-point or shared where the duplex should not decide it (IEEE 802.1D-2004 6.4.3, adminPointToPointMAC). */
  linkType: choice('Link type', LINK_TYPES).optional(),
  description: z
    .string()
    .max(
      400,
      saying((value) => wording.tooLong('The description', String(value).length, 400)),
    )
    .optional(),
  ...treeSettings,
});

const linkEnd = z.union([z.strictObject({ port: id }), z.strictObject({ host: id, card: name.optional() })], {
  error: () => wording.wrongType('{"port": id} or {"host": id}'),
});

export const linkSchema = z.strictObject({ id, a: linkEnd, b: linkEnd, down: z.boolean().optional() });

/** A LAN that more than two ports may share: a hub or an unmanaged switch. */
export const segmentSchema = z.strictObject({
  id,
  name,
  ports: z.array(id),
  down: z.boolean().optional(),
  x: coordinate.optional(),
  y: coordinate.optional(),
});

/** One end of a bundle; the far end is a bundle of its own with its own number. */
export const bundleSchema = z.strictObject({
  id,
  switch: id,
  name,
  number: whole(PORT_NUMBER.min, PORT_NUMBER.max, wording.portNumber),
  members: z.array(id),
  kind: choice('Bundle kind', BUNDLE_KINDS),
  /** Whether this end starts the negotiation or answers only; absent: active. */
  activity: choice('Activity', ['active', 'passive']).optional(),
  /** How soon a silent partner is given up: short 3 s, long 90 s; absent: long. */
  timeout: choice('LACP timeout', ['short', 'long']).optional(),
  /** Fewest members that must carry for the bundle to be up; absent: 1. */
  minActive: whole(ACTIVE_MEMBERS.min, ACTIVE_MEMBERS.max, (v) => wording.members('The minimum', v)).optional(),
  /** Most active members at a time; absent: 8. */
  maxActive: whole(ACTIVE_MEMBERS.min, ACTIVE_MEMBERS.max, (v) => wording.members('The maximum', v)).optional(),
  /** Whether members go on as single ports while the partner is silent; absent: yes. */
  individual: z.boolean().optional(),
  /** LACP key; absent: the number of the bundle. */
  key: whole(LACP_KEY.min, LACP_KEY.max, wording.lacpKey).optional(),
  /** Whether frames are expected from end devices only, a server's cards for example; absent: no. */
  edge: z.boolean().optional(),
  /** Number that the bundles of both switches of a pair have in common where they are one end together. */
  shared: whole(PORT_NUMBER.min, PORT_NUMBER.max, wording.sharedNumber).optional(),
  /** Fields that choose the member a frame leaves by; absent: both addresses of the frame. */
  hash: z.array(choice('Hash field', HASH_FIELDS)).min(1).optional(),
  ...treeSettings,
});

export const hostSchema = z.strictObject({
  id,
  name,
  /** How its cards are bundled; absent: they are single ones. */
  bond: choice('Bond', ['lacp-active', 'lacp-passive', 'static']).optional(),
  /** The VLAN the host lives in; absent: the untagged VLAN of its port. */
  vlan: vlanNumber.optional(),
  x: coordinate.optional(),
  y: coordinate.optional(),
});

/** An MST configuration that several switches share: what must be alike for them to be one region (802.1Q 13.8). */
export const regionSchema = z.strictObject({
  id,
  /** At most 32 octets; may be empty. */
  name: regionName,
  revision,
  /** VLANs of each instance by MSTID; VLANs in none belong to the CIST. */
  map: z.record(instanceKey, vlanSet),
  /** How many bridges a BPDU may cross inside the region; absent: 20. */
  maxHops: whole(MAX_HOPS.min, MAX_HOPS.max, wording.maxHops).optional(),
});

/** Two switches that present themselves to others as one: bundles of a third may end on both. */
export const pairSchema = z.strictObject({
  id,
  /** Number that both switches of the pair, and no other pair of the network, have. */
  domain: whole(PAIR_DOMAIN.min, PAIR_DOMAIN.max, wording.domain),
  /** The primary first: its identity is the pair's, and it goes on alone when the two lose each other. */
  switches: z.tuple([id, id]),
  /** Links between the two over which they act as one. A link that is gone is kept, and counts as down. */
  peer: z.array(id),
  /** Link by which each knows that the other lives when the peer link is lost. */
  keepalive: id.optional(),
});

const place = z.union([z.strictObject({ switch: id }), z.strictObject({ host: id })], {
  error: () => wording.wrongType('{"switch": id} or {"host": id}'),
});

/** VLANs that a goal speaks of; the trees meant are those that carry them. */
const goalBase = { id, vlans: vlanSet };

/** What the engineer wants. References may lead nowhere: the goal is then void, and kept. */
export const goalSchema = z.discriminatedUnion('type', [
  /** `switch` is root, and `next` takes over when it goes. */
  z.strictObject({ ...goalBase, type: z.literal('root'), switch: id, next: id.optional() }),
  /** This port or bundle is a cut end. */
  z.strictObject({ ...goalBase, type: z.literal('cut'), port: id }),
  /** The link or bundle at this port carries the VLANs; `only`: and no others while nothing has failed. */
  z.strictObject({ ...goalBase, type: z.literal('carries'), port: id, only: z.boolean().optional() }),
  /** Two places talk over at most so many switch-to-switch hops, or not through a switch. */
  z.strictObject({
    ...goalBase,
    type: z.literal('path'),
    from: place,
    to: place,
    atMost: whole(0, 64, wording.hops).optional(),
    avoid: id.optional(),
  }),
  /** No switch of the tier has a better bridge identifier than any switch outside it. */
  z.strictObject({ ...goalBase, type: z.literal('never-root'), tier: choice('Tier', TIERS) }),
  /** No link carries more than so much of its rate, one way. */
  z.strictObject({ ...goalBase, type: z.literal('load'), percent: whole(1, 1000, wording.percent) }),
]);

/** Traffic offered in a VLAN from one place to another, one way. */
export const demandSchema = z.strictObject({
  id,
  vlan: vlanNumber,
  from: place,
  to: place,
  /** Mb/s. */
  load: z.number(saying(wording.load)).min(0, saying(wording.load)).max(1_000_000, saying(wording.load)),
});

export const designSchema = z.strictObject({
  format: z.literal(DESIGN_FORMAT),
  version: z.literal(DESIGN_VERSION),
  name,
  mode: choice('Mode', MODES),
  costScale: choice('Cost scale', ['long', 'short']),
  /** Whether a bundle's cost follows the rate of its active or of its configured members. */
  bundleCost: choice('Bundle cost', ['active', 'configured']),
  vlans: z.array(vlanSchema),
  switches: z.array(switchSchema),
  ports: z.array(portSchema),
  links: z.array(linkSchema),
  segments: z.array(segmentSchema),
  bundles: z.array(bundleSchema),
  hosts: z.array(hostSchema),
  regions: z.array(regionSchema).default([]),
  pairs: z.array(pairSchema).default([]),
  scripts: z.array(scriptSchema).default([]),
  goals: z.array(goalSchema).default([]),
  demands: z.array(demandSchema).default([]),
});

export type Design = z.infer<typeof designSchema>;
export type Vlan = z.infer<typeof vlanSchema>;
export type Switch = z.infer<typeof switchSchema>;
export type Port = z.infer<typeof portSchema>;
export type Link = z.infer<typeof linkSchema>;
export type LinkEnd = z.infer<typeof linkEnd>;
export type Segment = z.infer<typeof segmentSchema>;
export type Bundle = z.infer<typeof bundleSchema>;
export type Host = z.infer<typeof hostSchema>;
export type Region = z.infer<typeof regionSchema>;
export type SwitchPair = z.infer<typeof pairSchema>;
export type Goal = z.infer<typeof goalSchema>;
export type Demand = z.infer<typeof demandSchema>;
export type PlaceRef = z.infer<typeof place>;
export type Mode = (typeof MODES)[number];

/** The lists of a design, by the kind of element they hold. */
export const COLLECTIONS = {
  vlan: { list: 'vlans', schema: vlanSchema },
  switch: { list: 'switches', schema: switchSchema },
  port: { list: 'ports', schema: portSchema },
  link: { list: 'links', schema: linkSchema },
  segment: { list: 'segments', schema: segmentSchema },
  bundle: { list: 'bundles', schema: bundleSchema },
  host: { list: 'hosts', schema: hostSchema },
  region: { list: 'regions', schema: regionSchema },
  pair: { list: 'pairs', schema: pairSchema },
  script: { list: 'scripts', schema: scriptSchema },
  goal: { list: 'goals', schema: goalSchema },
  demand: { list: 'demands', schema: demandSchema },
} as const;

export type Kind = keyof typeof COLLECTIONS;
/** Name of a list of a design. */
export type ListName = (typeof COLLECTIONS)[Kind]['list'];
export const KINDS = Object.keys(COLLECTIONS) as Kind[];
export type ElementOf = {
  vlan: Vlan;
  switch: Switch;
  port: Port;
  link: Link;
  segment: Segment;
  bundle: Bundle;
  host: Host;
  region: Region;
  pair: SwitchPair;
  script: Script;
  goal: Goal;
  demand: Demand;
};
export type AnyElement = ElementOf[Kind];

/** Whether every VLAN has a tree of its own in this mode. */
export const isPerVlan = (mode: Mode): boolean => mode === 'per-vlan-rstp' || mode === 'per-vlan-stp';

/** The mode a switch runs: its own, else the design's. */
export const modeOf = (design: Design, s: Switch): Mode => s.protocol ?? design.mode;

/** A design with nothing in it yet but the VLAN that every switch has. */
export function emptyDesign(designName: string): Design {
  return {
    format: DESIGN_FORMAT,
    version: DESIGN_VERSION,
    name: designName,
    mode: 'per-vlan-rstp',
    costScale: 'long',
    bundleCost: 'active',
    vlans: [{ id: 'v1', number: 1, name: 'default' }],
    switches: [],
    ports: [],
    links: [],
    segments: [],
    bundles: [],
    hosts: [],
    regions: [],
    pairs: [],
    scripts: [],
    goals: [],
    demands: [],
  };
}
