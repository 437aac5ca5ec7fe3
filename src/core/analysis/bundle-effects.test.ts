import { asCabled, asMeant } from '../../demo/brackwater';
import { applyEdits, setField } from '../design';
import type { Design, Edit } from '../design';
import { typedConversations } from './distribution';
import { findPath } from './path';
import { peersOf } from '../network';
import { roleAt, solveDesign } from '../trees';
import { bundleSteps } from './bundle-steps';
import { memberChanges } from './member-change';
import { pathCapacity, treeCapacity } from './capacity';
import { compareOptions } from './compare-options';

const changed = (design: Design, ...edits: Edit[]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};
let n = 0;
const newId = (prefix: string) => `${prefix}-${++n}`;
const ALL = '110,120,130,140,150,160,199';
/** The demo with a second cable between the two quays. */
function doubled(mode: Design['mode'] = 'per-vlan-rstp'): Design {
  const design = { ...asMeant(), mode };
  for (const at of ['quay-a', 'quay-b'])
    design.ports.push({ id: `${at}:13`, switch: at, name: '13', number: 13, speed: 1000, vlans: ALL });
  design.links.push({ id: 'second', a: { port: 'quay-a:13' }, b: { port: 'quay-b:13' } });
  // The quays talk over these two cables alone.
  return changed(
    design,
    ...['core-east:4--quay-b:2', 'core-west:3--quay-b:1'].map((id) => setField('link', id, 'down', true)),
  );
}
const LINKS = ['quay-a:12--quay-b:12', 'second'];

describe('options for two parallel links', () => {
  const compared = (design: Design) => {
    const found = compareOptions(design, LINKS, newId);
    if (!found.ok) throw new Error(found.sentence);
    return found;
  };
  test('blocked: one carries all; split: each carries half of the trees; bundled: both carry every tree', () => {
    const { options: all } = compared(doubled());
    expect(all.map((w) => [w.id, w.carried.toString(), w.capacity, w.tree, w.conversation, w.left])).toEqual([
      ['blocked', '7,0', 1000, 1000, 1000, 1000],
      ['split', '4,3', 2000, 1000, 1000, 1000],
      ['bundled', '7,7', 2000, 2000, 1000, 1000],
    ]);
    expect(all.map((w) => [w.outage, w.back, w.silent])).toEqual([
      [0, 0, 6],
      [0, 0, 6],
      [0, 0, 90],
    ]);
    expect(all[0]!.moved).toBe(7);
    expect(all[2]!.moved).toBe(0);
  });
  test('classic spanning tree waits two forward delays, and one tree cannot be split', () => {
    const { options: all, notes } = compared(doubled('stp'));
    expect(all.map((w) => [w.id, w.outage, w.silent])).toEqual([
      ['blocked', 30, 50],
      ['bundled', 0, 90],
    ]);
    expect(notes).toEqual([expect.stringMatching(/^Splitting by VLAN needs two or more trees/)]);
  });
  test('times are those of the root, and a static bundle never notices a silent partner', () => {
    const design = doubled('stp');
    const timers = { helloTime: 1, maxAge: 6, forwardDelay: 4 };
    const quick = { ...design, switches: design.switches.map((s) => ({ ...s, ...timers })) };
    expect(compared(quick).options.map((w) => [w.id, w.outage, w.silent])).toEqual([
      ['blocked', 8, 14],
      ['bundled', 0, 90],
    ]);
    const made = changed(design, ...compared(design).options.at(-1)!.edits);
    const still = changed(made, ...made.bundles.slice(-2).map((b) => setField('bundle', b.id, 'kind', 'static')));
    expect(compared(still).options.at(-1)).toMatchObject({ id: 'bundled', silent: Infinity });
  });
  test('each option leads to a design that can be made', () => {
    const design = doubled();
    for (const option of compared(design).options) expect(applyEdits(design, option.edits).ok).toBe(true);
  });
  test('refuses links that are not parallel', () => {
    const found = compareOptions(asMeant(), ['quay-a:12--quay-b:12', 'quay-a:4--gate:1'], newId);
    expect(found.ok || found.sentence).toBe(
      'The two links join different switches: only parallel links can be compared.',
    );
  });
});

test('a member lost or added shows the cost before and after, on both scales', () => {
  const costs = (design: Design) =>
    memberChanges(solveDesign(design), 'core-east:lag101').map((c) => [c.kind, c.before, c.after]);
  expect(costs(asMeant())).toEqual([
    ['lost', 1000, 2000],
    ['added', 1000, 666],
  ]);
  // 2 × 100 Mb/s cost 12 on the 16-bit scale, one of them 19, three of them 9.
  const slow = changed(
    { ...asMeant(), costScale: 'short' },
    ...['core-east:1', 'core-east:2', 'core-west:1', 'core-west:2'].map((p) => setField('port', p, 'speed', 100)),
  );
  expect(costs(slow)).toEqual([
    ['lost', 12, 19],
    ['added', 12, 9],
  ]);
  const configured = changed(asMeant(), setField('switch', 'core-east', 'bundleCost', 'configured'));
  expect(costs(configured)[0]).toEqual(['lost', 1000, 1000]);
});

test('ports that change role because a member is lost are named', () => {
  // Over the bundle the other quay is as near as over its own uplink, until a member goes.
  const [lost] = memberChanges(
    solveDesign(changed(asMeant(), setField('bundle', 'quay-b:lag102', 'minActive', 2))),
    'quay-b:lag102',
  );
  expect(lost!.forms).toBe(false);
  expect(lost!.after).toBeNull();
  expect(lost!.trees.length).toBeGreaterThan(0);
});

test('a path is as wide as its narrowest link, and narrower with a member lost', () => {
  const solved = solveDesign(asMeant());
  const of = solved.byId.get('vlan-130')!;
  const path = findPath(solved, of, { host: 'recorder' }, { switch: 'core-east' }, 130);
  const wide = path.ok && pathCapacity(solved, path.path);
  expect(wide && [wide.rate, wide.memberLost]).toEqual([10000, 10000]);
  const bundle = findPath(solved, of, { switch: 'core-west' }, { switch: 'core-east' }, 130);
  const both = bundle.ok && pathCapacity(solved, bundle.path);
  expect(both && [both.rate, both.memberLost]).toEqual([20000, 10000]);
  expect(treeCapacity(solved, of).rate).toBe(1000);
});

test('a bundle that a lost member takes below its minimum carries nothing then', () => {
  const solved = solveDesign(changed(asMeant(), setField('bundle', 'cold-store:lag103', 'minActive', 2)));
  const of = solved.byId.get('vlan-110')!;
  const path = findPath(solved, of, { switch: 'quay-b' }, { switch: 'cold-store' }, 110);
  const capacity = path.ok && pathCapacity(solved, path.path);
  expect(capacity && [capacity.rate, capacity.memberLost]).toEqual([2000, 0]);
});

test('the narrowest link of a tree is one that frames pass: a blocked one is not asked', () => {
  for (const design of [asCabled(), asMeant()]) {
    const slow = changed(design, setField('port', 'quay-a:12', 'speed', 100));
    const solved = solveDesign(slow);
    for (const of of solved.trees) {
      const { port, rate } = treeCapacity(solved, of);
      const open = [port, ...peersOf(solved.topology, port)].every((p) =>
        ['root', 'designated'].includes(roleAt(of, p)),
      );
      expect([of.tree.id, open]).toEqual([of.tree.id, true]);
      const cut = ['quay-a:12', 'quay-b:12'].some(
        (id) => roleAt(of, solved.topology.portIndex.get(id)!) === 'alternate',
      );
      if (cut) expect(rate).toBeGreaterThan(100);
    }
  }
});

describe('the change steps', () => {
  const ends = (design: Design) =>
    ['quay-b:lag102', 'cold-store:lag103'].map((id) => design.bundles.find((b) => b.id === id)!);
  test('the end farther from the roots comes first, the second cable last, and the blocked port is named', () => {
    const design = asMeant();
    const [a, b] = ends(design);
    const steps = bundleSteps(design, b!, a!);
    expect(steps.map((s) => s.at)).toEqual(['', 'cold-store', 'quay-b', '', '']);
    expect(steps[3]!.meanwhile).toMatch(/Spanning tree blocks cold-store 2 in every tree\./);
  });
  test('a static bundle takes the cables down first and brings them up together', () => {
    const design = changed(
      asMeant(),
      ...['quay-b:lag102', 'cold-store:lag103'].map((id) => setField('bundle', id, 'kind', 'static')),
    );
    const [a, b] = ends(design);
    const steps = bundleSteps(design, a!, b!);
    expect(steps.map((s) => s.at)).toEqual(['quay-b', 'cold-store', 'quay-b', 'quay-b', '']);
    expect(steps[0]!.work).toMatch(/^Shut down ports 8, 9/);
  });
  test('classic spanning tree makes the new port wait', () => {
    const design = { ...asCabled(), mode: 'per-vlan-stp' as const };
    const [a, b] = ends(design);
    expect(bundleSteps(design, a!, b!)[2]!.meanwhile).toMatch(/waits 30 s/);
  });
});

describe('typed conversations', () => {
  test('are read from lines of several kinds', () => {
    const typed = typedConversations('a b 20\nc\td\t1.5\t110\n\ne, f; 3, 1, 5000, 80');
    expect(
      typed.ok && typed.conversations.map((c) => [c['src-mac'], c['dst-ip'], c.load, c.vlan, c['dst-port']]),
    ).toEqual([
      ['a', 'b', 20, '1', '443'],
      ['c', 'd', 1.5, '110', '443'],
      ['e', 'f', 3, '1', '80'],
    ]);
  });
  test('name the line that cannot be read', () => {
    const sentence = (text: string) => {
      const typed = typedConversations(text);
      return typed.ok ? '' : typed.sentence;
    };
    expect(sentence('a b 1\na b')).toMatch(/^Line 2: The line 'a b' is incomplete\./);
    expect(sentence('a b x')).toMatch(/The load 'x' is not a number/);
    expect(sentence('a b 1 4095')).toMatch(/The VLAN '4095' is not a number/);
    expect(sentence('a b 1 1 70000')).toMatch(/The port '70000' is not a TCP or UDP port/);
  });
});
