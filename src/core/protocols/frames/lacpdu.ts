/** LACPDUs to octets and back (802.1AX-2014 clause 6.4.2): 110 octets from the subtype on. */
import { putFields, putNumber, takeFields, takeNumber } from './fields';
import type { Field } from './fields';

export const LACPDU_LENGTH = 110;
export const SLOW_PROTOCOLS = { destination: 0x0180c2000002, type: 0x8809, subtype: 1, version: 1 } as const;

/** What an actor says of itself, or a partner is known by; the addresses as numbers. */
export interface LacpInfo {
  readonly systemPriority: number;
  readonly system: number;
  readonly key: number;
  readonly portPriority: number;
  readonly port: number;
  /** Eight bits, see LACP_STATE. */
  readonly state: number;
}

export interface Lacpdu {
  readonly actor: LacpInfo;
  readonly partner: LacpInfo;
  /** In tens of microseconds. */
  readonly collectorMaxDelay: number;
}

/** The bits of a state octet. */
export const LACP_STATE = {
  activity: 0x01,
  timeout: 0x02,
  aggregation: 0x04,
  synchronization: 0x08,
  collecting: 0x10,
  distributing: 0x20,
  defaulted: 0x40,
  expired: 0x80,
} as const;
export type LacpStateBit = keyof typeof LACP_STATE;

/** The bits that are set, in words. */
export const stateWords = (state: number): LacpStateBit[] =>
  (Object.keys(LACP_STATE) as LacpStateBit[]).filter((bit) => state & LACP_STATE[bit]);

const INFO: readonly Field<keyof LacpInfo>[] = [
  { name: 'systemPriority', at: 2, width: 2 },
  { name: 'system', at: 4, width: 6 },
  { name: 'key', at: 10, width: 2 },
  { name: 'portPriority', at: 12, width: 2 },
  { name: 'port', at: 14, width: 2 },
  { name: 'state', at: 16, width: 1 },
];
/** Type, length and place of each part. */
const ACTOR = { type: 1, length: 20, at: 2 } as const;
const PARTNER = { type: 2, length: 20, at: 22 } as const;
const COLLECTOR = { type: 3, length: 16, at: 42 } as const;

export function encodeLacpdu({ actor, partner, collectorMaxDelay }: Lacpdu): Uint8Array {
  const octets = new Uint8Array(LACPDU_LENGTH);
  octets[0] = SLOW_PROTOCOLS.subtype;
  octets[1] = SLOW_PROTOCOLS.version;
  for (const { type, length, at } of [ACTOR, PARTNER, COLLECTOR]) {
    octets[at] = type;
    octets[at + 1] = length;
  }
  putFields(octets, ACTOR.at, INFO, actor as unknown as Record<keyof LacpInfo, number>);
  putFields(octets, PARTNER.at, INFO, partner as unknown as Record<keyof LacpInfo, number>);
  putNumber(octets, COLLECTOR.at + 2, 2, collectorMaxDelay);
  return octets;
}

/** Null for octets that are no LACPDU: another subtype, or cut short. Versions above 1 are read as 1 (clause 6.4.2.3). */
export function decodeLacpdu(octets: Uint8Array): Lacpdu | null {
  if (octets.length < LACPDU_LENGTH || octets[0] !== SLOW_PROTOCOLS.subtype || octets[1] === 0) return null;
  return {
    actor: takeFields(octets, ACTOR.at, INFO),
    partner: takeFields(octets, PARTNER.at, INFO),
    collectorMaxDelay: takeNumber(octets, COLLECTOR.at + 2, 2),
  };
}
