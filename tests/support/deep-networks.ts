/** Random networks deeper than a root's word goes: chains with a few cables across, small maximum ages and hops. */
import fc from 'fast-check';
import { numberToMac } from '@/core/standard';
import type { Design, Mode, Region } from '@/core/design';
import { designFrom } from './networks';
import type { LanSpec } from './networks';

const TIMERS = { helloTime: 1, maxAge: 6, forwardDelay: 4 };
const REGIONS: Region[] = [
  { id: 'ra', name: 'alpha', revision: 1, map: { '1': '10', '2': '20' }, maxHops: 6 },
  { id: 'rb', name: 'beta', revision: 1, map: { '1': '20' }, maxHops: 6 },
];

/** Chains of 6 to 20 switches on cables between two ports; `kinds` are the modes that switches have, and regions. */
export const deepNetworks = (mode: Mode, kinds: readonly ('ra' | 'rb' | 'rstp')[] = []): fc.Arbitrary<Design> =>
  fc
    .record({
      count: fc.integer({ min: 6, max: 20 }),
      priorities: fc.array(fc.constantFrom(32768, 32768, 32768, 4096), { minLength: 20, maxLength: 20 }),
      macs: fc.uniqueArray(fc.integer({ min: 1, max: 255 }), { minLength: 20, maxLength: 20 }),
      costs: fc.infiniteStream(fc.constantFrom(4, 4, 19, 200)),
      across: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 3 }),
      kinds: fc.array(fc.constantFrom<'ra' | 'rb' | 'rstp'>(...(kinds.length > 0 ? kinds : ['rstp' as const])), {
        minLength: 20,
        maxLength: 20,
      }),
      rootFirst: fc.boolean(),
      fine: fc.infiniteStream(fc.nat(5).map((n) => n === 0)),
    })
    .map(({ count, priorities, macs, costs, across, kinds: of, rootFirst, fine }) => {
      const used = Array.from({ length: count }, () => 0);
      const end = (b: number): LanSpec['ends'][number] => ({
        bridge: `s${b}`,
        port: ++used[b]!,
        cost: costs.next().value!,
        priority: 128,
      });
      const cables = [
        ...Array.from({ length: count - 1 }, (_, i): [number, number] => [i, i + 1]),
        ...across.map(([a, b]): [number, number] => [a % count, b % count]),
      ].filter(([a, b]) => a !== b);
      const design = designFrom(
        Array.from({ length: count }, (_, i) => ({
          id: `s${i}`,
          mac: numberToMac(0x00005e005300 + macs[i]!),
          priority: rootFirst && i === 0 ? 0 : priorities[i]!,
        })),
        cables.map(([a, b]) => ({ ends: [end(a), end(b)] })),
        mode,
        [10, 20],
      );
      design.switches.forEach((s, i) => {
        Object.assign(s, TIMERS, fine.next().value ? { ageStep: 'fraction' } : {});
        if (kinds.length === 0) return;
        if (of[i] === 'rstp') s.protocol = 'rstp';
        else s.region = of[i]!;
      });
      if (kinds.length > 0) design.regions = REGIONS;
      return design;
    });
