/** The design document, version 1. One immutable value; see docs/design-format.md. */
import { z } from 'zod';
import {
  BRIDGE_PRIORITY,
  COST_RANGE,
  PORT_NUMBER,
  PORT_PRIORITY,
  VLAN_ID,
  canonicalMac,
  isIndividualMac,
  parseVlanRanges,
} from '../standard';
import { NAME_LENGTH, SHEET_EDGE, wording } from './wording';

export const DESIGN_FORMAT = 'knot-path-design';
export const DESIGN_VERSION = 1;

export const MODES = ['per-vlan-rstp', 'per-vlan-stp', 'rstp', 'stp'] as const;
export const LINK_TYPES = ['point-to-point', 'shared'] as const;
export const TIERS = ['core', 'distribution', 'access'] as const;

const saying = (sentence: (value: unknown) => string) => ({
  error: (issue: { input?: unknown }) => sentence(issue.input),
});

const stepped = (range: { step: number; max: number }, sentence: (value: unknown) => string) =>
  z
    .int(saying(sentence))
    .min(0, saying(sentence))
    .max(range.max, saying(sentence))
    .multipleOf(range.step, saying(sentence));

const whole = (min: number, max: number, sentence: (value: unknown) => string) =>
  z.int(saying(sentence)).min(min, saying(sentence)).max(max, saying(sentence));

const choice = <const T extends readonly [string, ...string[]]>(what: string, values: T) =>
  z.enum(
    values,
    saying((value) => wording.oneOf(what, value, values)),
  );

const id = z
  .string(saying(() => wording.missing('An id')))
  .regex(
    /^\S+$/,
    saying(() => wording.missing('An id without blanks')),
  )
  .max(
    120,
    saying((value) => wording.tooLong('An id', String(value).length, 120)),
  );
const name = z.string(saying(wording.name)).trim().min(1, saying(wording.name)).max(NAME_LENGTH, saying(wording.name));
const coordinate = z
  .number(saying(wording.coordinate))
  .min(-SHEET_EDGE, saying(wording.coordinate))
  .max(SHEET_EDGE, saying(wording.coordinate));
const bridgePriority = stepped(BRIDGE_PRIORITY, wording.bridgePriority);
const portPriority = stepped(PORT_PRIORITY, wording.portPriority);
/** Written on the wider scale; integrity narrows it to the scale of the switch. */
const pathCost = whole(COST_RANGE.long.min, COST_RANGE.long.max, (v) => wording.cost(v));
const vlanNumber = whole(VLAN_ID.min, VLAN_ID.max, wording.vlan);

const vlanKey = z.string().refine((key) => /^[1-9]\d*$/.test(key) && Number(key) <= VLAN_ID.max, {
  error: (issue) => wording.vlan(issue.input),
});
const perVlan = <T extends z.ZodType>(value: T) => z.record(vlanKey, value).optional();

const vlanSet = z.string(saying(wording.vlanList)).superRefine((text, context) => {
  if (text === 'all') return;
  const parsed = parseVlanRanges(text);
  if (!parsed.ok) context.addIssue({ code: 'custom', message: wording.vlanSet(text, parsed.part, parsed.reason) });
});

const mac = z.string(saying(wording.mac)).superRefine((text, context) => {
  const canonical = canonicalMac(text);
  if (canonical !== text) context.addIssue({ code: 'custom', message: wording.mac(text) });
  else if (!isIndividualMac(text)) context.addIssue({ code: 'custom', message: wording.groupMac(text) });
});

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
  /** VLANs carried, tagged and untagged together; absent: all. */
  vlans: vlanSet.optional(),
  /** The one of them that travels untagged; absent: none named. */
  native: vlanNumber.optional(),
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
  /** Spanning tree mode where it differs from the design's. */
  protocol: choice('Protocol', MODES).optional(),
  /** Cost scale where it differs from the design's. */
  costScale: choice('Cost scale', ['long', 'short']).optional(),
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
  kind: choice('Bundle kind', ['lacp', 'static']),
  /** LACP activity; absent: active. */
  activity: choice('LACP activity', ['active', 'passive']).optional(),
  ...treeSettings,
});

export const hostSchema = z.strictObject({
  id,
  name,
  /** The VLAN the host lives in; absent: the untagged VLAN of its port. */
  vlan: vlanNumber.optional(),
  x: coordinate.optional(),
  y: coordinate.optional(),
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
} as const;

export type Kind = keyof typeof COLLECTIONS;
export const KINDS = Object.keys(COLLECTIONS) as Kind[];
export type ElementOf = {
  vlan: Vlan;
  switch: Switch;
  port: Port;
  link: Link;
  segment: Segment;
  bundle: Bundle;
  host: Host;
};
export type AnyElement = ElementOf[Kind];

/** Whether every VLAN has a tree of its own in this mode. */
export const isPerVlan = (mode: Mode): boolean => mode === 'per-vlan-rstp' || mode === 'per-vlan-stp';

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
  };
}
