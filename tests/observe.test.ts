/** Random networks run, are read over their management objects, and come back as they were designed. */
import fc from 'fast-check';
import { differenceBetween } from '../src/core/design';
import type { Design } from '../src/core/design';
import { asObserved, checkObserved, compareWithDesign, drawObserved, unite } from '../src/core/observe';
import type { Difference } from '../src/core/observe';
import { ROLE, solveDesign } from '../src/core/trees';
import { asCabled, asMeant, asPair } from '../src/demo/brackwater';
import { bundledNetworks } from './support/bundled-networks';
import { guardedNetworks } from './support/guards';
import { mstNetworks } from './support/mst-networks';
import { networks } from './support/networks';
import { observedOf, tellable } from './support/observed';
import { runs } from './support/runs';
import { haveTwins, oneSided } from './support/uncovered-bundles';
import { variantsOf } from './support/variants';
import { vlanNetworks } from './support/vlan-networks';
import { wholeNetworks } from './support/whole-networks';

const covered = (arbitrary: fc.Arbitrary<Design>) => arbitrary.filter((d) => !oneSided(d) && !haveTwins(d));

const KINDS: [string, fc.Arbitrary<Design>, number][] = [
  ['one tree', networks, 60],
  ['trees per VLAN', vlanNetworks, 60],
  ['bundles', covered(bundledNetworks), 60],
  ['regions', covered(mstNetworks), 60],
  ['guards', guardedNetworks(vlanNetworks), 40],
  ['everything', covered(wholeNetworks), 60],
];

test.each(KINDS)('%s: a network that runs as designed differs in nothing', (_, arbitrary, usual) => {
  fc.assert(
    fc.property(arbitrary, (design) => {
      const found = compareWithDesign(design, unite(observedOf(design)));
      expect(found.filter((d) => d.verdict !== 'not-observed')).toEqual([]);
    }),
    runs(usual),
  );
});

/** Designs of which nothing deviates: some are made with unlike maps, with one LACP system at both ends, or too deep for their timers. */
const isOrderly = (design: Design): boolean => {
  const systems = design.bundles.flatMap((b) => b.systemMac ?? []);
  const disputed = solveDesign(design).trees.some((t) => t.outcome.role.includes(ROLE.disputed));
  return new Set(systems).size === systems.length && !disputed;
};

test.each(KINDS)('%s: what is read and drawn runs as what was designed', (_, arbitrary, usual) => {
  fc.assert(
    fc.property(arbitrary.map(tellable).filter(isOrderly), (design) => {
      const observed = unite(observedOf(design));
      const { design: drawn, questions } = drawObserved(observed, 'read');
      expect(questions).toEqual([]);
      expect(checkObserved(drawn, observed).filter((q) => !q.text.includes('by digest'))).toEqual([]);
      expect(compareWithDesign(drawn, observed)).toEqual([]);
    }),
    runs(usual),
  );
});

test('a design that takes over everything in which the network differs is as the network, host and all', () => {
  const designed = asMeant();
  const network = unite(observedOf(asCabled()));
  let n = 0;
  const now = asObserved(designed, network, (prefix) => `${prefix}-${n++}`);
  expect(compareWithDesign(designed, network).length).toBeGreaterThan(5);
  expect(compareWithDesign(now, network)).toEqual([]);
  expect(now.hosts).toEqual(designed.hosts);
  expect(differenceBetween(now, designed).length).toBeGreaterThan(5);
});

test('a pair that acts as one answers as one device, and differs in nothing from its design', () => {
  const design = asPair();
  const network = unite(observedOf(design));
  expect(network.switches).toHaveLength(design.switches.length - 1);
  expect(compareWithDesign(design, network)).toEqual([]);
  const { design: drawn } = drawObserved(network, 'read');
  expect(compareWithDesign(drawn, network)).toEqual([]);
});

test.each([
  ['trees per VLAN', vlanNetworks],
  ['bundles', covered(bundledNetworks)],
  ['regions', mstNetworks],
])(
  '%s: of two variants, everything in which the network differs from the design can be taken over',
  (_, networksOf) => {
    fc.assert(
      fc.property(variantsOf(networksOf), ([designed, there]) => {
        const network = unite(observedOf(tellable(there)));
        let n = 0;
        const now = asObserved(designed, network, (prefix) => `${prefix}-read-${n++}`);
        const left = compareWithDesign(now, network);
        // Roots and roles follow: from settings, and from guards and devices that no agent tells of.
        const isSetting = (d: Difference) => d.kind !== 'tree' || /^(cost|port priority) /.test(d.field);
        expect(left.filter((d) => d.verdict !== 'not-observed' && isSetting(d))).toEqual([]);
      }),
      runs(25),
    );
  },
);
