/** The order found is the best of all: every order is tried. */
import fc from 'fast-check';
import type { Design } from '../design';
import { variantsOf } from '../../../tests/support/variants';
import { vlanNetworks } from '../../../tests/support/vlan-networks';
import { frameOf } from './frame';
import { gatherWork } from './gather';
import { bestOrder, costOf, greedyOrder, tableOrder } from './order';
import { usualPairs } from './plan';
import { compareCost } from './rank';
import type { Cost } from './rank';
import { Ways } from './ways';

function permutations(items: readonly number[]): number[][] {
  if (items.length === 0) return [[]];
  return items.flatMap((first) => permutations(items.filter((i) => i !== first)).map((rest) => [first, ...rest]));
}

const better = (a: Cost | null, b: Cost | null): Cost | null => (!a || (b && compareCost(b, a) < 0) ? b : a);

function finish<T>(run: Generator<unknown, T, boolean>): T {
  for (;;) {
    const { done, value } = run.next(false);
    if (done) return value;
  }
}

/** Classic networks too: there an order can cost half a minute. */
const classic = (design: Design): Design => ({ ...design, mode: 'per-vlan-stp' });

test('the best order is as good as the best of all orders, and no worse than that of the tables or by theory', () => {
  let [compared, differing] = [0, 0];
  const variants = fc.tuple(variantsOf(vlanNetworks, 5), fc.boolean(), fc.nat());
  fc.assert(
    fc.property(variants, ([[a, b], slow, at]) => {
      const [from, to] = slow ? [classic(a), classic(b)] : [a, b];
      const { start, goal } = frameOf(from, to);
      const works = gatherWork(start, goal);
      if (works.length < 2 || works.length > 4) return;
      const place = { at: start.switches[at % start.switches.length]!.id, vlan: 10 };
      const ways = new Ways(
        works,
        start,
        goal,
        usualPairs(start),
        place,
        works.map(() => []),
      );
      const costs = permutations([...works.keys()]).map((order) => costOf(ways, order));
      const best = costs.reduce(better, null);
      expect(finish(bestOrder(ways, null))?.cost ?? null).toEqual(best);
      const table = tableOrder(ways);
      const first = table && costOf(ways, table);
      if (first && best) expect(compareCost(best, first)).toBeLessThanOrEqual(0);
      const greedy = finish(greedyOrder(ways));
      const second = greedy && costOf(ways, greedy);
      if (second && best) expect(compareCost(best, second)).toBeLessThanOrEqual(0);
      compared++;
      if (costs.some((c) => c && best && compareCost(c, best) > 0)) differing++;
    }),
    { numRuns: Number(process.env.RUNS ?? 100), seed: Number(process.env.SEED ?? 20261130) },
  );
  expect(compared).toBeGreaterThan(10);
  // Orders that are all alike would show nothing.
  expect(differing).toBeGreaterThan(3);
  if (process.env.RUNS) process.stdout.write(`${compared} compared, ${differing} in which the order counts\n`);
});
