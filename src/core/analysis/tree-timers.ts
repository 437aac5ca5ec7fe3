/** Timers that hold in the trees of a design: each tree has those of its root. */
import { timersOf } from '../design';
import type { TimersInForce } from '../design';
import { TIMERS } from '../standard';
import { rootsOf } from '../trees';
import type { SolvedDesign } from '../trees';

/** The longest of each timer over all trees, in seconds; the defaults where there is no tree. */
export function timersInForce({ trees, topology }: SolvedDesign): TimersInForce {
  const roots = new Set(trees.flatMap((of) => rootsOf(of).slice(0, 1)));
  const all = [...roots].map((root) => timersOf(topology.design.switches[root]!));
  const longest = (of: keyof TimersInForce) =>
    all.length > 0 ? Math.max(...all.map((t) => t[of])) : TIMERS[of].default;
  return { helloTime: longest('helloTime'), maxAge: longest('maxAge'), forwardDelay: longest('forwardDelay') };
}
