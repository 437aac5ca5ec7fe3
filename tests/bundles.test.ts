import fc from 'fast-check';
import { advance, startRehearsal } from '@/core/simulation';
import { bundleVerdicts } from '@/core/network';
import { bundledNetworks } from './support/bundled-networks';
import { differences, memberStandings } from './support/differences';
import { haveTwins, oneSided } from './support/uncovered-bundles';

const runs = Number(process.env.RUNS ?? 50);
const seed = Number(process.env.SEED ?? 20261123);

const STANDING = { active: 'active', individual: 'alone', standby: 'held', suspended: 'held', down: 'down' } as const;

describe('bundles of all kinds: verdicts, trees and rehearsal agree at rest', () => {
  test('every member, and every port of the tree', () => {
    fc.assert(
      fc.property(bundledNetworks, (design) => {
        fc.pre(!oneSided(design) && !haveTwins(design));
        const r = startRehearsal(design, { id: 's', name: 's', until: 300, events: [], probes: [] });
        advance(r, 250_000_000, { most: 1_000_000 });
        const verdicts = bundleVerdicts(design).flatMap((v) => v.members.map((m) => [m.port, STANDING[m.state]]));
        expect([Object.fromEntries(memberStandings(r)), differences(design, r)]).toEqual([
          Object.fromEntries(verdicts),
          [],
        ]);
      }),
      { numRuns: runs, seed, endOnFailure: true },
    );
  });
});
