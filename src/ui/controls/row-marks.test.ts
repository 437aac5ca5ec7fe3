import { asCabled, asMeant } from '../../demo/brackwater';
import { findingsOf } from '../../core/review';
import { solveDesign } from '../../core/trees';
import { rowMarks } from './row-marks';

const of = (design: ReturnType<typeof asCabled>) => rowMarks(design, findingsOf(solveDesign(design)));

test('rows are marked by what is found about them: a switch, its ports, the cable between two of them, a bundle', () => {
  const marks = of(asCabled());
  expect(marks.get('switch workshop')).toMatchObject({ severity: 'risk' });
  const gate = marks.get('link quay-b:4--gate:2');
  expect(gate!.severity).toBe('fault');
  expect(gate!.sentences.join(' ')).toContain('VLAN 130');
  expect(marks.get('port gate:2')!.sentences).toEqual(gate!.sentences);
  expect(marks.get('bundle quay-b:lag102')).toBeDefined();
  expect(marks.get('switch crane-yard')?.severity).not.toBe('fault');
});

test('what is put right, or accepted, is not marked', () => {
  expect(of(asMeant()).has('link quay-b:4--gate:2')).toBe(false);
  const design = asCabled();
  const findings = findingsOf(solveDesign(design)).map((f) => ({ ...f, accepted: 'as agreed' }));
  expect(rowMarks(design, findings).size).toBe(0);
});
