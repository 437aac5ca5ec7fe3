/** Random networks of MST regions and rapid switches. */
import fc from 'fast-check';
import { numberToMac } from '@/core/standard';
import type { Design, Region } from '@/core/design';
import { designFrom } from './networks';

const cost = fc.constantFrom(1, 2, 4, 4, 19, 19, 38);
const bridgePriority = fc.constantFrom(32768, 32768, 32768, 4096, 0, 61440);
const portPriority = fc.constantFrom(128, 128, 128, 0, 240);
const rarely = fc.integer({ min: 0, max: 11 }).map((n) => n === 0);
const sometimes = <T>(of: fc.Arbitrary<T>, freq = 3) => fc.option(of, { freq });

const REGIONS: Region[] = [
  { id: 'ra', name: 'alpha', revision: 1, map: { '1': '10', '2': '20-22' } },
  { id: 'rb', name: 'beta', revision: 1, map: { '1': '10,20', '5': '30' } },
];

const end = fc.record({
  bridge: fc.nat(),
  cost,
  priority: portPriority,
  down: rarely,
  internalCost: sometimes(cost, 5),
  instanceCost: sometimes(cost, 3),
  instancePriority: sometimes(portPriority, 4),
});

type Kind = 'ra' | 'rb' | 'rstp' | 'stp' | 'odd';

const networksOf = (kinds: readonly Kind[]): fc.Arbitrary<Design> =>
  fc
    .record({
      bridges: fc.array(
        fc.record({
          priority: bridgePriority,
          cist: sometimes(bridgePriority, 4),
          own: sometimes(bridgePriority),
          kind: fc.constantFrom(...kinds),
          off: rarely,
        }),
        { minLength: 1, maxLength: 10 },
      ),
      macs: fc.uniqueArray(fc.integer({ min: 1, max: 255 }), { minLength: 10, maxLength: 10 }),
      lans: fc.array(
        fc.record({
          ends: fc.oneof(
            { weight: 6, arbitrary: fc.array(end, { minLength: 2, maxLength: 2 }) },
            { weight: 1, arbitrary: fc.array(end, { minLength: 1, maxLength: 5 }) },
          ),
          down: rarely,
        }),
        { maxLength: 20 },
      ),
    })
    .map(({ bridges, macs, lans }) => {
      const used = bridges.map(() => 0);
      const extras = new Map<string, (typeof lans)[number]['ends'][number]>();
      const design = designFrom(
        bridges.map((b, i) => ({
          id: `s${i}`,
          mac: numberToMac(0x00005e005300 + macs[i]!),
          priority: b.priority,
          ...(b.off ? { off: true } : {}),
        })),
        lans.map((lan) => ({
          down: lan.down,
          ends: lan.ends.map((e) => {
            const at = e.bridge % bridges.length;
            const number = ++used[at]!;
            extras.set(`s${at}.${number}`, e);
            return { bridge: `s${at}`, port: number, cost: e.cost, priority: e.priority, down: e.down };
          }),
        })),
        'mstp',
        [10, 20, 30],
      );
      design.regions = REGIONS;
      design.switches.forEach((s, i) => {
        const { kind, own, cist } = bridges[i]!;
        if (kind === 'rstp' || kind === 'stp') s.protocol = kind;
        else s.region = kind === 'odd' ? 'ra' : kind;
        if (kind === 'odd') s.vlanInstance = { '20': 1 };
        const table = { ...(own === null ? {} : { '1': own }), ...(cist === null ? {} : { '0': cist }) };
        if (Object.keys(table).length > 0) s.instancePriority = table;
      });
      for (const port of design.ports) {
        const { internalCost, instanceCost, instancePriority } = extras.get(port.id)!;
        if (internalCost !== null) port.internalCost = internalCost;
        if (instanceCost !== null) port.instanceCost = { '1': instanceCost };
        if (instancePriority !== null) port.instancePriority = { '0': instancePriority, '2': instancePriority };
      }
      return design;
    })
    .filter((design) => design.switches.some((s) => s.protocol === undefined));

/** Up to ten switches in two regions, one of them with a VLAN out of place now and then, and rapid ones between. */
export const mstNetworks = networksOf(['ra', 'ra', 'ra', 'rb', 'rb', 'rstp', 'odd']);

/** The same with classic switches among them. */
export const classicMstNetworks = networksOf(['ra', 'ra', 'ra', 'rb', 'stp', 'stp', 'rstp']);
