/** A region that is split, and a LAN on which its parts meet another region: the instances of both engines agree. */
import { emptyDesign } from '@/core/design';
import type { Design } from '@/core/design';
import { roleNow, startRehearsal } from '@/core/simulation';
import { ROLES, solveDesign } from '@/core/trees';
import { comeToRest } from './support/rest';

/** Two switches of region beta and one of alpha on a hub; the root, in alpha too, is reached by one of beta alone. */
function meeting(): Design {
  const port = (at: string, number: number) => ({
    id: `${at}.${number}`,
    switch: at,
    name: String(number),
    number,
    speed: 1000,
    cost: 1,
  });
  const switches = [
    ['s0', '05', 'beta'],
    ['s1', '06', 'alpha'],
    ['s2', '07', 'beta'],
    ['s3', '04', 'alpha'],
    ['s4', '01', 'alpha'],
  ].map(([id, mac, region]) => ({
    id: id!,
    name: id!,
    mac: `00:00:5e:00:53:${mac}`,
    region: region!,
    ...(id === 's1' ? { priority: 0 } : {}),
  }));
  return {
    ...emptyDesign('meeting'),
    mode: 'mstp',
    vlans: [10, 20, 30].map((number) => ({ id: `v${number}`, number })),
    switches,
    ports: [port('s0', 1), port('s2', 1), port('s4', 1), port('s3', 1), port('s2', 2), port('s1', 1), port('s3', 2)],
    links: [
      { id: 'l1', a: { port: 's3.1' }, b: { port: 's2.2' } },
      { id: 'l2', a: { port: 's1.1' }, b: { port: 's3.2' } },
    ],
    segments: [{ id: 'g0', name: 'g0', ports: ['s0.1', 's2.1', 's4.1'] }],
    regions: [
      { id: 'alpha', name: 'alpha', revision: 1, map: { '1': '10', '2': '20-22' } },
      { id: 'beta', name: 'beta', revision: 1, map: { '1': '10,20', '5': '30' } },
    ],
  };
}

test('a port that was on the border while the network began is none once the CIST speaks for itself there', () => {
  const design = meeting();
  const run = startRehearsal(design, { id: 'x', name: 'x', until: 36_000, probes: [], events: [] });
  comeToRest(run, []);
  const solved = solveDesign(design);
  const roles = ['msti-1', 'msti-5'].map((tree) => {
    const of = solved.byId.get(tree)!;
    const at = solved.topology.portIndex.get('s2.1')!;
    return [ROLES[of.outcome.role[at]!], roleNow(run.world, tree, 's2.1')];
  });
  // Both lead to s0, the regional root of beta over the hub; the way out of the region is the other port.
  expect(roles).toEqual([
    ['root', 'root'],
    ['root', 'root'],
  ]);
});
