/** Protocol data units as tables of fields: one table drives both writing and reading. */

/** A field by its offset and width in octets, big-endian; at most 6 octets, since addresses are the widest. */
export interface Field<Name extends string> {
  readonly name: Name;
  readonly at: number;
  readonly width: 1 | 2 | 4 | 6;
}

/** Writes a whole number into octets; throws on one that does not fit, since no legal value does. */
export function putNumber(octets: Uint8Array, at: number, width: number, value: number): void {
  if (!Number.isInteger(value) || value < 0 || value >= 256 ** width)
    throw new Error(`putNumber: ${value} does not fit into ${width} octets`);
  // Width by width and without a division an octet: this runs for every field of every BPDU.
  let i = at;
  if (width === 6) {
    const high = Math.floor(value / 4294967296);
    octets[i++] = high >> 8;
    octets[i++] = high & 0xff;
  }
  if (width >= 4) {
    octets[i++] = (value >>> 24) & 0xff;
    octets[i++] = (value >>> 16) & 0xff;
  }
  if (width >= 2) octets[i++] = (value >>> 8) & 0xff;
  octets[i] = value & 0xff;
}

export function takeNumber(octets: Uint8Array, at: number, width: number): number {
  if (width === 1) return octets[at]!;
  if (width === 2) return (octets[at]! << 8) | octets[at + 1]!;
  const low = at + width - 4;
  const value = ((octets[low]! << 24) | (octets[low + 1]! << 16) | (octets[low + 2]! << 8) | octets[low + 3]!) >>> 0;
  return width === 4 ? value : ((octets[at]! << 8) | octets[at + 1]!) * 4294967296 + value;
}

/** The fields of a table by their names. */
export const byName = <Name extends string>(fields: readonly Field<Name>[]): Readonly<Record<Name, Field<Name>>> =>
  Object.fromEntries(fields.map((f) => [f.name, f])) as Record<Name, Field<Name>>;

/** Reads one field of a table, from `base` on. */
export const takeField = (octets: Uint8Array, base: number, { at, width }: Field<string>): number =>
  takeNumber(octets, base + at, width);

/** Writes one too. */
export const putField = (octets: Uint8Array, base: number, { at, width }: Field<string>, value: number): void =>
  putNumber(octets, base + at, width, value);

export function sameOctets(a: Uint8Array, b: Uint8Array): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

const PIECE = 65_536;
let piece = new Uint8Array(0);
let used = 0;

/** Zeros to write a frame in, cut from larger pieces: frames by the hundred thousand are cheap to make and to let go. */
export function blankOctets(length: number): Uint8Array {
  if (used + length > piece.length) {
    piece = new Uint8Array(Math.max(PIECE, length));
    used = 0;
  }
  used += length;
  return piece.subarray(used - length, used);
}

/** Writes every field of a table, from `base` on. */
export function putFields<Name extends string>(
  octets: Uint8Array,
  base: number,
  fields: readonly Field<Name>[],
  values: Readonly<Record<Name, number>>,
): void {
  for (const { name, at, width } of fields) putNumber(octets, base + at, width, values[name]);
}

/** Reads every field of a table, from `base` on. */
export function takeFields<Name extends string>(
  octets: Uint8Array,
  base: number,
  fields: readonly Field<Name>[],
): Record<Name, number> {
  return Object.fromEntries(
    fields.map(({ name, at, width }) => [name, takeNumber(octets, base + at, width)]),
  ) as Record<Name, number>;
}
