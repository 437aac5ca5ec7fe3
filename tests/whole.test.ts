/** Whole designs with everything in them: the solver against the rehearsal, at rest and after random events. */
import fc from 'fast-check';
import { bundleVerdicts } from '@/core/network';
import type { Design, Script } from '@/core/design';
import { advance, startRehearsal } from '@/core/simulation';
import { differences } from './support/differences';
import { eventFor } from './support/events';
import { comeToRest } from './support/rest';
import { wholeNetworks } from './support/whole-networks';

const runs = Number(process.env.RUNS ?? 25);
const seed = Number(process.env.SEED ?? 20261123);
const script = (until: number, events: Script['events'] = []): Script => ({
  id: 's',
  name: 's',
  until,
  events,
  probes: [],
});
/** One end of a bundle forwards without the other: the two engines see different things there on purpose. */
const oneSided = (design: Design) => bundleVerdicts(design).some((v) => v.outcome === 'one-sided');

test('at rest', () => {
  fc.assert(
    fc.property(wholeNetworks, (design) => {
      fc.pre(!oneSided(design));
      const r = startRehearsal(design, script(200));
      advance(r, 200_000_000, { most: 2_000_000 });
      expect(differences(design, r)).toEqual([]);
    }),
    { numRuns: runs, seed, endOnFailure: true },
  );
});

/** Without what depends on what happened before: ports that were shut or held, filters that ended, members that are kept. */
const forgetful = (design: Design): Design => ({
  ...design,
  switches: design.switches.map((s) => ({ ...s, edgeGuard: false, edgeFilter: false })),
  ports: design.ports.map((p) => ({ ...p, bpduGuard: false, loopGuard: false, filterYields: false })),
});

test('after random events', () => {
  const moves = fc.array(
    fc.record({ kind: fc.constantFrom(0, 1, 2, 3, 4, 5), which: fc.nat(), at: fc.integer({ min: 1, max: 40 }) }),
    { minLength: 1, maxLength: 5 },
  );
  fc.assert(
    fc.property(wholeNetworks.map(forgetful), moves, (design, all) => {
      const events = all.flatMap(({ kind, which, at }, i) => eventFor(design, kind, which, at, `e${i}`));
      const r = startRehearsal(design, script(1000, events));
      comeToRest(r, events);
      fc.pre(!oneSided(r.world.drawn));
      expect(differences(r.world.drawn, r)).toEqual([]);
    }),
    { numRuns: runs, seed, endOnFailure: true },
  );
});
