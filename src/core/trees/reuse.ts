/** What of an earlier solution still holds after an edit. */
import type { TreeProblem } from './problem';
import type { TreeOutcome } from './outcome';
import type { Topology } from './topology';

export type Numbers = Int32Array | Uint8Array | Float64Array;

/** Whether two arrays hold the same numbers. */
export function sameNumbers(a: Numbers, b: Numbers): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

const STRUCTURE = ['bridgeMac', 'portBridge', 'portNumber', 'portLan'] as const;

/** Whether bridges, ports and LANs hang together in the same way, index by index. */
export const sameStructure = (a: Topology, b: Topology): boolean =>
  STRUCTURE.every((field) => sameNumbers(a[field], b[field]));

const PROBLEM = [
  'bridgeTakesPart',
  'bridgePriority',
  'extensions',
  'portTakesPart',
  'portCost',
  'portId',
  'reach',
  'finelyAged',
  'portRestricted',
] as const satisfies readonly (keyof TreeProblem)[];

/** Whether two trees of one structure have the same outcome, whatever fails. */
export const sameProblem = (a: TreeProblem, b: TreeProblem): boolean =>
  PROBLEM.every((field) => {
    const [one, two] = [a[field], b[field]];
    return one && two ? sameNumbers(one, two) : one === two;
  });

/** More changed costs than this are not looked at one by one: solving again is as quick. */
const MOST_LOOKED_AT = 32;

/** Compares problems of one structure; remembers pairs of arrays, since classes share them. */
export class Reuse {
  private readonly changes = new Map<Numbers, Map<Numbers, readonly number[] | null>>();

  /** Indices at which two arrays differ; null when there are more than are worth looking at. */
  private changed(a: Numbers, b: Numbers): readonly number[] | null {
    if (a === b) return [];
    let known = this.changes.get(a);
    if (!known) this.changes.set(a, (known = new Map()));
    let result = known.get(b);
    if (result === undefined) {
      const found: number[] = [];
      for (let i = 0; i < a.length && found.length <= MOST_LOOKED_AT; i++) if (a[i] !== b[i]) found.push(i);
      known.set(b, (result = found.length > MOST_LOOKED_AT ? null : found));
    }
    return result;
  }

  /** Ports whose cost differs between two problems that are alike in all else; null when they are not. */
  changedCosts(before: TreeProblem, now: TreeProblem): readonly number[] | null {
    for (const field of ['portRestricted', 'finelyAged'] as const) {
      const [a, b] = [before[field], now[field]];
      if (a && b ? this.changed(a, b)?.length !== 0 : a !== b) return null;
    }
    for (const field of ['bridgeTakesPart', 'bridgePriority', 'portTakesPart', 'portId', 'reach'] as const)
      if (this.changed(before[field], now[field])?.length !== 0) return null;
    return this.changed(before.portCost, now.portCost);
  }
}

/**
 * Whether a changed cost leaves an outcome as it is: on a port that hears nothing, or that hears an offer which stays
 * worse than what its bridge has through its root port. The old outcome then meets every rule of the new problem, and
 * only one outcome does.
 */
export function costIsIdle(topology: Topology, problem: TreeProblem, outcome: TreeOutcome, port: number): boolean {
  const lan = topology.portLan[port]!;
  const bridge = topology.portBridge[port]!;
  if (outcome.spent) return false;
  if (lan < 0 || !problem.portTakesPart[port] || problem.portRestricted?.[port]) return true;
  if (outcome.rootPort[bridge] === port) return false;
  const from = topology.portBridge[outcome.designatedPort[lan]!]!;
  if (from === bridge) return true;
  return outcome.rootPathCost[from]! + problem.portCost[port]! > outcome.rootPathCost[bridge]!;
}
