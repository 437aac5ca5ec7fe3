import { asCabled } from '../../demo/brackwater';
import { applyEdits } from '../../core/design';
import type { Design, Edit } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { costAction, failAction, makeRootAction, portPriorityAction, priorityAction, scopeWords } from './actions';
import { missingInView } from './context';

const design = asCabled();
const find = (id: string) => design.switches.find((s) => s.id === id)!;
const port = (id: string) => design.ports.find((p) => p.id === id)!;
const after = (edits: readonly Edit[], from: Design = design) => {
  const applied = applyEdits(from, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

test('actions are named so that undo reads well', () => {
  expect(scopeWords('all')).toBe('');
  expect(scopeWords([130])).toBe(' for VLAN 130');
  expect(scopeWords([110, 111, 112, 130])).toBe(' for VLANs 110-112,130');
  expect(priorityAction([find('gate')], [110], 4096).label).toBe('Priority of gate for VLAN 110: 4096');
  expect(priorityAction([find('gate'), find('workshop')], 'all', null).label).toBe('Priority of 2 switches: default');
  expect(costAction(design, port('gate:1'), 'all', null).label).toBe('Cost of gate 1: by speed');
  expect(portPriorityAction(design, design.bundles[0]!, [110], 64).label).toBe(
    'Port priority of core-east to-core-west for VLAN 110: 64',
  );
});

test('the same priority on many switches is one list of edits', () => {
  const { edits } = priorityAction(design.switches, 'all', 61440);
  expect(after(edits).switches.every((s) => s.priority === 61440 && s.vlanPriority === undefined)).toBe(true);
});

test('failing and restoring are each other’s opposite, for whatever is selected', () => {
  for (const ref of [
    { kind: 'switch' as const, id: 'gate' },
    { kind: 'link' as const, id: 'quay-a:4--gate:1' },
    { kind: 'port' as const, id: 'gate:1' },
    { kind: 'port' as const, id: 'quay-b:9' },
    { kind: 'bundle' as const, id: 'core-east:lag101' },
    { kind: 'host' as const, id: 'ticket-desk' },
  ]) {
    const fail = failAction(design, [ref]);
    expect(fail.restores).toBe(false);
    expect(fail.label).toMatch(/^Fail /);
    const failed = after(fail.edits);
    const restore = failAction(failed, [ref]);
    expect(restore.restores).toBe(true);
    expect(after(restore.edits, failed)).toEqual(design);
  }
});

test('of several, what has failed already is left alone until all has', () => {
  const refs = [
    { kind: 'switch' as const, id: 'gate' },
    { kind: 'link' as const, id: 'quay-a:3--ticket-hall:1' },
  ];
  const half = after(failAction(design, refs.slice(0, 1)).edits);
  const both = failAction(half, refs);
  expect([both.restores, both.edits.length]).toEqual([false, 1]);
  expect(failAction(after(both.edits, half), refs)).toMatchObject({ restores: true, label: 'Restore 2 things' });
});

test('a bundle fails with all its links, and nothing selected fails nothing', () => {
  expect(failAction(design, [{ kind: 'bundle', id: 'core-east:lag101' }]).edits).toHaveLength(2);
  expect(failAction(design, []).edits).toEqual([]);
});

test('make root names the tree, and a root by MAC address only is made one on purpose', () => {
  const solved = solveDesign(design);
  const action = makeRootAction(solved, [199], 'workshop');
  expect(action.label).toBe('Make workshop root of VLAN 199');
  expect(action.edits).toEqual([
    { type: 'set', kind: 'switch', id: 'workshop', field: 'vlanPriority.199', value: 28672 },
  ]);
  const several = makeRootAction(solved, [199, 110], 'core-west');
  expect(several.label).toBe('Make core-west root of VLANs 110,199');
  expect(several.edits.map((e) => e.type === 'set' && e.field)).toEqual(['vlanPriority.110', 'vlanPriority.199']);
  expect(makeRootAction(solved, 'all', 'core-west').label).toBe('Make core-west root of all trees');
});

test('an address that names what is not there is answered with a sentence', () => {
  const solved = solveDesign(design);
  const view = {
    tree: 'vlan-110',
    selection: [],
    arrangement: 'depth' as const,
    vlan: null,
    board: 'chart' as const,
    panel: 'selection' as const,
    fold: 'auto' as const,
    open: [],
    path: false,
  };
  expect(missingInView({ design, solved }, view)).toBeNull();
  expect(missingInView({ design, solved }, { ...view, tree: 'vlan-7' })).toBe(
    "The address names a tree 'vlan-7', which this design does not have: vlan-110 is shown.",
  );
  expect(missingInView({ design, solved }, { ...view, selection: [{ kind: 'host', id: 'ghost' }] })).toContain(
    "a host 'ghost'",
  );
});
