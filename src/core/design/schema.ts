/** The design document, version 1. One immutable value; see docs/design-format.md. */
import { z } from 'zod';
import { INSTANCE_ID, LACP_PRIORITY, MAX_HOPS, PORT_NUMBER, TIMERS } from '../standard';
import {
  saying,
  whole,
  choice,
  id,
  name,
  coordinate,
  bridgePriority,
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
import { documentMessages as say } from '../messages';
import { goalSchema, demandSchema } from './goal-schema';
import type { Goal, Demand } from './goal-schema';
import { treeSettings } from './tree-settings';
import { bundleSchema, pairSchema } from './bundle-schema';
import type { Bundle, SwitchPair } from './bundle-schema';
import { acceptanceSchema, cableCostSchema, riskSchema } from './review-schema';
import type { Acceptance, CableCost, Risk } from './review-schema';
import { readingSchema } from './reading-schema';
import type { KeptReading } from './reading-schema';
import { workplaceSchema } from './workplace-schema';
import type { Workplace } from './workplace-schema';
import { noteSchema } from './note-schema';
import type { Note } from './note-schema';
import { TIERS } from './values';

export const DESIGN_FORMAT = 'knot-path-design';
export const DESIGN_VERSION = 1;

export const MODES = ['per-vlan-rstp', 'per-vlan-stp', 'rstp', 'stp', 'mstp'] as const;
export const LINK_TYPES = ['point-to-point', 'shared'] as const;

export const AGE_STEPS = ['second', 'fraction'] as const;
/** What a port does about something that it detects. */
export const ACTIONS = ['report', 'shut'] as const;
export const STORM_ACTIONS = ['drop', 'shut'] as const;

const recovery = whole(30, 86_400, say.recovery);

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
  /** A building, a row of racks: switches of a group are drawn as one plate where there is no room for all. */
  group: name.optional(),
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
  vlanInstance: perVlan(whole(0, INSTANCE_ID.max, say.instance)),
  /** Spanning tree mode where it differs from the design's. */
  protocol: choice('Protocol', MODES).optional(),
  /** Cost scale where it differs from the design's. */
  costScale: choice('Cost scale', ['long', 'short']).optional(),
  /** What the cost of its bundles follows, where that differs from the design's. */
  bundleCost: choice('Bundle cost', ['active', 'configured']).optional(),
  /** LACP system priority; absent: 32768. */
  lacpPriority: whole(LACP_PRIORITY.min, LACP_PRIORITY.max, (v) => say.lacpPriority('System', v)).optional(),
  /** Timers in seconds, in use in the whole tree while the switch is root; absent: 2, 20 and 15. */
  helloTime: whole(TIMERS.helloTime.min, TIMERS.helloTime.max, (v) => say.timer('helloTime', v)).optional(),
  maxAge: whole(TIMERS.maxAge.min, TIMERS.maxAge.max, (v) => say.timer('maxAge', v)).optional(),
  forwardDelay: whole(TIMERS.forwardDelay.min, TIMERS.forwardDelay.max, (v) => say.timer('forwardDelay', v)).optional(),
  /** BPDUs that a port may send in a second, beyond the first; absent: 6. */
  holdCount: whole(TIMERS.holdCount.min, TIMERS.holdCount.max, (v) => say.timer('holdCount', v)).optional(),
  /** Seconds after which a learned address that is not heard again is forgotten; absent: 300. */
  ageingTime: whole(TIMERS.ageingTime.min, TIMERS.ageingTime.max, (v) => say.timer('ageingTime', v)).optional(),
  /** Spanning trees that it is able to run; absent: as many as there are. */
  maxTrees: whole(1, 4094, say.maxTrees).optional(),
  /** Every edge port has a BPDU guard, unless the port says otherwise; absent: no. */
  edgeGuard: z.boolean().optional(),
  /** Every edge port has a BPDU filter that yields, unless the port says otherwise; absent: no. */
  edgeFilter: z.boolean().optional(),
  /** What the switch adds to the age of a message: a second as the standards say, or 1/256 s as some do; absent: a second. */
  ageStep: choice('Age step', AGE_STEPS).optional(),
  /** Seconds after which a port that was shut comes back by itself, by what shut it; absent: never. */
  guardRecovery: recovery.optional(),
  oneWayRecovery: recovery.optional(),
  stormRecovery: recovery.optional(),
  /** Powered off. */
  off: z.boolean().optional(),
  x: coordinate.optional(),
  y: coordinate.optional(),
});

export const portSchema = z.strictObject({
  id,
  switch: id,
  name,
  number: whole(PORT_NUMBER.min, PORT_NUMBER.max, say.portNumber),
  /** Mb/s. */
  speed: whole(1, 1_000_000, say.speed),
  duplex: choice('Duplex', ['full', 'half']).optional(),
  /** Administratively down. */
  down: z.boolean().optional(),
  edge: z.boolean().optional(),
  /** LACP port priority; absent: 32768. */
  lacpPriority: whole(LACP_PRIORITY.min, LACP_PRIORITY.max, (v) => say.lacpPriority('Port', v)).optional(),
  /** Point-to-point or shared where the duplex should not decide it (IEEE 802.1D-2004 6.4.3, adminPointToPointMAC). */
  linkType: choice('Link type', LINK_TYPES).optional(),
  /** What it does when its link carries frames one way only, as keepalives that both ends send tell it; absent: it sends none. */
  oneWay: choice('One-way action', ACTIONS).optional(),
  /** Seconds between two keepalives; five that are missed are a fault; absent: 1. */
  oneWayInterval: whole(1, 90, say.oneWayInterval).optional(),
  /** Part of its rate that broadcast may take, in per cent; absent: all. */
  stormLimit: whole(1, 100, say.stormLimit).optional(),
  /** What it does beyond that; absent: it drops what is too much. */
  stormAction: choice('Storm action', STORM_ACTIONS).optional(),
  description: z
    .string()
    .max(
      400,
      saying((value) => say.tooLong('The description', String(value).length, 400)),
    )
    .optional(),
  ...treeSettings,
});

const linkEnd = z.union([z.strictObject({ port: id }), z.strictObject({ host: id, card: name.optional() })], {
  error: () => say.wrongType('{"port": id} or {"host": id}'),
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
  maxHops: whole(MAX_HOPS.min, MAX_HOPS.max, say.maxHops).optional(),
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
  risks: z.array(riskSchema).default([]),
  accepted: z.array(acceptanceSchema).default([]),
  workplaces: z.array(workplaceSchema).default([]),
  readings: z.array(readingSchema).default([]),
  notes: z.array(noteSchema).default([]),
  cableCosts: z.array(cableCostSchema).default([]),
});

export type Design = z.infer<typeof designSchema>;
export type Vlan = z.infer<typeof vlanSchema>;
export type Switch = z.infer<typeof switchSchema>;
export type Port = z.infer<typeof portSchema>;
export type Link = z.infer<typeof linkSchema>;
export type LinkEnd = z.infer<typeof linkEnd>;
export type Segment = z.infer<typeof segmentSchema>;
export type Host = z.infer<typeof hostSchema>;
export type Region = z.infer<typeof regionSchema>;
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
  risk: { list: 'risks', schema: riskSchema },
  acceptance: { list: 'accepted', schema: acceptanceSchema },
  workplace: { list: 'workplaces', schema: workplaceSchema },
  reading: { list: 'readings', schema: readingSchema },
  note: { list: 'notes', schema: noteSchema },
  cableCost: { list: 'cableCosts', schema: cableCostSchema },
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
  risk: Risk;
  acceptance: Acceptance;
  workplace: Workplace;
  reading: KeptReading;
  note: Note;
  cableCost: CableCost;
};
export type AnyElement = ElementOf[Kind];

/** Whether every VLAN has a tree of its own in this mode. */
export const isPerVlan = (mode: Mode): boolean => mode === 'per-vlan-rstp' || mode === 'per-vlan-stp';

/** Whether a mode is one of the classic protocol, with the timers of 1998. */
export const isClassicMode = (mode: Mode): boolean => mode === 'stp' || mode === 'per-vlan-stp';

/** The mode a switch runs: its own, else the design's. */
export const modeOf = (design: Design, s: Switch): Mode => s.protocol ?? design.mode;

/** Lists with nothing in them. */
export const emptyLists = <L extends ListName>(lists: readonly L[]): Pick<Design, L> =>
  Object.fromEntries(lists.map((list) => [list, []])) as unknown as Pick<Design, L>;

/** A design with nothing in it yet but the VLAN that every switch has. */
export const emptyDesign = (designName: string): Design => ({
  format: DESIGN_FORMAT,
  version: DESIGN_VERSION,
  name: designName,
  mode: 'per-vlan-rstp',
  costScale: 'long',
  bundleCost: 'active',
  ...emptyLists(KINDS.map((kind) => COLLECTIONS[kind].list)),
  vlans: [{ id: 'v1', number: 1, name: 'default' }],
});
