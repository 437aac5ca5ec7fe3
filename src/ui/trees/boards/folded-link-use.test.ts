import { linkUseOf } from '../../../core/analysis';
import { solveDesign } from '../../../core/trees';
import { asMeant } from '../../../demo/brackwater';
import { campus } from '../../../demo/campus';
import { foldedLinkUse } from './folded-link-use';

test('links that all trees use alike are one column, and none is lost', () => {
  const solved = solveDesign(campus({ switches: 202, vlans: 20, outcomes: 6 }));
  const every = linkUseOf(solved);
  const folded = foldedLinkUse(solved, every, true);
  expect(folded.columns.length).toBeLessThan(every.columns.length / 5);
  expect(folded.counts.reduce((a, b) => a + b, 0)).toBe(every.columns.length);
  for (const [list, whole] of [
    [folded.idle, every.idle],
    [folded.everything, every.everything],
  ] as const)
    expect(list.reduce((sum, c) => sum + folded.counts[c]!, 0)).toBe(whole.length);
  const column = folded.columns.findIndex((_, c) => folded.counts[c]! > 3);
  const original = every.columns.findIndex(
    (c) => c.a === folded.columns[column]!.a && c.b === folded.columns[column]!.b,
  );
  expect(folded.rows.map((r) => r.cells[column])).toEqual(every.rows.map((r) => r.cells[original]));
});

test('a small network, and one that is not to be folded, keeps a column for every link', () => {
  const small = solveDesign(asMeant());
  expect(foldedLinkUse(small, linkUseOf(small), true).columns).toHaveLength(linkUseOf(small).columns.length);
  const large = solveDesign(campus({ switches: 202, vlans: 2, outcomes: 2 }));
  expect(foldedLinkUse(large, linkUseOf(large), false).columns).toHaveLength(linkUseOf(large).columns.length);
});
