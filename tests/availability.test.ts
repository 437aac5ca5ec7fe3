/** Goals of availability against every single failure, solved from scratch and walked. */
import fc from 'fast-check';
import type { Design, Goal } from '@/core/design';
import {
  byWorst,
  checkAvailability,
  goalOfFailure,
  reachOf,
  singleFailures,
  sweepBase,
  withFailed,
} from '@/core/review';
import type { VlanParts } from '@/core/review';
import { solveDesign } from '@/core/trees';
import { asCabled, asMeant } from '@/demo/brackwater';
import { runs } from './support/runs';
import { plainNetworks, vlanNetworks } from './support/vlan-networks';

const check = (design: Design) => {
  const base = sweepBase(solveDesign(design));
  const failures = [...singleFailures(base)].sort(byWorst);
  return { base, failures, checked: checkAvailability(base, failures) };
};
const withGoals = (design: Design, ...goals: Goal[]): Design => ({ ...design, goals });

/** Whether two switches are in one part, in every VLAN of some that both were in. */
function together(
  before: readonly VlanParts[],
  after: readonly VlanParts[],
  a: number,
  b: number,
  vlan: number,
): boolean {
  const of = (all: readonly VlanParts[]) => all.find((p) => p.vlans.includes(vlan));
  const was = of(before);
  if (!was || was.partOf[a]! < 0 || was.partOf[b]! < 0) return true;
  const now = of(after)!;
  return now.partOf[a] === now.partOf[b];
}

test('two switches stay connected exactly where no failure, walked by itself, parts them', () => {
  let [met, broken] = [0, 0];
  fc.assert(
    fc.property(fc.oneof(vlanNetworks, plainNetworks(6)), fc.nat(), fc.nat(), (network, x, y) => {
      const { switches } = network;
      const [a, b] = [x % switches.length, y % switches.length];
      if (a === b || network.links.length === 0) return;
      const pair = { from: { switch: switches[a]!.id }, to: { switch: switches[b]!.id } };
      const design = withGoals(network, { id: 'g', type: 'stays-connected', vlans: '10', among: pair });
      const { base, checked } = check(design);
      const [found] = checked;
      if (found!.state === 'void') return;
      const states = [
        network,
        ...base.elements
          .filter((e) => !e.switches.some((s) => s === pair.from.switch || s === pair.to.switch))
          .map((e) => withFailed(network, [e])),
      ];
      const naive = states.every((d) => together(base.parts, reachOf(solveDesign(d)), a, b, 10));
      expect(found!.state).toBe(naive ? 'met' : 'broken');
      if (naive) met++;
      else broken++;
    }),
    runs(200),
  );
  expect(met).toBeGreaterThan(5);
  expect(broken).toBeGreaterThan(5);
});

test('the demo: what is broken names the failure that breaks it, and what is met says nothing', () => {
  const all: Goal[] = [
    { id: 'switches', type: 'stays-connected', vlans: '110', among: 'switches' },
    { id: 'hosts', type: 'stays-connected', vlans: 'all', among: 'hosts' },
    { id: 'outage', type: 'outage', vlans: 'all', atMost: 0 },
    { id: 'full', type: 'load-left', vlans: 'all', percent: 50 },
    { id: 'free', type: 'load-left', vlans: 'all', percent: 100 },
    { id: 'gone', type: 'stays-connected', vlans: 'all', among: { from: { host: 'nowhere' }, to: { switch: 'gate' } } },
  ];
  const { checked, failures } = check(withGoals(asCabled(), ...all));
  const of = Object.fromEntries(checked.map((c) => [c.goal.id, c]));
  expect(checked.map((c) => [c.goal.id, c.state])).toEqual([
    ['switches', 'broken'],
    ['hosts', 'broken'],
    ['outage', 'broken'],
    ['full', 'broken'],
    ['free', 'met'],
    ['gone', 'void'],
  ]);
  expect(of.switches!.reason).toContain('lost: separates cold-store in VLAN 110');
  expect(of.outage!.reason).toMatch(/lost: contact is lost for good; so do \d+ more failures\.$/);
  expect(of.full!.reason).toMatch(/a link carries 60 % of its rate/);
  expect(failures).toContain(of.hosts!.failure);
});

test('a failure made a goal is broken by that failure, and met where it does no such harm', () => {
  const { failures } = check(asCabled());
  let asked = 0;
  for (const failure of failures) {
    const goal = goalOfFailure(asCabled(), failure, 'g');
    if (!goal) continue;
    asked++;
    expect(check(withGoals(asCabled(), goal)).checked[0]!.state).toBe('broken');
  }
  expect(asked).toBeGreaterThan(10);
  const camera = failures.find((f) => f.separates.vlans.join() === '130')!;
  const goal = goalOfFailure(asCabled(), camera, 'g')!;
  expect(goal).toMatchObject({ type: 'stays-connected', among: 'switches', vlans: '130' });
  const meant = check(withGoals(asMeant(), goal)).checked[0]!;
  expect(meant.reason).not.toContain('gate');
});
