/**
 * MAC addresses. Inside the engine an address is a number below 2^48, so that comparing two addresses is comparing
 * two numbers; in designs and on screen it is six octets in lower-case hex with colons.
 */

const FORMS = [
  /^([0-9a-f]{2})[:-]([0-9a-f]{2})[:-]([0-9a-f]{2})[:-]([0-9a-f]{2})[:-]([0-9a-f]{2})[:-]([0-9a-f]{2})$/i,
  /^([0-9a-f]{2})([0-9a-f]{2})\.([0-9a-f]{2})([0-9a-f]{2})\.([0-9a-f]{2})([0-9a-f]{2})$/i,
  /^([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i,
];

/** Six octets in one of the usual spellings to the canonical `00:00:5e:00:53:01`; null when it is no MAC address. */
export function canonicalMac(text: string): string | null {
  for (const form of FORMS) {
    const match = form.exec(text.trim());
    if (match) return match.slice(1, 7).join(':').toLowerCase();
  }
  return null;
}

/** Canonical MAC address to a number 0 … 2^48 − 1. Throws on anything else: designs hold canonical addresses only. */
export function macToNumber(mac: string): number {
  const value = Number.parseInt(mac.replaceAll(':', ''), 16);
  if (Number.isNaN(value) || mac.length !== 17) throw new Error(`macToNumber: '${mac}' is no canonical MAC address`);
  return value;
}

/** A number 0 … 2^48 − 1 to the canonical spelling. */
export function numberToMac(value: number): string {
  const hex = value.toString(16).padStart(12, '0');
  return hex.match(/../g)!.join(':');
}

/** Whether the address may identify one station: the group bit (lowest bit of the first octet) is clear. */
export function isIndividualMac(mac: string): boolean {
  return (Number.parseInt(mac.slice(0, 2), 16) & 1) === 0;
}
