/** Networks deeper than a root's word goes: the solver against the rehearsal. */
import fc from 'fast-check';
import type { Design } from '@/core/design';
import { advance, startRehearsal } from '@/core/simulation';
import { rootsOf, solveDesign } from '@/core/trees';
import { deepNetworks } from './support/deep-networks';
import { differences } from './support/differences';
import { designFrom } from './support/networks';

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

test('a design whose mode changes has the depth of its new mode', () => {
  const ids = Array.from({ length: 21 }, (_, i) => `s${i}`);
  const end = (bridge: string, port: number) => ({ bridge, port, cost: 4, priority: 128 });
  const rapid = designFrom(
    ids.map((id, i) => ({ id, mac: `00:00:5e:00:53:${i.toString(16).padStart(2, '0')}`, priority: 32768 })),
    ids.slice(1).map((id, i) => ({ ends: [end(ids[i]!, 2), end(id, 1)] })),
    'rstp',
  );
  const roots = (design: Design) => rootsOf(solveDesign(design).trees[0]!).length;
  expect([roots(rapid), roots({ ...rapid, mode: 'stp' }), roots(rapid)]).toEqual([1, 2, 1]);
});
