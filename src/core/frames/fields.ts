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
  // The widths that are all but addresses, without a division an octet: this runs for every field of every BPDU.
  if (width <= 2) {
    if (width === 2) octets[at] = value >> 8;
    octets[at + width - 1] = value & 0xff;
    return;
  }
  for (let i = width - 1, rest = value; i >= 0; i--, rest = Math.floor(rest / 256)) octets[at + i] = rest % 256;
}

export function takeNumber(octets: Uint8Array, at: number, width: number): number {
  if (width === 1) return octets[at]!;
  if (width === 2) return (octets[at]! << 8) | octets[at + 1]!;
  let value = 0;
  for (let i = 0; i < width; i++) value = value * 256 + octets[at + i]!;
  return value;
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
