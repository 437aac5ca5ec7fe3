/**
 * BPDUs to octets and back, from the protocol identifier on (802.1D-2004 clause 9.3; 802.1Q-2018 clause 14): the
 * configuration and notification BPDUs of classic spanning tree, RST BPDUs, and MST BPDUs with their instances.
 */
import { blankOctets, putNumber, takeNumber } from './fields';
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
  readonly mst?: MstPart;
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

function put<T extends string>(octets: Uint8Array, base: number, fields: readonly Field<T>[], of: Record<T, number>) {
  for (const f of fields) putNumber(octets, base + f.at, f.width, of[f.name]);
}

export function encodeBpdu(bpdu: Bpdu): Uint8Array {
  const { version, code, length } = HEAD[bpdu.type];
  const { mst } = bpdu;
  const octets = blankOctets(length + (mst ? mst.instances.length * MSTI_LENGTH : 0));
  octets[2] = version;
  octets[3] = code;
  if (bpdu.type === 'notification') return octets;
  put(octets, 0, BPDU_FIELDS, bpdu);
  if (!mst) return octets;
  putNumber(octets, VERSION_3_LENGTH_AT, 2, VERSION_3_BASE + mst.instances.length * MSTI_LENGTH);
  octets.set(mst.configuration, CONFIGURATION.at);
  put(octets, 0, MST_FIELDS, mst);
  mst.instances.forEach((instance, i) => put(octets, MST_BASE + i * MSTI_LENGTH, MSTI_FIELDS, instance));
  return octets;
}

function take<T extends string>(octets: Uint8Array, base: number, fields: readonly Field<T>[]): Record<T, number> {
  const values = {} as Record<T, number>;
  for (const f of fields) values[f.name] = takeNumber(octets, base + f.at, f.width);
  return values;
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
  const common = take(octets, 0, BPDU_FIELDS);
  if (type !== 'mst') return withType(type, common);
  const count = (takeNumber(octets, VERSION_3_LENGTH_AT, 2) - VERSION_3_BASE) / MSTI_LENGTH;
  const part = take(octets, 0, MST_FIELDS);
  const mst: MstPart = {
    configuration: octets.subarray(CONFIGURATION.at, CONFIGURATION.at + CONFIGURATION.length),
    ...part,
    instances: Array.from({ length: count }, (_, i) => take(octets, MST_BASE + i * MSTI_LENGTH, MSTI_FIELDS)),
  };
  return { ...withType(type, common), mst };
}

/** The fields read become the BPDU itself: it is not copied for its type. */
function withType(type: BpduType, fields: Record<Name, number>): Bpdu {
  return Object.assign(fields, { type });
}

/** The 51 octets by which a region is told: selector 0, name, revision, digest (802.1Q-2018 13.8). */
export function configurationOctets(name: string, revision: number, digest: string): Uint8Array {
  const octets = new Uint8Array(CONFIGURATION.length);
  octets.set(new TextEncoder().encode(name).subarray(0, 32), 1);
  putNumber(octets, 33, 2, revision);
  for (let i = 0; i < 16; i++) octets[35 + i] = parseInt(digest.slice(2 * i, 2 * i + 2), 16);
  return octets;
}
