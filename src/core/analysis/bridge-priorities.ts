/** Legal bridge priorities that put switches in a wanted order with as few changes as possible. */
import { BRIDGE_PRIORITY } from '../standard';

const STEPS = BRIDGE_PRIORITY.max / BRIDGE_PRIORITY.step + 1;

interface Plan {
  /** Values changed, then how far they were moved, in steps. */
  readonly changes: number;
  readonly distance: number;
  /** Highest step of each group from here on. */
  readonly highs: readonly number[];
}

const less = (a: Plan, b: Plan | null): boolean =>
  b === null || a.changes < b.changes || (a.changes === b.changes && a.distance < b.distance);

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));

/**
 * Priorities for groups of switches, best group first, so that everyone in a group has a better priority than everyone
 * in a later one: the fewest values changed, then the shortest way. Groups may be empty. Null when there are more
 * groups than legal priorities.
 */
export function orderPriorities(groups: readonly (readonly number[])[]): number[][] | null {
  const steps = groups.map((g) => g.map((p) => p / BRIDGE_PRIORITY.step));
  const known = new Map<number, Plan | null>();
  /** The best plan for the groups from `at` on, when the first of them may not go below `low`. */
  const plan = (at: number, low: number): Plan | null => {
    if (at === steps.length) return { changes: 0, distance: 0, highs: [] };
    if (low >= STEPS)
      return steps.slice(at).every((g) => g.length === 0) ? { changes: 0, distance: 0, highs: [] } : null;
    const key = at * (STEPS + 1) + low;
    if (known.has(key)) return known.get(key)!;
    let best: Plan | null = null;
    const group = steps[at]!;
    if (group.length === 0) {
      const rest = plan(at + 1, low);
      best = rest && { ...rest, highs: [low - 1, ...rest.highs] };
    } else
      for (let high = low; high < STEPS; high++) {
        const rest = plan(at + 1, high + 1);
        if (!rest) break;
        const moves = group.map((step) => Math.abs(step - clamp(step, low, high)));
        const candidate = {
          changes: rest.changes + moves.filter((m) => m > 0).length,
          distance: rest.distance + moves.reduce((a, b) => a + b, 0),
          highs: [high, ...rest.highs],
        };
        if (less(candidate, best)) best = candidate;
      }
    known.set(key, best);
    return best;
  };
  const found = plan(0, 0);
  if (!found) return null;
  return steps.map((group, i) => {
    const low = i === 0 ? 0 : found.highs[i - 1]! + 1;
    return group.map((step) => clamp(step, low, found.highs[i] ?? STEPS - 1) * BRIDGE_PRIORITY.step);
  });
}
