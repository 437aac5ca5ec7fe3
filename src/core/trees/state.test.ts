import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { campus } from '../../demo/campus';
import { applyEdits, setField } from '../design';
import type { Design, Edit } from '../design';
import { solveDesign } from './state';
import type { SolvedDesign } from './solved';
import { vlanMembership } from '../standard';

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

/** A random edit of a setting that spanning tree looks at. */
const edits = fc
  .record({ what: fc.nat({ max: 9 }), at: fc.nat(), value: fc.constantFrom(1, 2, 4, 19, 38, 100) })
  .map(({ what, at, value }) => (design: Design): Edit | null => {
    const port = design.ports[at % Math.max(1, design.ports.length)];
    const bridge = design.switches[at % design.switches.length]!;
    const link = design.links[at % Math.max(1, design.links.length)];
    if (what < 3) return port ? setField('port', port.id, what === 0 ? 'vlanCost.10' : 'cost', value) : null;
    if (what === 3) return port ? setField('port', port.id, 'priority', (value % 16) * 16) : null;
    if (what === 4) return setField('switch', bridge.id, 'vlanPriority.20', (value % 16) * 4096);
    if (what === 5) return setField('switch', bridge.id, 'priority', (value % 16) * 4096);
    if (what === 6) return link ? setField('link', link.id, 'down', value > 4) : null;
    if (!port) return null;
    if (what > 7) {
      const native = [null, 10, 20][value % 3]!;
      const carried = native === null || vlanMembership(port.vlans ?? 'all')[native] === 1;
      return carried ? setField('port', port.id, 'native', native) : null;
    }
    return port.native === 10 ? null : setField('port', port.id, 'vlans', value > 4 ? '20' : null);
  });

test('what an edit leaves of an earlier solution is what a fresh solution says', () => {
  fc.assert(
    fc.property(networks, fc.array(edits, { minLength: 1, maxLength: 6 }), (start, list) => {
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
