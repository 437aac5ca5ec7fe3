import { asCabled, asMeant } from '../../demo/brackwater';
import { applyEdits, setField } from '../design';
import { LACP_PRIORITY, macToNumber, speedsByUse } from '../standard';
import { bundleCostRate } from './bundle-rate';
import { bundleLacpEnd, hostLacpEnd } from './lacp-ends';
import { portIsUp } from './link-state';

const demo = asMeant();
const [bundle] = demo.bundles;

test('an end of a bundle has the identity of its switch and the settings of its bundle, defaults filled in', () => {
  const end = bundleLacpEnd(demo, bundle!);
  const s = demo.switches.find((o) => o.id === bundle!.switch)!;
  expect(end).toMatchObject({ system: macToNumber(s.mac), systemPriority: 32768, key: bundle!.number, maxActive: 8 });
  expect(end.ports).toHaveLength(bundle!.members.length);
  expect(bundleLacpEnd(demo, bundle!, []).ports).toEqual([]);
});

test('a host never decides: no switch has a worse identity, whatever its priority', () => {
  const host = { id: 'h', name: 'h', bond: 'lacp-active' as const };
  const end = hostLacpEnd({ ...demo, hosts: [host] }, host, [bundle!.members[0]!]);
  expect(end.systemPriority).toBe(LACP_PRIORITY.max);
  for (const s of demo.switches) expect(end.system).toBeGreaterThan(macToNumber(s.mac));
  expect(end.system).toBeLessThan(2 ** 48);
});

test('a cable is up when the link and both ends are, and not otherwise', () => {
  const design = asCabled();
  const link = design.links.find((l) => 'port' in l.a && 'port' in l.b)!;
  const [a, b] = [link.a, link.b].map((e) => ('port' in e ? e.port : ''));
  expect([portIsUp(design, a!), portIsUp(design, b!)]).toEqual([true, true]);
  for (const edit of [
    setField('link', link.id, 'down', true),
    setField('port', b!, 'down', true),
    setField('switch', design.ports.find((p) => p.id === b)!.switch, 'off', true),
  ]) {
    const changed = applyEdits(design, [edit]);
    expect(changed.ok && portIsUp(changed.design, a!)).toBe(false);
  }
  expect(portIsUp(design, 'nowhere')).toBe(false);
});

test('the rate behind a cost follows the active or the configured members, as the switch is set', () => {
  const all = bundle!.members.reduce((sum, id) => sum + demo.ports.find((p) => p.id === id)!.speed, 0);
  const configured = { ...demo, bundleCost: 'configured' as const };
  expect([bundleCostRate(demo, bundle!, []), bundleCostRate(configured, bundle!, [])]).toEqual([0, all]);
});

test('the speed that most links have comes first; a draw goes to the faster one', () => {
  const speed = (n: number) => n;
  expect(speedsByUse([100, 1000, 100], speed)).toEqual([100, 1000]);
  expect(speedsByUse([100, 1000], speed)).toEqual([1000, 100]);
  expect(speedsByUse([100, 100, 1000], speed, (n) => n !== 100)).toEqual([1000, 100]);
  expect(speedsByUse([], speed)).toEqual([]);
});
