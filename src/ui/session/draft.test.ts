/** A change that is tried out stays while others change the design, and ends with a change of one's own. */
import { removeSwitch, setField } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { asCabled } from '../../demo/brackwater';
import type { LastChange } from './session';
import { draftOn, tryEdits } from './draft';
import type { Held } from './draft';

const design = asCabled();
const base = solveDesign(design);
const [first, second] = design.switches;
const edits = [setField('switch', first!.id, 'priority', 4096)];
const held = (): Held => {
  const tried = tryEdits(base, 'Priority 4096', edits);
  if (!tried.ok) throw new Error(tried.fault.sentence);
  return tried.held;
};

const changed = (kind: LastChange['kind'], change = [setField('switch', second!.id, 'name', 'another')]) => {
  const tried = tryEdits(base, '', change);
  if (!tried.ok) throw new Error(tried.fault.sentence);
  const { solved } = tried.held;
  return { solved, last: { label: '', kind, moved: [], before: base } };
};

test('it says what it would move', () => {
  expect(held().moved.length).toBeGreaterThan(0);
  expect(held().solved.topology.design.switches[0]!.priority).toBe(4096);
});

test('a change in another window goes under it', () => {
  const { solved, last } = changed('theirs');
  const next = draftOn({ ...held(), side: 'before' }, solved, last)!;
  expect(next.base).toBe(solved);
  expect(next.side).toBe('before');
  expect(next.solved.topology.design.switches.map((s) => [s.name, s.priority]).slice(0, 2)).toEqual([
    [first!.name, 4096],
    ['another', second!.priority],
  ]);
});

test('a change in another window that takes its ground away ends it', () => {
  const { solved, last } = changed('theirs', removeSwitch(design, first!.id));
  expect(draftOn(held(), solved, last)).toBeNull();
});

test.each(['edit', 'undo', 'redo'] as const)('%s in this window ends it', (kind) => {
  const { solved, last } = changed(kind);
  expect(draftOn(held(), solved, last)).toBeNull();
});
