/** Missing cables where they cost unlike much, or cannot be laid: held against trying all sets. */
import fc from 'fast-check';
import type { CableCost, Design, Switch } from '@/core/design';
import { missingCables } from '@/core/review';
import type { MissingCable } from '@/core/review';
import { solveDesign } from '@/core/trees';
import { canStand, pairsOf, setsThatDo, standsAll, withCables } from './support/cables-by-trying';
import { plainNetworks, vlanNetworks } from './support/vlan-networks';

const runs = Number(process.env.RUNS ?? 60);
const seed = process.env.SEED ? { seed: Number(process.env.SEED) } : {};
const TIERS = ['core', 'access'] as const;

const places = fc.oneof(
  fc.nat(4).map((i) => ({ switch: `s${i}` })),
  fc.constantFrom(...TIERS).map((tier) => ({ tier })),
  fc.constantFrom('mill', 'lock').map((group) => ({ group })),
);
const rows = fc.array(fc.record({ from: places, to: places, cost: fc.option(fc.nat(6), { nil: undefined }) }), {
  minLength: 1,
  maxLength: 6,
});

/** Random networks whose switches have tiers and groups, with random costs. */
const priced = fc
  .tuple(fc.oneof(vlanNetworks, plainNetworks(5)), rows, fc.array(fc.nat(5), { minLength: 8, maxLength: 8 }))
  .map(([design, costs, kinds]): Design => ({
    ...design,
    switches: design.switches.map((s, i) => {
      const kind = kinds[i % 8]!;
      return { ...s, tier: TIERS[kind % 2]!, ...(kind < 2 ? { group: 'mill' } : kind < 4 ? { group: 'lock' } : {}) };
    }),
    cableCosts: costs.map((row, i): CableCost => ({ id: `c${i}`, ...row })),
  }));

const weight = (place: CableCost['from'], s: Switch): number =>
  'switch' in place
    ? 4 * Number(place.switch === s.id)
    : 'group' in place
      ? 2 * Number(place.group === s.group)
      : Number(place.tier === s.tier);

/** Cost of a cable by the rule as it is written down: what says most counts, of equal ones the dearer. */
function costOf(design: Design, { a, b }: Pick<MissingCable, 'a' | 'b'>): number {
  const [x, y] = [a, b].map((end) => design.switches.find((s) => s.id === end.switch)!) as [Switch, Switch];
  const said = design.cableCosts.flatMap(({ from, to, cost = Infinity }) =>
    [
      [weight(from, x), weight(to, y)],
      [weight(from, y), weight(to, x)],
    ].flatMap(([p, q]) => (p! > 0 && q! > 0 ? [{ says: p! + q!, cost }] : [])),
  );
  const most = Math.max(0, ...said.map((s) => s.says));
  return said.length === 0 ? 1 : Math.max(...said.filter((s) => s.says === most).map((s) => s.cost));
}
const sum = (design: Design, cables: readonly Pick<MissingCable, 'a' | 'b'>[]): number =>
  cables.reduce((all, cable) => all + costOf(design, cable), 0);

test.each(['link', 'switch'] as const)(
  'cables so that any one %s can fail are the fewest, and then the cheapest',
  (what) => {
    fc.assert(
      fc.property(priced, (design) => {
        const { [what]: found, short } = missingCables(solveDesign(design));
        const possible = pairsOf(design).filter((pair) => costOf(design, pair) < Infinity);
        expect(found.every((cable) => costOf(design, cable) < Infinity)).toBe(true);
        expect(standsAll(withCables(design, found), what)).toBe(!short[what]);
        if (!canStand(design, what)) return;
        expect(short[what]).toBe(!canStand(design, what, possible));
        if (short[what] || found.length > 3) return;
        for (let fewer = 0; fewer < found.length; fewer++)
          expect(setsThatDo(design, what, fewer, possible, true)).toEqual([]);
        const least = Math.min(...setsThatDo(design, what, found.length, possible).map((set) => sum(design, set)));
        expect(sum(design, found)).toBe(least);
      }),
      { numRuns: runs, ...seed },
    );
  },
);

test('an end without a free port is dearer than a long cable', () => {
  fc.assert(
    fc.property(plainNetworks(4), (design) => {
      const s = design.switches[0]!;
      const spare = { id: 'spare', switch: s.id, name: 'spare', number: 800, speed: 1000 };
      const { link } = missingCables(solveDesign({ ...design, ports: [...design.ports, spare] }));
      const before = missingCables(solveDesign(design)).link;
      expect(link).toHaveLength(before.length);
      // Where the cable may start at the switch with the free port, it takes it.
      for (const end of link.flatMap((c) => [c.a, c.b])) expect(end.port === null || end.port === 'spare').toBe(true);
    }),
    { numRuns: runs, ...seed },
  );
});
