/** LLDP frames: what a neighbour sends of itself (802.1AB-2016 clause 8). */
import { numberToMac } from '../../standard';
import { toNumber } from '../snmp/tree';

export const LLDP_TYPE = 0x88cc;
const TLV = { end: 0, chassis: 1, port: 2, ttl: 3, description: 4, name: 5, capabilities: 7, management: 8 } as const;
const CHASSIS_MAC = 4;
const PORT_MAC = 3;
const BRIDGE = 0x0004;

export interface LldpFrame {
  readonly chassisMac: string | null;
  readonly port: string | null;
  readonly portMac: string | null;
  readonly description: string | null;
  readonly name: string | null;
  readonly bridge: boolean | null;
  readonly management: readonly string[];
}

const text = (octets: Uint8Array): string | null => new TextDecoder().decode(octets).replace(/\0+$/, '').trim() || null;
const macOf = (octets: Uint8Array): string | null => (octets.length === 6 ? numberToMac(toNumber(octets, 0, 6)) : null);

/** The units of a frame's payload; null where the three that every frame begins with are not there. */
export function readLldpFrame(payload: Uint8Array): LldpFrame | null {
  const of: { -readonly [K in keyof LldpFrame]: LldpFrame[K] } = {
    chassisMac: null,
    port: null,
    portMac: null,
    description: null,
    name: null,
    bridge: null,
    management: [],
  };
  const seen = new Set<number>();
  for (let at = 0; at + 2 <= payload.length;) {
    const head = toNumber(payload, at, 2);
    const [type, length] = [head >> 9, head & 0x1ff];
    const value = payload.subarray(at + 2, at + 2 + length);
    if (type === TLV.end || value.length < length) break;
    seen.add(type);
    if (type === TLV.chassis && value[0] === CHASSIS_MAC) of.chassisMac = macOf(value.subarray(1));
    else if (type === TLV.chassis) of.name ??= text(value.subarray(1));
    else if (type === TLV.port && value[0] === PORT_MAC) of.portMac = macOf(value.subarray(1));
    else if (type === TLV.port) of.port = text(value.subarray(1));
    else if (type === TLV.description) of.description = text(value);
    else if (type === TLV.name) of.name = text(value);
    else if (type === TLV.capabilities && length === 4) of.bridge = (toNumber(value, 2, 2) & BRIDGE) !== 0;
    else if (type === TLV.management && value[0] === 5 && value[1] === 1)
      of.management = [...of.management, [...value.subarray(2, 6)].join('.')];
    at += 2 + length;
  }
  return seen.has(TLV.chassis) && seen.has(TLV.port) ? of : null;
}
