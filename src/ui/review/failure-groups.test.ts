import { byWorst, singleFailures, sweepBase } from '../../core/review';
import { solveDesign } from '../../core/trees';
import { asCabled } from '../../demo/brackwater';
import { GROUPINGS, inGroups } from './failure-groups';

const design = asCabled();
const failures = [...singleFailures(sweepBase(solveDesign(design)))].sort(byWorst);

test.each(GROUPINGS.map((g) => g.id))(
  'every failure stands in one group, by %s, and the worst group comes first',
  (by) => {
    const groups = inGroups(design, failures, by);
    expect(groups.flatMap((g) => g.failures)).toHaveLength(failures.length);
    expect(new Set(groups.flatMap((g) => g.failures)).size).toBe(failures.length);
    expect(groups[0]!.failures[0]).toBe(failures[0]);
    expect(new Set(groups.map((g) => g.name)).size).toBe(groups.length);
  },
);

test('failures that separate the same are together', () => {
  const cold = inGroups(design, failures, 'separated').find((g) => g.name === 'separates cold-store')!;
  expect(cold.failures.map((f) => f.elements[0]!.kind).sort()).toEqual(['bundle', 'member', 'switch']);
});
