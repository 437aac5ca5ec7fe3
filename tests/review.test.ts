/** The review against what can be seen by walking cables: who is separated, and which cables are missing. */
import fc from 'fast-check';
import { applyEdits, linksOfHost } from '@/core/design';
import type { Design } from '@/core/design';
import {
  chunksOf,
  failureCount,
  failureOf,
  failuresIn,
  missingCables,
  pairFailures,
  singleFailures,
  sweepBase,
  toldIn,
  withFailed,
} from '@/core/review';
import type { Failure } from '@/core/review';
import { solveDesign } from '@/core/trees';
import { canStand, fewest, standsAll, withCables } from './support/cables-by-trying';
import { isSwitch, partsByCables } from './support/parts-by-cables';
import { bundledNetworks } from './support/bundled-networks';
import { settingEdits } from './support/edits';
import { deepNetworks } from './support/deep-networks';
import { guardedNetworks } from './support/guards';
import { networks } from './support/networks';
import { VLANS, plainNetworks, vlanNetworks } from './support/vlan-networks';
import { wholeNetworks } from './support/whole-networks';

const runs = Number(process.env.RUNS ?? 60);
const seed = process.env.SEED ? { seed: Number(process.env.SEED) } : {};

const size = (design: Design, part: ReadonlySet<string>) =>
  [...part].reduce((sum, id) => sum + (isSwitch(design, id) ? 1000 : 1), 0);
/** Sizes of the two largest parts: where they are alike, either may be called the largest. */
const isClear = (design: Design, parts: readonly Set<string>[]): boolean => {
  const sizes = parts.map((p) => size(design, p)).sort((a, b) => b - a);
  return sizes.length < 2 || sizes[0]! > sizes[1]!;
};
const largest = (design: Design, parts: readonly Set<string>[]) =>
  parts.reduce((a, b) => (size(design, b) > size(design, a) ? b : a), new Set<string>());

test('who is separated is who cables do not join any more, for every single failure', () => {
  fc.assert(
    fc.property(vlanNetworks, (design) => {
      const base = sweepBase(solveDesign(design));
      for (const element of base.elements) {
        const failed = withFailed(design, [element]);
        const { separates } = failureOf(base, [element]);
        const [switches, hosts, vlans] = [new Set<string>(), new Set<string>(), [] as number[]];
        let clear = true;
        for (const vlan of VLANS) {
          const [before, after] = [partsByCables(design, vlan), partsByCables(failed, vlan)];
          clear &&= isClear(design, before) && isClear(failed, after);
          const [was, now] = [largest(design, before), largest(failed, after)];
          const lost = [...was].filter((id) => !now.has(id) && !failed.switches.some((s) => s.id === id && s.off));
          for (const id of lost) (isSwitch(design, id) ? switches : hosts).add(id);
          if (lost.some((id) => isSwitch(design, id))) vlans.push(vlan);
        }
        if (!clear) continue;
        expect([element.id, [...separates.switches].sort()]).toEqual([element.id, [...switches].sort()]);
        expect([...separates.hosts].sort()).toEqual([...hosts].sort());
        expect(separates.vlans).toEqual(vlans);
      }
    }),
    { numRuns: runs, ...seed },
  );
});

test('what is separated and has other cables to the rest is avoidable', () => {
  fc.assert(
    fc.property(vlanNetworks, (design) => {
      const base = sweepBase(solveDesign(design));
      for (const failure of singleFailures(base)) {
        const failed = withFailed(design, failure.elements);
        const open = { ...failed, ports: failed.ports.map((p) => ({ ...p, vlans: 'all' })) };
        const together = partsByCables(open, 10).length === 1;
        const { switches, hosts, avoidable } = failure.separates;
        if (switches.length + hosts.length === 0) expect(avoidable).toBe(false);
        // Where cables join all that is left, whoever is separated could be reached.
        else if (together && switches.length > 0) expect(avoidable).toBe(true);
      }
    }),
    { numRuns: runs, ...seed },
  );
});

test('a pair of failures is what both together do, and no pair names a thing twice', () => {
  fc.assert(
    fc.property(plainNetworks(4), (design) => {
      const base = sweepBase(solveDesign(design));
      for (const { elements, separates } of pairFailures(base)) {
        const [a, b] = elements as [(typeof elements)[number], (typeof elements)[number]];
        const again = failureOf(sweepBase(solveDesign(design)), [b, a]);
        expect(again.separates).toEqual(separates);
        expect(a.id).not.toBe(b.id);
      }
    }),
    { numRuns: Math.ceil(runs / 6), ...seed },
  );
});

test.each(['link', 'switch'] as const)('with the cables that are missing, any one %s can fail', (what) => {
  fc.assert(
    fc.property(vlanNetworks, (design) => {
      const found = missingCables(solveDesign(design))[what];
      if (what === 'switch' && !canStand(design)) return;
      expect([found.length, standsAll(withCables(design, found), what)]).toEqual([found.length, true]);
      // None of them is needless.
      for (const cable of found) {
        const without = found.filter((c) => c !== cable);
        expect(standsAll(withCables(design, without), what)).toBe(false);
      }
    }),
    { numRuns: runs, ...seed },
  );
});

test.each(['link', 'switch'] as const)('where cables carry different VLANs, no fewer would do for a %s', (what) => {
  fc.assert(
    fc.property(vlanNetworks, (design) => {
      const found = missingCables(solveDesign(design))[what];
      if (found.length === 0 || found.length > 3 || (what === 'switch' && !canStand(design))) return;
      expect(found.length).toBe(fewest(design, what, found.length));
    }),
    { numRuns: Math.ceil(runs / 2), ...seed },
  );
});

test.each(['link', 'switch'] as const)('where all cables carry the same, no fewer cables would do for a %s', (what) => {
  fc.assert(
    fc.property(plainNetworks(5), (design) => {
      const found = missingCables(solveDesign(design))[what];
      expect(found.length).toBe(fewest(design, what, Math.min(found.length, 4)));
    }),
    { numRuns: Math.ceil(runs / 2), ...seed },
  );
});

test('a host with two cards to two switches survives either', () => {
  fc.assert(
    fc.property(plainNetworks(4), (design) => {
      const two = withCables(design, []);
      const ports = ['s0', 's1'].map((s, i) => ({
        id: `h.${i}`,
        switch: s,
        name: `h${i}`,
        number: 900 + i,
        speed: 1000,
        vlans: '10',
        native: 10,
      }));
      two.ports = [...two.ports, ...ports];
      two.hosts = [{ id: 'h', name: 'h' }];
      two.links = [...two.links, ...ports.map((p, i) => ({ id: `h-${i}`, a: { port: p.id }, b: { host: 'h' } }))];
      const base = sweepBase(solveDesign(two));
      if (partsByCables(two, 10).length > 1) return;
      expect(linksOfHost(two, 'h')).toHaveLength(2);
      for (const element of base.elements.filter((e) => e.id.startsWith('h-')))
        expect(failureOf(base, [element]).separates.hosts).toEqual([]);
    }),
    { numRuns: runs, ...seed },
  );
});

test('however a sweep is cut up, its chunks together are all failures in their order', () => {
  fc.assert(
    fc.property(vlanNetworks, fc.integer({ min: 1, max: 40 }), fc.boolean(), (design, size, pairs) => {
      const base = sweepBase(solveDesign(design));
      const count = failureCount(base, pairs);
      const names = (failures: Iterable<Failure>) => [...failures].map((f) => f.elements.map((e) => e.id).join(' + '));
      const cut = [...chunksOf(count, size)].flatMap((chunk) => names(failuresIn(base, chunk)));
      expect(cut).toEqual([...names(singleFailures(base)), ...(pairs ? names(pairFailures(base)) : [])]);
      const all = base.elements.map((e) => e.id);
      expect(cut.slice(0, all.length)).toEqual(all);
      expect(new Set(cut).size).toBe(cut.length);
    }),
    { numRuns: runs, ...seed },
  );
});

/** What a failure does, whichever way it is worked out. */
test.each([
  ['one tree', networks],
  ['chains', deepNetworks('rstp')],
  ['VLANs', vlanNetworks],
  ['bundles', bundledNetworks],
  ['every mode', wholeNetworks],
  ['guards', guardedNetworks(vlanNetworks)],
  ['guards in one tree', guardedNetworks(networks)],
] as const)('a failure taken on from the design is the one solved from scratch: %s', (_, designs) => {
  fc.assert(
    fc.property(designs, fc.nat(), (design, which) => {
      const base = sweepBase(solveDesign(design));
      const { elements } = base;
      // One thing with every other, in either order, then a few more: a pair is put together from what its halves do.
      const one = elements[which % elements.length]!;
      const pairs = elements.flatMap((e, i) => (e === one ? [] : [i % 2 === 0 ? [one, e] : [e, one]]));
      const three = elements.length > 2 ? [elements.slice(0, 3)] : [];
      for (const failed of [...pairs, ...elements.map((e) => [e]), ...three])
        expect(failureOf(base, failed)).toEqual(failureOf(base, failed, true));
    }),
    { numRuns: Math.ceil(runs / 3), ...seed },
  );
});

/** What is found of a tree stays while nothing that it follows from is edited. */
test.each([
  ['one tree', networks],
  ['chains', deepNetworks('rstp')],
  ['VLANs', vlanNetworks],
  ['bundles', bundledNetworks],
] as const)('after an edit, failures are those of the new design: %s', (_, designs) => {
  fc.assert(
    fc.property(designs, fc.array(settingEdits, { minLength: 1, maxLength: 4 }), fc.nat(), (design, list, which) => {
      let base = sweepBase(solveDesign(design));
      for (const make of list) {
        // Some of the failures of the design before are known, as when an edit ends a sweep.
        for (const e of base.elements.slice(which % (base.elements.length + 1))) failureOf(base, [e]);
        const edit = make(base.solved.topology.design);
        const applied = applyEdits(base.solved.topology.design, edit ? [edit] : []);
        if (!applied.ok) continue;
        base = sweepBase(solveDesign(applied.design, base.solved), base);
        const [one] = base.elements;
        const pairs = base.elements.slice(1, 6).map((e) => [one!, e]);
        for (const failed of [...base.elements.map((e) => [e]), ...pairs])
          expect(failureOf(base, failed)).toEqual(failureOf(base, failed, true));
      }
    }),
    { numRuns: Math.ceil(runs / 4), ...seed },
  );
});

test.each([
  ['one tree', networks],
  ['VLANs', vlanNetworks],
  ['bundles', bundledNetworks],
] as const)('of pairs, those that do harm are reported, and all of those: %s', (_, designs) => {
  fc.assert(
    fc.property(designs, (design) => {
      const solved = solveDesign(design);
      const chunk = { from: 0, to: failureCount(sweepBase(solved), true) };
      const does = ({ elements, separates, goalsBroken, overloaded }: Failure) =>
        elements.length === 1 ||
        separates.switches.length + separates.hosts.length + goalsBroken.length + overloaded.length > 0;
      const told = [...toldIn(sweepBase(solved), chunk)];
      const all = [...failuresIn(sweepBase(solved), chunk)];
      expect(told).toEqual(all.map((f) => (does(f) ? f : null)));
    }),
    { numRuns: Math.ceil(runs / 4), ...seed },
  );
});
