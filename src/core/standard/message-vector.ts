/**
 * The priority vector of a message, its parts and its order, for every engine.
 *
 * Priority vectors of the CIST and of MST instances in one shape (802.1Q-2018 clauses 13.9 to 13.11): an instance has
 * no root and no external cost, so both are 0 there; in RSTP the regional root is the designated bridge.
 */
export interface Vector {
  readonly rootPriority: number;
  readonly rootMac: number;
  readonly externalCost: number;
  readonly regionalPriority: number;
  readonly regionalMac: number;
  readonly internalCost: number;
  readonly bridgePriority: number;
  readonly bridgeMac: number;
  readonly port: number;
}

/** Parts in the order in which they are compared. */
export const MESSAGE_PARTS = [
  'rootPriority',
  'rootMac',
  'externalCost',
  'regionalPriority',
  'regionalMac',
  'internalCost',
  'bridgePriority',
  'bridgeMac',
  'port',
] as const satisfies readonly (keyof Vector)[];

/** Negative when a is better. Written out, since it runs for every BPDU. */
export function compareVectors(a: Vector, b: Vector): number {
  if (a === b) return 0;
  return (
    a.rootPriority - b.rootPriority ||
    a.rootMac - b.rootMac ||
    a.externalCost - b.externalCost ||
    a.regionalPriority - b.regionalPriority ||
    a.regionalMac - b.regionalMac ||
    a.internalCost - b.internalCost ||
    a.bridgePriority - b.bridgePriority ||
    a.bridgeMac - b.bridgeMac ||
    a.port - b.port
  );
}

/** Whether a message is superior: better, or from the same designated port, which is always believed (13.11). */
export const isSuperior = (message: Vector, held: Vector): boolean =>
  compareVectors(message, held) < 0 ||
  (message.bridgeMac === held.bridgeMac && (message.port & 0xfff) === (held.port & 0xfff));

/** A vector that a port holds: its own, for it speaks for the LAN; one that it heard; one that grew too old. */
export interface HeldVector {
  readonly vector: Vector;
  readonly whose: 'Mine' | 'Received' | 'Aged';
}
