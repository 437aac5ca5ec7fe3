/** Answers in the making: values under the names of their objects, in the order that agents walk in. */
import { COLUMNS, SCALARS } from '../snmp/objects';
import type { ColumnName, ScalarName } from '../snmp/objects';
import type { SnmpRow, SnmpValue } from '../snmp/tree';
import type { BridgeId } from '../../standard';

/** Kinds of values that SNMP tells apart and a reader does not. */
export const SYNTAX = ['integer', 'gauge', 'ticks', 'octets', 'oid'] as const;
export type Syntax = (typeof SYNTAX)[number];

export interface Answer extends SnmpRow {
  readonly syntax: Syntax;
}

const arcs = (oid: string): number[] => oid.split('.').map(Number);

/** Lexicographical, arc by arc. */
export function compareArcs(a: readonly number[], b: readonly number[]): number {
  const shared = Math.min(a.length, b.length);
  for (let i = 0; i < shared; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return a.length - b.length;
}

export const octetsOf = (value: number, width: number): Uint8Array => {
  const octets = new Uint8Array(width);
  for (let i = width - 1, rest = value; i >= 0; i--, rest = Math.floor(rest / 256)) octets[i] = rest % 256;
  return octets;
};

export const bridgeOctets = ({ priority, mac }: BridgeId): Uint8Array =>
  Uint8Array.from([...octetsOf(priority, 2), ...octetsOf(mac, 6)]);

export const textOctets = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Answers under names. */
export class Answers {
  private readonly list: { readonly arcs: readonly number[]; readonly answer: Answer }[] = [];

  private put(oid: string, value: SnmpValue, syntax: Syntax | undefined): void {
    const kind = syntax ?? (typeof value === 'number' ? 'integer' : typeof value === 'string' ? 'oid' : 'octets');
    this.list.push({ arcs: arcs(oid), answer: { oid, value, syntax: kind } });
  }

  scalar(name: ScalarName, value: SnmpValue, syntax?: Syntax): void {
    this.put(SCALARS[name], value, syntax);
  }

  column(name: ColumnName, index: string | number, value: SnmpValue, syntax?: Syntax): void {
    this.put(`${COLUMNS[name]}.${index}`, value, syntax);
  }

  /** All of them, in the order of their identifiers. */
  sorted(): Answer[] {
    return this.list.sort((a, b) => compareArcs(a.arcs, b.arcs)).map((x) => x.answer);
  }
}

/** The answers of an agent, to be looked up and walked through. */
export class AnswerBook {
  private readonly places: readonly (readonly number[])[];
  private readonly byOid: ReadonlyMap<string, Answer>;

  constructor(readonly answers: readonly Answer[]) {
    this.places = answers.map((a) => arcs(a.oid));
    this.byOid = new Map(answers.map((a) => [a.oid, a]));
  }

  get(oid: string): Answer | undefined {
    return this.byOid.get(oid);
  }

  /** The first one behind an identifier; undefined where the book ends. */
  after(oid: string): Answer | undefined {
    const wanted = arcs(oid);
    let [low, high] = [0, this.places.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (compareArcs(this.places[middle]!, wanted) <= 0) low = middle + 1;
      else high = middle;
    }
    return this.answers[low];
  }
}
