import fc from 'fast-check';
import { settingEdits } from '../../../tests/support/edits';
import { networks } from '../../../tests/support/networks';
import { campus } from '../../demo/campus';
import { applyEdits, setField } from '../design';
import { solveDesign } from './state';
import type { SolvedDesign } from './solved';

const readable = (solved: SolvedDesign) =>
  solved.trees.map(({ tree, outcome, fold }) => ({
    id: tree.id,
    fold,
    role: [...outcome.role],
    root: [...outcome.root],
    cost: [...outcome.rootPathCost],
    rootPort: [...outcome.rootPort],
    designated: [...outcome.designatedPort],
  }));

test('what an edit leaves of an earlier solution is what a fresh solution says', () => {
  fc.assert(
    fc.property(networks, fc.array(settingEdits, { minLength: 1, maxLength: 6 }), (start, list) => {
      let design = start;
      let solved = solveDesign(design);
      for (const make of list) {
        const edit = make(design);
        if (!edit) continue;
        const applied = applyEdits(design, [edit]);
        if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
        design = applied.design;
        solved = solveDesign(design, solved);
        expect(readable(solved)).toEqual(readable(solveDesign(structuredClone(design))));
      }
    }),
    { numRuns: 1500 },
  );
});

test('VLANs that cannot differ are solved once', () => {
  const solved = solveDesign(campus({ switches: 50, vlans: 300, outcomes: 5 }));
  expect(solved.trees).toHaveLength(300);
  expect(solved.solvedCount).toBe(5);
  expect(new Set(solved.trees.map((t) => t.fold)).size).toBe(5);
});

test('a cost that no bridge would choose by moves nothing, and nothing is solved again', () => {
  const design = campus({ switches: 50, vlans: 20, outcomes: 5 });
  const solved = solveDesign(design);
  const closet = design.ports.filter((p) => p.switch === 'b01-acc-07');
  const unused = closet.find((p) =>
    solved.trees.every((t) => !t.outcome.rootPort.includes(solved.topology.portIndex.get(p.id)!)),
  )!;
  const dearer = applyEdits(design, [setField('port', unused.id, 'cost', 30000)]);
  if (!dearer.ok) throw new Error('refused');
  expect(solveDesign(dearer.design, solved).solvedCount).toBe(0);
});
