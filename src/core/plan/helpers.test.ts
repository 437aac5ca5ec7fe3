/** Steps that help for a while: what is set is taken back, and the plan interrupts less with them. */
import { quarryAsItIs, quarryPerVlan } from '../../demo/quarry';
import { planned } from '../../../tests/support/planned';
import { bundleAt, linkAt, portsOf } from '../design';
import type { Design } from '../design';
import { compareCost } from './rank';

/** Working cables of a switch to other switches, a bundle once. */
const uplinks = (design: Design, device: string): Set<string> =>
  new Set(
    portsOf(design, device).flatMap((p) => {
      const link = linkAt(design, p.id);
      const alone = !link || link.down || p.down || 'host' in link.a || 'host' in link.b;
      return alone ? [] : [bundleAt(design, p.id)?.id ?? p.id];
    }),
  );

test('a closet hangs on one uplink while it comes to a tree per VLAN, and on all of them after it', () => {
  const [from, to] = [quarryAsItIs(), quarryPerVlan()];
  const plan = planned(from, to);
  const steps = plan.steps.map((s) => ({ ...s, kind: s.work.kind, device: s.work.device }));
  const helped = steps.flatMap((s, i) =>
    s.kind === 'mode' && steps[i - 1]?.kind === 'temporary' && steps[i + 1]?.kind === 'temporary' ? [i] : [],
  );
  expect(helped.length).toBeGreaterThan(0);
  for (const i of helped) {
    const { device, before, after } = steps[i]!;
    expect([steps[i - 1]!.device, steps[i + 1]!.device]).toEqual([device, device]);
    expect([uplinks(before, device!).size, uplinks(after, device!).size]).toEqual([1, 1]);
    expect(uplinks(steps[i + 1]!.after, device!)).toEqual(uplinks(steps[i - 1]!.before, device!));
  }
  expect(compareCost(plan.cost, planned(from, to, { temporary: false }).cost)).toBeLessThan(0);
  expect(steps.at(-1)!.after.ports.filter((p) => p.down)).toEqual([]);
});
