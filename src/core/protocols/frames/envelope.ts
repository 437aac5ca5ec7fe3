/** What BPDUs and LACPDUs travel in (802.3, 802.2 and 802.1Q tags), and frames back to what they hold. */
import { blankOctets, putNumber, takeNumber } from './fields';
import { SLOW_PROTOCOLS } from './lacpdu';
import { isOampdu } from './oampdu';

export const BRIDGE_GROUP = 0x0180c2000000;
/** Group address of the BPDUs that a tree per VLAN sends in its VLAN. */
export const VLAN_GROUP = 0x01000ccccccd;
const TAG = 0x8100;
const LLC = [0x42, 0x42, 0x03] as const;
const SNAP = [0xaa, 0xaa, 0x03, 0x00, 0x00, 0x0c, 0x01, 0x0b] as const;
const LEAST_FRAME = 60;
const WHERE_VLAN_STANDS = 36;

export interface Envelope {
  readonly kind: 'bpdu' | 'vlan-bpdu' | 'lacpdu' | 'oampdu' | 'other';
  /** VLAN of the tag; null without one. */
  readonly vlan: number | null;
  /** From the first octet of the BPDU or LACPDU on. */
  readonly payload: Uint8Array;
  /** Where the payload starts in the frame. */
  readonly at: number;
  /** VLAN that a per-VLAN BPDU names in its last field. */
  readonly named?: number;
}

/** Destination, source, and the tag where there is one; the octets behind are `rest` long. */
function start(
  destination: number,
  source: number,
  vlan: number | null,
  rest: number,
): { frame: Uint8Array; at: number } {
  const at = vlan === null ? 12 : 16;
  const frame = blankOctets(Math.max(LEAST_FRAME, at + rest));
  putNumber(frame, 0, 6, destination);
  putNumber(frame, 6, 6, source);
  if (vlan !== null) {
    putNumber(frame, 12, 2, TAG);
    // Control frames travel with the highest priority.
    putNumber(frame, 14, 2, 0xe000 | vlan);
  }
  return { frame, at };
}

/** A BPDU to all bridges, untagged. */
export function bpduFrame(source: number, bpdu: Uint8Array): Uint8Array {
  const { frame, at } = start(BRIDGE_GROUP, source, null, 2 + LLC.length + bpdu.length);
  putNumber(frame, at, 2, LLC.length + bpdu.length);
  frame.set(LLC, at + 2);
  frame.set(bpdu, at + 2 + LLC.length);
  return frame;
}

/** A BPDU of a VLAN's own tree: in its VLAN, with the number in a trailing field; untagged where the port sends it so. */
export function vlanBpduFrame(source: number, bpdu: Uint8Array, vlan: number, tagged: boolean): Uint8Array {
  // The VLAN stands behind as many octets as an RST BPDU has; a shorter one is padded.
  const room = Math.max(WHERE_VLAN_STANDS, bpdu.length);
  const length = SNAP.length + room + 6;
  const { frame, at } = start(VLAN_GROUP, source, tagged ? vlan : null, 2 + length);
  putNumber(frame, at, 2, length);
  frame.set(SNAP, at + 2);
  frame.set(bpdu, at + 2 + SNAP.length);
  // Type 0, length 2, and the VLAN.
  const tail = at + 2 + SNAP.length + room;
  putNumber(frame, tail + 2, 2, 2);
  putNumber(frame, tail + 4, 2, vlan);
  return frame;
}

/** A LACPDU or OAMPDU: of the protocols that send at most ten frames a second (802.3-2018 annex 57A). */
export function slowFrame(source: number, pdu: Uint8Array): Uint8Array {
  const { frame, at } = start(SLOW_PROTOCOLS.destination, source, null, 2 + pdu.length);
  putNumber(frame, at, 2, SLOW_PROTOCOLS.type);
  frame.set(pdu, at + 2);
  return frame;
}

/** Where a BPDU begins in its frame. */
const bpduAt = (vlan: number | null, own: boolean): number =>
  (vlan === null ? 12 : 16) + 2 + (own ? SNAP.length : LLC.length);

/** What `openEnvelope` would find in the frame of a BPDU, of a VLAN's own tree where one is named, without making it. */
export const bpduEnvelope = (bpdu: Uint8Array, named: number | null, tagged: boolean): Envelope =>
  named === null
    ? { kind: 'bpdu', vlan: null, payload: bpdu, at: bpduAt(null, false) }
    : { kind: 'vlan-bpdu', vlan: tagged ? named : null, payload: bpdu, at: bpduAt(tagged ? named : null, true), named };

const starts = (frame: Uint8Array, at: number, octets: readonly number[]): boolean => {
  for (let i = 0; i < octets.length; i++) if (frame[at + i] !== octets[i]) return false;
  return true;
};

/** Destination and source of a frame. */
export const addressesOf = (frame: Uint8Array): { destination: number; source: number } => ({
  destination: takeNumber(frame, 0, 6),
  source: takeNumber(frame, 6, 6),
});

/** What a frame holds. */
export function openEnvelope(frame: Uint8Array): Envelope {
  const tagged = frame[12] === TAG >> 8 && frame[13] === (TAG & 0xff);
  const at = tagged ? 16 : 12;
  const vlan = tagged ? ((frame[14]! << 8) | frame[15]!) & 0xfff : null;
  const typeOrLength = (frame[at]! << 8) | frame[at + 1]!;
  if (typeOrLength === SLOW_PROTOCOLS.type) {
    const payload = frame.subarray(at + 2);
    return { kind: isOampdu(payload) ? 'oampdu' : 'lacpdu', vlan, payload, at: at + 2 };
  }
  const end = at + 2 + typeOrLength;
  if (typeOrLength <= 1500 && starts(frame, at + 2, LLC))
    return { kind: 'bpdu', vlan, payload: frame.subarray(at + 5, end), at: at + 5 };
  if (typeOrLength <= 1500 && starts(frame, at + 2, SNAP)) {
    const from = at + 2 + SNAP.length;
    const named = (frame[end - 2]! << 8) | frame[end - 1]!;
    return { kind: 'vlan-bpdu', vlan, payload: frame.subarray(from, end - 6), at: from, named };
  }
  return { kind: 'other', vlan, payload: frame.subarray(at), at };
}
