/**
 * The control frames of a run in rows of numbers: what a port says again and again stands once, so that a frame takes
 * some forty octets, and millions of them are kept. Plain values, which travel from a worker as they are.
 */
import { FLAG, flagRole, openEnvelope } from '../protocols/frames';
import { MESSAGE_PARTS } from '../standard';
import type { Vector } from '../standard';
import { OctetPool, Rows, Words } from './rows';

const KINDS = ['config', 'notification', 'rst', 'mst', 'lacp', 'own', 'oam'] as const;
export type FrameKind = (typeof KINDS)[number];
/** State out about a frame: its kind for the lanes. */
const MARKS = ['hello', 'proposal', 'agreement', 'change', 'lacp', 'keepalive'] as const;
export type Mark = (typeof MARKS)[number];
/** Whose the vector was that a receiver own vector, for it speaks for the LAN; one it heard; one that grew too old. */
const WHOSE = ['Mine', 'Received', 'Aged'] as const;

export interface Held {
  readonly vector: Vector;
  readonly whose: (typeof WHOSE)[number];
}

/** What a receiver made of a frame, in one tree. */
export interface Reception {
  readonly port: string;
  /** Microseconds from the start of the rehearsal. */
  readonly at: number;
  /** Its word for it. */
  readonly info: string;
  /** Index of the tree in its process: 0, or an MST instance in its place behind the CIST. */
  readonly tree: number;
  /** What it held until then; null where that was the same, or where nothing is held. */
  readonly held: Held | null;
}

/** A control frame as it left a port. */
export interface FrameRecord {
  /** Microseconds from the start of the rehearsal. */
  readonly at: number;
  readonly from: string;
  readonly octets: Uint8Array;
  readonly kind: FrameKind;
  readonly mark: Mark;
  /** VLAN of its tree; null for those of a single process. */
  readonly vlan: number | null;
  readonly heard: readonly Reception[];
}

/** Width of the rows: a saying is what one port says in the same octets again and again. */
const SAYING = { port: 0, vlan: 1, kind: 2, mark: 3, end: 4 } as const;
const SAYING_WIDTH = 5;
const HEARING = { port: 0, after: 1, info: 2, tree: 3, held: 4, whose: 5, next: 6 } as const;
const HEARING_WIDTH = 7;
const NONE = -1;

export interface FrameLog {
  readonly count: number;
  /** By frame: when it was sent, its saying, and its first hearing or −1. */
  readonly at: Float64Array;
  readonly saying: Int32Array;
  readonly hearing: Int32Array;
  readonly sayings: Int32Array;
  readonly receptions: Int32Array;
  readonly octets: Uint8Array;
  readonly held: Float64Array;
  readonly ports: readonly string[];
  readonly infos: readonly string[];
}

function markOf(kind: FrameKind, octets: Uint8Array): Mark {
  if (kind === 'lacp' || kind === 'own') return 'lacp';
  if (kind === 'oam') return 'keepalive';
  if (kind === 'notification') return 'change';
  const flags = openEnvelope(octets).payload[4]!;
  if (flags & FLAG.topologyChange) return 'change';
  if (kind === 'config') return 'hello';
  if (flags & FLAG.proposal) return 'proposal';
  return flags & FLAG.agreement && flagRole(flags) !== 'designated' ? 'agreement' : 'hello';
}

/** Most frames that a run keeps. */
export const MOST_FRAMES = 2_000_000;

/** Writes the log while a network runs. */
export class FrameWriter {
  private readonly at = new Rows(Float64Array, 1);
  private readonly saying = new Rows(Int32Array, 1);
  private readonly hearing = new Rows(Int32Array, 1);
  private readonly sayings = new Rows(Int32Array, SAYING_WIDTH);
  private readonly receptions = new Rows(Int32Array, HEARING_WIDTH);
  private readonly pool = new OctetPool();
  private readonly held = new Rows(Float64Array, MESSAGE_PARTS.length);
  private readonly heldRows = new WeakMap<Vector, number>();
  private readonly ports = new Words();
  private readonly infos = new Words();

  get count(): number {
    return this.at.count;
  }

  /** Number of what a port says, to write frames with. */
  says(port: string, octets: Uint8Array, kind: FrameKind, vlan: number | null): number {
    const row = this.sayings.next();
    const { array } = this.sayings;
    this.pool.add(octets);
    array[row + SAYING.port] = this.ports.numberOf(port);
    array[row + SAYING.vlan] = vlan ?? NONE;
    array[row + SAYING.kind] = KINDS.indexOf(kind);
    array[row + SAYING.mark] = MARKS.indexOf(markOf(kind, octets));
    array[row + SAYING.end] = this.pool.end;
    return this.sayings.count - 1;
  }

  /** A frame that is sent; its index. */
  sent(now: number, saying: number): number {
    const i = this.at.next();
    this.saying.next();
    this.hearing.next();
    // Only now: what a row is put into may be another array than before.
    this.at.array[i] = now;
    this.saying.array[i] = saying;
    this.hearing.array[i] = NONE;
    return i;
  }

  /** What a receiver made of a frame. */
  heard(index: number, port: string, now: number, info: string, tree: number, held: Held | null): void {
    const number = this.receptions.count;
    const row = this.receptions.next();
    const { array } = this.receptions;
    array[row + HEARING.port] = this.ports.numberOf(port);
    array[row + HEARING.after] = now - this.at.array[index]!;
    array[row + HEARING.info] = this.infos.numberOf(info);
    array[row + HEARING.tree] = tree;
    array[row + HEARING.held] = held ? this.rowOf(held.vector) : NONE;
    array[row + HEARING.whose] = held ? WHOSE.indexOf(held.whose) : NONE;
    array[row + HEARING.next] = NONE;
    this.append(index, number);
  }

  private append(index: number, number: number): void {
    const first = this.hearing.array[index]!;
    if (first === NONE) return void (this.hearing.array[index] = number);
    const { array } = this.receptions;
    let last = first;
    for (let next = last; next !== NONE; next = array[last * HEARING_WIDTH + HEARING.next]!) last = next;
    array[last * HEARING_WIDTH + HEARING.next] = number;
  }

  /** Vectors are shared by everything that holds the same: each stands once. */
  private rowOf(vector: Vector): number {
    const known = this.heldRows.get(vector);
    if (known !== undefined) return known;
    const number = this.held.count;
    const row = this.held.next();
    for (let i = 0; i < MESSAGE_PARTS.length; i++) this.held.array[row + i] = vector[MESSAGE_PARTS[i]!];
    this.heldRows.set(vector, number);
    return number;
  }

  done(): FrameLog {
    return {
      count: this.at.count,
      at: this.at.done(),
      saying: this.saying.done(),
      hearing: this.hearing.done(),
      sayings: this.sayings.done(),
      receptions: this.receptions.done(),
      octets: this.pool.done(),
      held: this.held.done(),
      ports: this.ports.list,
      infos: this.infos.list,
    };
  }
}

/** Whether any port says something of a kind. */
export function hasMark({ sayings }: FrameLog, mark: Mark): boolean {
  const wanted = MARKS.indexOf(mark);
  for (let row = 0; row < sayings.length; row += SAYING_WIDTH) if (sayings[row + SAYING.mark] === wanted) return true;
  return false;
}

/** Buffers of a log that move from a worker to the page without being copied. */
export const buffersOf = (log: FrameLog): ArrayBufferLike[] =>
  [log.at, log.saying, log.hearing, log.sayings, log.receptions, log.octets, log.held].map((a) => a.buffer);

function hearingsOf(log: FrameLog, index: number): Reception[] {
  const found: Reception[] = [];
  const { receptions } = log;
  for (let n = log.hearing[index]!; n !== NONE; n = receptions[n * HEARING_WIDTH + HEARING.next]!) {
    const row = n * HEARING_WIDTH;
    const held = receptions[row + HEARING.held]!;
    found.push({
      port: log.ports[receptions[row + HEARING.port]!]!,
      at: log.at[index]! + receptions[row + HEARING.after]!,
      info: log.infos[receptions[row + HEARING.info]!]!,
      tree: receptions[row + HEARING.tree]!,
      held: held === NONE ? null : { vector: heldVector(log, held), whose: WHOSE[receptions[row + HEARING.whose]!]! },
    });
  }
  return found;
}

const heldVector = (log: FrameLog, row: number): Vector =>
  Object.fromEntries(
    MESSAGE_PARTS.map((part, i) => [part, log.held[row * MESSAGE_PARTS.length + i]!]),
  ) as unknown as Vector;

/** A frame of the log, by its index. */
export function frameAt(log: FrameLog, index: number): FrameRecord {
  const saying = log.saying[index]!;
  const row = saying * SAYING_WIDTH;
  const start = saying === 0 ? 0 : log.sayings[row - SAYING_WIDTH + SAYING.end]!;
  const vlan = log.sayings[row + SAYING.vlan]!;
  return {
    at: log.at[index]!,
    from: log.ports[log.sayings[row + SAYING.port]!]!,
    octets: log.octets.subarray(start, log.sayings[row + SAYING.end]),
    kind: KINDS[log.sayings[row + SAYING.kind]!]!,
    mark: MARKS[log.sayings[row + SAYING.mark]!]!,
    vlan: vlan === NONE ? null : vlan,
    heard: hearingsOf(log, index),
  };
}

/** All frames of a log, in the order in which they were sent. */
export function* framesOf(log: FrameLog): Generator<FrameRecord> {
  for (let i = 0; i < log.count; i++) yield frameAt(log, i);
}

/** State out about a frame of the tree of a VLAN (0: of every tree); null for one of another tree. Looks at nothing else. */
export function markAt(log: FrameLog, index: number, vlan: number): Mark | null {
  const row = log.saying[index]! * SAYING_WIDTH;
  const own = log.sayings[row + SAYING.vlan]!;
  return own !== NONE && vlan !== 0 && own !== vlan ? null : MARKS[log.sayings[row + SAYING.mark]!]!;
}

/** Port that a frame left, without anything else of it. */
export const portAt = (log: FrameLog, index: number): string =>
  log.ports[log.sayings[log.saying[index]! * SAYING_WIDTH + SAYING.port]!]!;

/** Index of the first frame that was sent at a moment or later. */
export function firstFrom(log: FrameLog, at: number): number {
  let [low, high] = [0, log.count];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (log.at[middle]! < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The next frame after one, or with `by` −1 the one before, of those that are meant; null when there is none. */
export function stepFrame(log: FrameLog, from: number, by: 1 | -1, meant: (index: number) => boolean): number | null {
  for (let i = from + by; i >= 0 && i < log.count; i += by) if (meant(i)) return i;
  return null;
}
