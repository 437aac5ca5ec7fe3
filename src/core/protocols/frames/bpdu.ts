/**
 * BPDUs to octets and back, from the protocol identifier on (802.1D-2004 clause 9.3; 802.1Q-2018 clause 14): the
 * configuration and notification BPDUs of classic spanning tree, RST BPDUs, and MST BPDUs with their instances.
 */
import { blankOctets, byName, putField, putFields, putNumber, takeField, takeNumber } from './fields';
import type { Field } from './fields';

export type BpduType = 'config' | 'notification' | 'rst' | 'mst';
/** Roles as the flags tell them. */
export type FlagRole = 'unknown' | 'alternate' | 'root' | 'designated';
const FLAG_ROLES: readonly FlagRole[] = ['unknown', 'alternate', 'root', 'designated'];

export const FLAG = {
  topologyChange: 0x01,
  proposal: 0x02,
  learning: 0x10,
  forwarding: 0x20,
  agreement: 0x40,
  /** Acknowledgement of a topology change; in an MST instance's flags: master. */
  acknowledgement: 0x80,
} as const;
const ROLE_SHIFT = 2;

export const flagRole = (flags: number): FlagRole => FLAG_ROLES[(flags >> ROLE_SHIFT) & 3]!;
export const roleFlags = (role: FlagRole): number => FLAG_ROLES.indexOf(role) << ROLE_SHIFT;

/** Times in 1/256 s, as they travel. */
export interface Bpdu {
  readonly type: BpduType;
  readonly flags: number;
  readonly rootPriority: number;
  readonly rootMac: number;
  /** In an MST BPDU the external root path cost. */
  readonly rootPathCost: number;
  /** In an MST BPDU the regional root. */
  readonly bridgePriority: number;
  readonly bridgeMac: number;
  readonly port: number;
  readonly messageAge: number;
  readonly maxAge: number;
  readonly helloTime: number;
  readonly forwardDelay: number;
  readonly mst?: MstPart | undefined;
}

export interface MstPart {
  /** The 51 octets that tell a region: selector, name, revision, digest. */
  readonly configuration: Uint8Array;
  readonly internalCost: number;
  readonly bridgePriority: number;
  readonly bridgeMac: number;
  readonly hops: number;
  readonly instances: readonly MstiPart[];
}

export interface MstiPart {
  readonly flags: number;
  /** Its extension is the MSTID. */
  readonly regionalPriority: number;
  readonly regionalMac: number;
  readonly internalCost: number;
  /** Upper four bits only. */
  readonly bridgePriority: number;
  readonly portPriority: number;
  readonly hops: number;
}

type Name = Exclude<keyof Bpdu, 'type' | 'mst'>;
/** Fields of all BPDUs but notifications. */
export const BPDU_FIELDS: readonly Field<Name>[] = [
  { name: 'flags', at: 4, width: 1 },
  { name: 'rootPriority', at: 5, width: 2 },
  { name: 'rootMac', at: 7, width: 6 },
  { name: 'rootPathCost', at: 13, width: 4 },
  { name: 'bridgePriority', at: 17, width: 2 },
  { name: 'bridgeMac', at: 19, width: 6 },
  { name: 'port', at: 25, width: 2 },
  { name: 'messageAge', at: 27, width: 2 },
  { name: 'maxAge', at: 29, width: 2 },
  { name: 'helloTime', at: 31, width: 2 },
  { name: 'forwardDelay', at: 33, width: 2 },
];
export const MST_FIELDS: readonly Field<'internalCost' | 'bridgePriority' | 'bridgeMac' | 'hops'>[] = [
  { name: 'internalCost', at: 89, width: 4 },
  { name: 'bridgePriority', at: 93, width: 2 },
  { name: 'bridgeMac', at: 95, width: 6 },
  { name: 'hops', at: 101, width: 1 },
];
export const MSTI_FIELDS: readonly Field<keyof MstiPart>[] = [
  { name: 'flags', at: 0, width: 1 },
  { name: 'regionalPriority', at: 1, width: 2 },
  { name: 'regionalMac', at: 3, width: 6 },
  { name: 'internalCost', at: 9, width: 4 },
  { name: 'bridgePriority', at: 13, width: 1 },
  { name: 'portPriority', at: 14, width: 1 },
  { name: 'hops', at: 15, width: 1 },
];
const CONFIG_LENGTH = 35;
const RST_LENGTH = 36;
const MST_BASE = 102;
const MSTI_LENGTH = 16;
const CONFIGURATION = { at: 38, length: 51 } as const;
const VERSION_3_LENGTH_AT = 36;
/** Octets of version 3 before the first instance. */
const VERSION_3_BASE = 64;

const HEAD: Record<BpduType, { version: number; code: number; length: number }> = {
  config: { version: 0, code: 0x00, length: CONFIG_LENGTH },
  notification: { version: 0, code: 0x80, length: 4 },
  rst: { version: 2, code: 0x02, length: RST_LENGTH },
  mst: { version: 3, code: 0x02, length: MST_BASE },
};

export const NOTIFICATION: Bpdu = {
  type: 'notification',
  flags: 0,
  rootPriority: 0,
  rootMac: 0,
  rootPathCost: 0,
  bridgePriority: 0,
  bridgeMac: 0,
  port: 0,
  messageAge: 0,
  maxAge: 0,
  helloTime: 0,
  forwardDelay: 0,
};

const B = byName(BPDU_FIELDS);
const M = byName(MST_FIELDS);
const I = byName(MSTI_FIELDS);

// Field by field, not in a loop over the tables: written and read for every BPDU, objects of one shape are much quicker.
function putCommon(o: Uint8Array, bpdu: Bpdu): void {
  putField(o, 0, B.flags, bpdu.flags);
  putField(o, 0, B.rootPriority, bpdu.rootPriority);
  putField(o, 0, B.rootMac, bpdu.rootMac);
  putField(o, 0, B.rootPathCost, bpdu.rootPathCost);
  putField(o, 0, B.bridgePriority, bpdu.bridgePriority);
  putField(o, 0, B.bridgeMac, bpdu.bridgeMac);
  putField(o, 0, B.port, bpdu.port);
  putField(o, 0, B.messageAge, bpdu.messageAge);
  putField(o, 0, B.maxAge, bpdu.maxAge);
  putField(o, 0, B.helloTime, bpdu.helloTime);
  putField(o, 0, B.forwardDelay, bpdu.forwardDelay);
}

const takeCommon = (o: Uint8Array, type: BpduType, mst: MstPart | undefined): Bpdu => ({
  type,
  flags: takeField(o, 0, B.flags),
  rootPriority: takeField(o, 0, B.rootPriority),
  rootMac: takeField(o, 0, B.rootMac),
  rootPathCost: takeField(o, 0, B.rootPathCost),
  bridgePriority: takeField(o, 0, B.bridgePriority),
  bridgeMac: takeField(o, 0, B.bridgeMac),
  port: takeField(o, 0, B.port),
  messageAge: takeField(o, 0, B.messageAge),
  maxAge: takeField(o, 0, B.maxAge),
  helloTime: takeField(o, 0, B.helloTime),
  forwardDelay: takeField(o, 0, B.forwardDelay),
  mst,
});

const takeInstance = (o: Uint8Array, at: number): MstiPart => ({
  flags: takeField(o, at, I.flags),
  regionalPriority: takeField(o, at, I.regionalPriority),
  regionalMac: takeField(o, at, I.regionalMac),
  internalCost: takeField(o, at, I.internalCost),
  bridgePriority: takeField(o, at, I.bridgePriority),
  portPriority: takeField(o, at, I.portPriority),
  hops: takeField(o, at, I.hops),
});

export function encodeBpdu(bpdu: Bpdu): Uint8Array {
  const { version, code, length } = HEAD[bpdu.type];
  const { mst } = bpdu;
  const octets = blankOctets(length + (mst ? mst.instances.length * MSTI_LENGTH : 0));
  octets[2] = version;
  octets[3] = code;
  if (bpdu.type === 'notification') return octets;
  putCommon(octets, bpdu);
  if (!mst) return octets;
  putNumber(octets, VERSION_3_LENGTH_AT, 2, VERSION_3_BASE + mst.instances.length * MSTI_LENGTH);
  octets.set(mst.configuration, CONFIGURATION.at);
  putFields(octets, 0, MST_FIELDS, mst as unknown as Record<keyof typeof M, number>);
  mst.instances.forEach((instance, i) => putFields(octets, MST_BASE + i * MSTI_LENGTH, MSTI_FIELDS, instance));
  return octets;
}

/** How octets are taken, by version and type; higher versions as the highest known one (802.1Q-2018 14.5). */
function typeOf(octets: Uint8Array): BpduType | null {
  if (octets.length < 4 || octets[0] !== 0 || octets[1] !== 0) return null;
  const [version, code] = [octets[2]!, octets[3]!];
  if (code === HEAD.notification.code) return 'notification';
  if (code === HEAD.config.code) return octets.length >= CONFIG_LENGTH ? 'config' : null;
  if (code !== HEAD.rst.code || version < 2 || octets.length < RST_LENGTH) return null;
  const instances = (takeNumber(octets, VERSION_3_LENGTH_AT, 2) || 0) - VERSION_3_BASE;
  const whole = octets.length >= MST_BASE && instances >= 0 && instances % MSTI_LENGTH === 0;
  return version >= 3 && whole && octets.length >= MST_BASE + instances ? 'mst' : 'rst';
}

/** Null for octets that are no BPDU or are cut short; an MST BPDU that is cut short is read as an RST BPDU. */
export function decodeBpdu(octets: Uint8Array): Bpdu | null {
  const type = typeOf(octets);
  if (type === null) return null;
  if (type === 'notification') return NOTIFICATION;
  if (type !== 'mst') return takeCommon(octets, type, undefined);
  const count = (takeNumber(octets, VERSION_3_LENGTH_AT, 2) - VERSION_3_BASE) / MSTI_LENGTH;
  return takeCommon(octets, type, {
    configuration: octets.subarray(CONFIGURATION.at, CONFIGURATION.at + CONFIGURATION.length),
    internalCost: takeField(octets, 0, M.internalCost),
    bridgePriority: takeField(octets, 0, M.bridgePriority),
    bridgeMac: takeField(octets, 0, M.bridgeMac),
    hops: takeField(octets, 0, M.hops),
    instances: Array.from({ length: count }, (_, i) => takeInstance(octets, MST_BASE + i * MSTI_LENGTH)),
  });
}

/** Octets of a BPDU of a VLAN's own tree as another VLAN's: its number stands in the system id extensions (9.2.5). */
export function inVlan(octets: Uint8Array, from: number, to: number): Uint8Array {
  const other = octets.slice();
  for (const field of [B.rootPriority, B.bridgePriority]) {
    if (octets.length < field.at + field.width) continue;
    const priority = takeField(octets, 0, field);
    if ((priority & 0xfff) === from) putField(other, 0, field, (priority & 0xf000) | to);
  }
  return other;
}

/** System id extension of the bridge that a BPDU names as its own (9.2.5); null where it names none. */
export const extensionIn = (octets: Uint8Array): number | null =>
  octets.length < CONFIG_LENGTH ? null : takeField(octets, 0, B.bridgePriority) & 0xfff;

/**
 * Whether two BPDUs are the same but for their flags, those of instances included: the same vectors and times, told with
 * another role, state or change.
 */
export function sameButFlags(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i] && !isFlags(i)) return false;
  return true;
}
const FLAGS_AT = BPDU_FIELDS[0]!.at;
const isFlags = (at: number): boolean =>
  at === FLAGS_AT || (at >= MST_BASE && (at - MST_BASE) % MSTI_LENGTH === MSTI_FIELDS[0]!.at);

/** Flags of a BPDU as octets: those of the CIST, or of its nth instance, from 1 on. */
export const flagsIn = (octets: Uint8Array, instance: number): number =>
  octets[instance === 0 ? FLAGS_AT : MST_BASE + (instance - 1) * MSTI_LENGTH]!;

/** Whether two BPDUs of one tree differ only in the topology change flag. */
export function tellsChangeOf(before: Uint8Array, octets: Uint8Array): boolean {
  if ((before[FLAGS_AT]! | FLAG.topologyChange) !== octets[FLAGS_AT]) return false;
  if (before.length !== octets.length || octets.length > RST_LENGTH) return false;
  for (let i = 0; i < octets.length; i++) if (before[i] !== octets[i] && i !== FLAGS_AT) return false;
  return true;
}

/** The 51 octets that identify a region: selector 0, name, revision, digest (802.1Q-2018 13.8). */
export function configurationOctets(name: string, revision: number, digest: string): Uint8Array {
  const octets = new Uint8Array(CONFIGURATION.length);
  octets.set(new TextEncoder().encode(name).subarray(0, 32), 1);
  putNumber(octets, 33, 2, revision);
  for (let i = 0; i < 16; i++) octets[35 + i] = parseInt(digest.slice(2 * i, 2 * i + 2), 16);
  return octets;
}
