/** Sets of VLANs written as engineers write them: `all`, or numbers and ranges such as `110-140,199`. */
import { VLAN_ID } from './constants';

export type VlanSetResult = { ok: true; vlans: readonly number[] } | { ok: false; part: string; reason: VlanSetFault };
export type VlanSetFault = 'not-a-number' | 'out-of-range' | 'backwards';

/** What `all` and the empty list mean is left to the caller; this reads the ranges only. */
export function parseVlanRanges(text: string): VlanSetResult {
  const vlans = new Set<number>();
  for (const part of text.split(/[,;\s]+/)) {
    if (part === '') continue;
    const match = /^(\d+)(?:-(\d+))?$/.exec(part);
    if (!match) return { ok: false, part, reason: 'not-a-number' };
    const first = Number(match[1]);
    const last = match[2] === undefined ? first : Number(match[2]);
    if (first < VLAN_ID.min || first > VLAN_ID.max || last < VLAN_ID.min || last > VLAN_ID.max)
      return { ok: false, part, reason: 'out-of-range' };
    if (last < first) return { ok: false, part, reason: 'backwards' };
    for (let vlan = first; vlan <= last; vlan++) vlans.add(vlan);
  }
  return { ok: true, vlans: [...vlans].sort((a, b) => a - b) };
}

/** The shortest spelling of a set of VLANs: ascending, runs of two or more as ranges. */
export function formatVlanRanges(vlans: Iterable<number>): string {
  const sorted = [...new Set(vlans)].sort((a, b) => a - b);
  const parts: string[] = [];
  for (let i = 0; i < sorted.length;) {
    let j = i;
    while (j + 1 < sorted.length && sorted[j + 1] === sorted[j]! + 1) j++;
    parts.push(j === i ? `${sorted[i]}` : `${sorted[i]}-${sorted[j]}`);
    i = j + 1;
  }
  return parts.join(',');
}

const members = new Map<string, Uint8Array>();
const MOST_CACHED = 20_000;

/** One byte per VLAN 0 … 4095, 1 where the set holds it. `all` holds 1 … 4094. Remembered by spelling; do not write to it. */
export function vlanMembership(set: string): Uint8Array {
  const known = members.get(set);
  if (known) return known;
  const bits = new Uint8Array(4096);
  if (set === 'all') bits.fill(1, VLAN_ID.min, VLAN_ID.max + 1);
  else {
    const parsed = parseVlanRanges(set);
    if (!parsed.ok) throw new Error(`vlanMembership: '${set}' is no set of VLANs`);
    for (const vlan of parsed.vlans) bits[vlan] = 1;
  }
  if (members.size >= MOST_CACHED) members.clear();
  members.set(set, bits);
  return bits;
}
