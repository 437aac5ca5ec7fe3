/** What an order costs, and which of two is better. */
import type { Measured } from './measure';

export interface Cost {
  /** Devices that have to be set and cannot be reached then. */
  readonly consoles: number;
  /** Pairs and switches that are without contact between steps though they have it before and after, step by step. */
  readonly lost: number;
  /** Longest outage of a pair or a VLAN in seconds, and the sum of the longest of each step. */
  readonly worst: number;
  readonly sum: number;
  /** Times that the engineer goes from one device to another, the first included. */
  readonly visits: number;
}

export const FREE: Cost = { consoles: 0, lost: 0, worst: 0, sum: 0, visits: 0 };

/**
 * Outages below this many seconds count as none when orders are compared: they hang on how quick the switches are, which a
 * rehearsal assumes, and no order should be chosen by that.
 */
export const RESOLUTION = 0.01;

const counted = (seconds: number): number => (seconds < RESOLUTION ? 0 : Math.round(seconds / RESOLUTION) * RESOLUTION);

/** Longest outage of a step that ends within it, in seconds; frames that loop count as lost. */
export const longestOf = ({ pairs, vlans, looped }: Measured): number =>
  Math.max(0, looped ?? 0, ...[...pairs, ...vlans].map((o) => o.seconds ?? 0));

export const addStep = (cost: Cost, step: Omit<Cost, 'worst' | 'sum'> & { readonly seconds: number }): Cost => ({
  consoles: cost.consoles + step.consoles,
  lost: cost.lost + step.lost,
  worst: Math.max(cost.worst, counted(step.seconds)),
  sum: cost.sum + counted(step.seconds),
  visits: cost.visits + step.visits,
});

const ORDER = ['consoles', 'lost', 'worst', 'sum', 'visits'] as const;
/** Sums of seconds are compared a little loosely: the same figures are added in another order. */
const NEAR = 1e-6;

/** Negative where the first is better: who cannot be reached, then who is lost, then the worst outage, their sum, the visits. */
export function compareCost(a: Cost, b: Cost): number {
  for (const key of ORDER) if (Math.abs(a[key] - b[key]) > NEAR) return a[key] - b[key];
  return 0;
}

/** Whether one is at least as good in everything: the other can then never lead to a better whole. */
export const dominates = (a: Cost, b: Cost): boolean => ORDER.every((key) => a[key] <= b[key] + NEAR);
