/** Timers that hold in the trees of a design: each tree has those of its root. */
import { timersOf } from '../design';
import type { Design, TimersInForce } from '../design';
import { remembered } from '../remembered';
import { TIMERS } from '../standard';
import { rootsOf } from '../trees';
import type { SolvedDesign } from '../trees';

/** The timers that all switches have; null where they differ, and without a switch. */
const alike = remembered((switches: Design['switches']): { timers: TimersInForce | null } => {
  const [first, ...others] = switches.map(timersOf);
  const same = (t: TimersInForce) =>
    t.helloTime === first!.helloTime && t.maxAge === first!.maxAge && t.forwardDelay === first!.forwardDelay;
  if (!first || !others.every(same)) return { timers: null };
  const { helloTime, maxAge, forwardDelay } = first;
  return { timers: { helloTime, maxAge, forwardDelay } };
});

/**
 * The longest of each timer over trees with these roots, by index, in seconds; the defaults where there is none. −1 for a tree
 * without a root.
 */
export function timersUnder(switches: Design['switches'], roots: readonly number[]): TimersInForce {
  const { timers } = alike(switches);
  if (timers && roots.some((root) => root >= 0)) return timers;
  const all = [...new Set(roots)].flatMap((root) => (root < 0 ? [] : timersOf(switches[root]!)));
  const longest = (of: keyof TimersInForce) =>
    all.length > 0 ? Math.max(...all.map((t) => t[of])) : TIMERS[of].default;
  return { helloTime: longest('helloTime'), maxAge: longest('maxAge'), forwardDelay: longest('forwardDelay') };
}

/** The longest of each timer over all trees, in seconds; the defaults where there is no tree. */
export function timersInForce({ trees, topology }: SolvedDesign): TimersInForce {
  const { switches } = topology.design;
  const { timers } = alike(switches);
  if (timers && trees.some(({ outcome }) => outcome.root.some((r) => r >= 0))) return timers;
  return timersUnder(
    switches,
    trees.map((of) => rootsOf(of)[0] ?? -1),
  );
}
