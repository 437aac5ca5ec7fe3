/** LANs on which a classic switch is: all bridges speak version 0 there, each switch for itself (802.1Q-2018 clause 13.10). */
import { designFrom } from '../../../tests/support/networks';
import type { Mode } from '../design';
import { roleAt, solveDesign } from './state';

type End = ReturnType<typeof end>;
const end = (bridge: string, port: number, cost = 1) => ({ bridge, port, cost, priority: 128 });
/** Switches by name with their priority and the last octet of their address, in one region but for those with a mode of their own. */
const rolesIn = (switches: Record<string, [number, number, Mode?]>, lans: readonly (readonly End[])[]) => {
  const design = designFrom(
    Object.entries(switches).map(([id, [priority, octet]]) => ({ id, mac: `00:00:5e:00:53:0${octet}`, priority })),
    lans.map((ends) => ({ ends: [...ends] })),
    'mstp',
  );
  design.regions = [{ id: 'r', name: 'r', revision: 1, map: {} }];
  for (const s of design.switches) {
    const [, , mode] = switches[s.id]!;
    if (mode) s.protocol = mode;
  }
  const solved = solveDesign(design);
  return (...ids: string[]) => ids.map((id) => roleAt(solved.trees[0]!, solved.topology.portIndex.get(id)!));
};

test('on a shared LAN the way inside the region counts for nothing', () => {
  const roles = rolesIn({ near: [32768, 7], root: [32768, 2], far: [32768, 5], classic: [32768, 8, 'stp'] }, [
    [end('near', 1), end('root', 1)],
    [end('far', 1), end('near', 2)],
    [end('far', 2), end('near', 3), end('classic', 1)],
  ]);
  expect(roles('far.2', 'near.3', 'classic.1')).toEqual(['designated', 'alternate', 'root']);
});

test('on a cable a region speaks for the switch that is there, not for its regional root', () => {
  const roles = rolesIn({ root: [0, 7, 'rstp'], top: [4096, 4], below: [32768, 5], classic: [32768, 1, 'stp'] }, [
    [end('root', 1), end('top', 1, 4)],
    [end('root', 2), end('classic', 1, 4)],
    [end('top', 2), end('below', 1)],
    [end('below', 2), end('classic', 2)],
  ]);
  expect(roles('below.2', 'classic.2')).toEqual(['alternate', 'designated']);
});
