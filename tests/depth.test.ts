/** Networks deeper than a root's word goes: the solver against the rehearsal. */
import fc from 'fast-check';
import type { Design } from '@/core/design';
import { advance, startRehearsal } from '@/core/simulation';
import { deepNetworks } from './support/deep-networks';
import { differences } from './support/differences';

const runs = Number(process.env.RUNS ?? 25);
const seed = Number(process.env.SEED ?? 20261123);

const atRest = (design: Design) => {
  const r = startRehearsal(design, { id: 's', name: 's', until: 300, events: [], probes: [] });
  advance(r, 200_000_000, { most: 1_000_000 });
  return differences(design, r);
};

test.each([
  ['rstp', deepNetworks('rstp')],
  ['per-vlan-rstp', deepNetworks('per-vlan-rstp')],
  ['one region', deepNetworks('mstp', ['ra'])],
  ['regions and rapid switches', deepNetworks('mstp', ['ra', 'ra', 'ra', 'ra', 'rb', 'rb', 'rstp'])],
])('roots, roles and disputed ports: %s', (_, networks) => {
  fc.assert(
    fc.property(networks, (design) => void expect(atRest(design)).toEqual([])),
    { numRuns: runs, seed, endOnFailure: true },
  );
});
