import { applyEdits } from '../design';
import type { Design, Edit } from '../design';
import { asCabled } from '../../demo/brackwater';
import { sweepKey } from './sweep-key';

const after = (...edits: Edit[]): Design => {
  const changed = applyEdits(asCabled(), edits);
  if (!changed.ok) throw new Error(changed.faults[0]!.sentence);
  return changed.design;
};
const set = (kind: 'switch' | 'port', id: string, field: string, value: unknown): Edit =>
  ({ type: 'set', kind, id, field, value }) as Edit;
const [s] = asCabled().switches;
const [p] = asCabled().ports;
const before = sweepKey(asCabled());

test('moving a switch, or accepting a finding, changes no failure', () => {
  expect(sweepKey(after(set('switch', s!.id, 'x', 77)))).toBe(before);
  expect(sweepKey({ ...asCabled(), accepted: [], scripts: [], name: 'another' })).toBe(before);
});

test.each<[string, Edit]>([
  ['a priority', set('switch', s!.id, 'priority', 20480)],
  ['a name', set('switch', s!.id, 'name', 'another')],
  ['a cost', set('port', p!.id, 'cost', 7)],
  ['a goal', { type: 'remove', kind: 'goal', id: asCabled().goals[0]!.id }],
  ['a risk group', { type: 'add', kind: 'risk', value: { id: 'r', name: 'duct', links: [], switches: [s!.id] } }],
])('%s can', (_, edit) => expect(sweepKey(after(edit))).not.toBe(before));
