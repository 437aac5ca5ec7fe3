/** What an agent answered, by the names of the objects: scalars, and columns by the index of their rows. */
import { numberToMac } from '../../standard';
import { observeMessages as say } from '../../messages';
import { COLUMNS, SCALARS } from './objects';
import type { ColumnName, ScalarName } from './objects';

/** An integer of any kind, octets, or an object identifier. */
export type SnmpValue = number | Uint8Array | string;

export interface SnmpRow {
  /** Without a leading dot. */
  readonly oid: string;
  readonly value: SnmpValue;
}

const NAME_BY_COLUMN = new Map(Object.entries(COLUMNS).map(([name, oid]) => [oid as string, name as ColumnName]));
const NAME_BY_SCALAR = new Map(Object.entries(SCALARS).map(([name, oid]) => [oid as string, name as ScalarName]));
const SHORTEST = Math.min(...Object.values(COLUMNS).map((oid) => oid.split('.').length));

/** Column and index of an identifier; null for one of no column that is known. */
function columnOf(oid: string): { name: ColumnName; index: string } | null {
  let at = -1;
  for (let parts = 0; ; parts++) {
    at = oid.indexOf('.', at + 1);
    if (at < 0) return null;
    if (parts < SHORTEST - 1) continue;
    const name = NAME_BY_COLUMN.get(oid.slice(0, at));
    if (name) return { name, index: oid.slice(at + 1) };
  }
}

const text = (octets: Uint8Array): string => new TextDecoder().decode(octets).replace(/\0+$/, '').trim();

/** Answers of one agent. Values of the wrong kind or length are left out, with a sentence each. */
export class SnmpTree {
  private readonly scalars = new Map<ScalarName, SnmpValue>();
  private readonly columns = new Map<ColumnName, Map<string, SnmpValue>>();
  readonly unread: string[] = [];
  /** Rows that are of an object of ours. */
  count = 0;

  constructor(rows: Iterable<SnmpRow>) {
    for (const { oid, value } of rows) {
      const scalar = NAME_BY_SCALAR.get(oid);
      if (scalar) this.scalars.set(scalar, value);
      const at = scalar ? null : columnOf(oid);
      if (at) {
        const column = this.columns.get(at.name) ?? new Map<string, SnmpValue>();
        this.columns.set(at.name, column.set(at.index, value));
      }
      if (scalar || at) this.count++;
    }
  }

  private wrong(name: string, index: string, wanted: string): void {
    if (this.unread.length < 20) this.unread.push(say['wrong-value']({ object: name, index, wanted }));
  }

  /** Indices of the rows of a column, in the order in which they came. */
  rows(name: ColumnName): string[] {
    return [...(this.columns.get(name)?.keys() ?? [])];
  }

  private raw(name: ColumnName | ScalarName, index?: string): SnmpValue | undefined {
    return index === undefined
      ? this.scalars.get(name as ScalarName)
      : this.columns.get(name as ColumnName)?.get(index);
  }

  number(name: ScalarName): number | undefined;
  number(name: ColumnName, index: string): number | undefined;
  number(name: ColumnName | ScalarName, index?: string): number | undefined {
    const value = this.raw(name, index);
    if (value === undefined || typeof value === 'number') return value;
    this.wrong(name, index ?? '0', 'a number');
    return undefined;
  }

  text(name: ScalarName): string | undefined;
  text(name: ColumnName, index: string): string | undefined;
  text(name: ColumnName | ScalarName, index?: string): string | undefined {
    const value = this.raw(name, index);
    if (value instanceof Uint8Array) return text(value);
    return typeof value === 'string' ? value : undefined;
  }

  octets(name: ScalarName): Uint8Array | undefined;
  octets(name: ColumnName, index: string): Uint8Array | undefined;
  octets(name: ColumnName | ScalarName, index?: string): Uint8Array | undefined {
    const value = this.raw(name, index);
    return value instanceof Uint8Array ? value : undefined;
  }

  private sized(name: ColumnName | ScalarName, index: string | undefined, length: number): Uint8Array | undefined {
    const value = this.raw(name, index);
    if (value === undefined) return undefined;
    if (value instanceof Uint8Array && value.length === length) return value;
    // Some tools print an address in its usual spelling, with the definition at hand.
    const spelt = value instanceof Uint8Array ? text(value).split(/[:-]/) : [];
    if (length === 6 && spelt.length === 6 && spelt.every((p) => /^[0-9a-f]{1,2}$/i.test(p)))
      return Uint8Array.from(spelt, (p) => parseInt(p, 16));
    if (value instanceof Uint8Array && value.length === 0) return undefined;
    this.wrong(name, index ?? '0', `${length} octets`);
    return undefined;
  }

  /** An address in its usual spelling; undefined for none, or one of zeros. */
  mac(name: ScalarName): string | undefined;
  mac(name: ColumnName, index: string): string | undefined;
  mac(name: ColumnName | ScalarName, index?: string): string | undefined {
    const octets = this.sized(name, index, 6);
    const value = octets && toNumber(octets, 0, 6);
    return value ? numberToMac(value) : undefined;
  }

  /** A bridge identifier of eight octets; undefined for none, or one of zeros. */
  bridgeId(name: ScalarName): { priority: number; mac: number } | undefined;
  bridgeId(name: ColumnName, index: string): { priority: number; mac: number } | undefined;
  bridgeId(name: ColumnName | ScalarName, index?: string): { priority: number; mac: number } | undefined {
    const octets = this.sized(name, index, 8);
    if (!octets) return undefined;
    const id = { priority: toNumber(octets, 0, 2), mac: toNumber(octets, 2, 6) };
    return id.mac === 0 ? undefined : id;
  }

  /** A port identifier of two octets. */
  portId(name: ColumnName, index: string): number | undefined {
    const value = this.raw(name, index);
    if (typeof value === 'number') return value;
    const octets = this.sized(name, index, 2);
    return octets && toNumber(octets, 0, 2);
  }
}

export function toNumber(octets: Uint8Array, from: number, width: number): number {
  let value = 0;
  for (let i = from; i < from + width; i++) value = value * 256 + (octets[i] ?? 0);
  return value;
}

/** Numbers of a bit string, counted from 1 at the most significant bit of the first octet (RFC 4363). */
export function bitsOf(octets: Uint8Array): number[] {
  const numbers: number[] = [];
  for (let i = 0; i < octets.length; i++)
    for (let bit = 0; bit < 8; bit++) if (octets[i]! & (0x80 >> bit)) numbers.push(i * 8 + bit + 1);
  return numbers;
}

/** The bit string of some numbers, `most` of them at least. */
export function bitString(numbers: Iterable<number>, most: number): Uint8Array {
  const list = [...numbers];
  const octets = new Uint8Array(Math.ceil(Math.max(most, ...list, 1) / 8));
  for (const n of list) octets[(n - 1) >> 3]! |= 0x80 >> ((n - 1) & 7);
  return octets;
}
