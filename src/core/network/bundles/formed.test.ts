import { asCabled, asMeant } from '../../../demo/brackwater';
import { applyEdits, setField } from '../../design';
import type { Design, Edit } from '../../design';
import { roleAt, solveDesign } from '../../trees';
import { bundleRate, formedBundles } from './formed';

const changed = (design: Design, ...edits: Edit[]) => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};
const cost = (design: Design, port: string) => {
  const solved = solveDesign(design);
  return solved.trees[0]!.problem.portCost[solved.topology.portIndex.get(port)!];
};

test('two ends that agree form a bundle of their working members', () => {
  const formed = formedBundles(asMeant());
  expect(formed.get('core-east:lag101')?.active).toEqual(['core-east:1', 'core-east:2']);
  expect(formedBundles(asCabled()).get('quay-b:lag102')?.active).toEqual(['quay-b:8']);
});

test('the cost follows the active members, or the configured ones where the design says so', () => {
  expect(cost(asMeant(), 'quay-b:lag102')).toBe(10_000);
  expect(cost(asCabled(), 'quay-b:lag102')).toBe(20_000);
  const configured = changed(asCabled(), { type: 'settings', field: 'bundleCost', value: 'configured' });
  expect(cost(configured, 'quay-b:lag102')).toBe(10_000);
  const short = changed(asMeant(), { type: 'settings', field: 'costScale', value: 'short' });
  expect(cost(short, 'quay-b:lag102')).toBe(3);
  expect(bundleRate(asMeant(), formedBundles(asMeant()).get('quay-b:lag102')!)).toBe(2000);
});

test('losing a member raises the cost, losing all takes the bundle down', () => {
  const lost = changed(asMeant(), setField('link', 'quay-b:9--cold-store:2', 'down', true));
  expect(cost(lost, 'quay-b:lag102')).toBe(20_000);
  const none = changed(lost, setField('link', 'quay-b:8--cold-store:1', 'down', true));
  expect(formedBundles(none).has('quay-b:lag102')).toBe(false);
});

test('two passive ends, or ends of different kinds, never form: members stand alone', () => {
  // Beside a static end the second port receives no BPDU.
  for (const [second, edits] of [
    [
      'alternate',
      [
        setField('bundle', 'core-east:lag101', 'activity', 'passive'),
        setField('bundle', 'core-west:lag101', 'activity', 'passive'),
      ],
    ],
    ['designated', [setField('bundle', 'core-east:lag101', 'kind', 'static')]],
  ] as const) {
    const design = changed(asMeant(), ...edits);
    expect(formedBundles(design).has('core-east:lag101')).toBe(false);
    const solved = solveDesign(design);
    const of = solved.byId.get('vlan-110')!;
    const roles = ['core-west:1', 'core-west:2'].map((id) => roleAt(of, solved.topology.portIndex.get(id)!));
    expect(roles).toEqual(['root', second]);
  }
  const one = changed(asMeant(), setField('bundle', 'core-east:lag101', 'activity', 'passive'));
  expect(formedBundles(one).has('core-east:lag101')).toBe(true);
});
