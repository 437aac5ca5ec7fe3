/**
 * Bridge identifiers, port identifiers and priority vectors, with one comparator each, composed of the comparators
 * of their parts (802.1D-2004 clauses 17.5, 17.18 and 9.2.5). Lower is better throughout.
 */
import { numberToMac } from './mac';

/** A negative number when a is better, a positive one when b is, 0 when they are the same. */
export type Comparator<T> = (a: T, b: T) => number;

/** Applies the comparators in turn until one decides. */
export function inOrder<T>(...parts: readonly Comparator<T>[]): Comparator<T> {
  return (a, b) => {
    for (const part of parts) {
      const order = part(a, b);
      if (order !== 0) return order;
    }
    return 0;
  };
}

const by =
  <T>(field: (value: T) => number): Comparator<T> =>
  (a, b) =>
    field(a) - field(b);

/** Bridge identifier: priority with the system id extension added (0 … 65535), and the MAC address as a number. */
export interface BridgeId {
  readonly priority: number;
  readonly mac: number;
}

export const compareBridgeId: Comparator<BridgeId> = inOrder(
  by((id) => id.priority),
  by((id) => id.mac),
);

/** `8001.00:00:5e:00:53:01`: priority and extension in hex, then the MAC address. */
export function formatBridgeId(id: BridgeId): string {
  return `${id.priority.toString(16).padStart(4, '0')}.${numberToMac(id.mac)}`;
}

/** `32768 + 1 · 00:00:5e:00:53:01`: priority, system id extension where there is one, and MAC address. */
export function bridgeIdWords({ priority, mac }: BridgeId): string {
  return `${priorityWords(priority)} · ${numberToMac(mac)}`;
}

/** `32768 + 1`: the part that is set and the system id extension (802.1Q-2018 14.2.5), as a priority reads wherever it counts; `32768` without one. */
export function priorityWords(priority: number): string {
  const extension = priority & 0xfff;
  return `${priority - extension}${extension === 0 ? '' : ` + ${extension}`}`;
}

/**
 * `32768·53:01`: enough to tell bridges apart that have the same system id extension, where there is no room for the
 * whole; with `extension` that is shown as well, `32768+1·53:01`.
 */
export function shortBridgeId({ priority, mac }: BridgeId, extension = false): string {
  const own = extension && (priority & 0xfff) !== 0 ? `+${priority & 0xfff}` : '';
  return `${priority & 0xf000}${own}·${numberToMac(mac).slice(-5)}`;
}

/** `32768 · 00:00:5e:00:53:01`: an LACP system by its priority, which has no extension, and its MAC address. */
export const systemIdWords = (priority: number, mac: number): string => `${priority} · ${numberToMac(mac)}`;

/** Port identifier as its two octets: four bits of priority, twelve of port number (802.1D-2004 clause 9.2.7). */
export function portIdentifier(priority: number, number: number): number {
  return ((priority >> 4) << 12) | number;
}

/** `8007`: the port identifier in hex. */
export function formatPortId(identifier: number): string {
  return identifier.toString(16).padStart(4, '0');
}

/** Splits a port identifier into priority (0 … 240) and port number. */
export function splitPortId(identifier: number): { priority: number; number: number } {
  return { priority: (identifier >> 12) << 4, number: identifier & 0xfff };
}

/**
 * The parts of a spanning tree priority vector, in the order in which they are compared. Only the CIST has a regional
 * root and an internal cost (802.1Q-2018 clause 13.9); its root path cost is the external one.
 */
export const VECTOR_PARTS = [
  'root',
  'rootPathCost',
  'regionalRoot',
  'internalCost',
  'designatedBridge',
  'designatedPort',
  'receivingPort',
] as const;
export type VectorPart = (typeof VECTOR_PARTS)[number];

export interface PriorityVector {
  readonly root: BridgeId;
  readonly rootPathCost: number;
  readonly regionalRoot?: BridgeId;
  readonly internalCost?: number;
  readonly designatedBridge: BridgeId;
  readonly designatedPort: number;
  readonly receivingPort: number;
}

const PART_COMPARATORS: Record<VectorPart, Comparator<PriorityVector>> = {
  root: (a, b) => compareBridgeId(a.root, b.root),
  rootPathCost: by((v) => v.rootPathCost),
  regionalRoot: (a, b) => (a.regionalRoot && b.regionalRoot ? compareBridgeId(a.regionalRoot, b.regionalRoot) : 0),
  internalCost: by((v) => v.internalCost ?? 0),
  designatedBridge: (a, b) => compareBridgeId(a.designatedBridge, b.designatedBridge),
  designatedPort: by((v) => v.designatedPort),
  receivingPort: by((v) => v.receivingPort),
};

export const comparePriorityVector: Comparator<PriorityVector> = inOrder(
  ...VECTOR_PARTS.map((part) => PART_COMPARATORS[part]),
);

/** The first part in which two vectors differ, null when they do not. */
export function decidingPart(a: PriorityVector, b: PriorityVector): VectorPart | null {
  return VECTOR_PARTS.find((part) => PART_COMPARATORS[part](a, b) !== 0) ?? null;
}
