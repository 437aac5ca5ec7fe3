import { asMeant } from '../../demo/brackwater';
import { setField, applyEdits } from '../design';
import { NO_ANSWERS, checkPrediction, endAnswer, sheetLinks } from './prediction';
import type { Prediction } from './prediction';
import { rootsOf, solveDesign } from './state';

const solved = solveDesign(asMeant());
const of = solved.byId.get('vlan-110')!;
const { design, ports } = solved.topology;

/** Every answer as it is right. */
function allRight(): Prediction {
  const followers = design.switches.flatMap((s, b) => (of.outcome.root[b] === b ? [] : [{ s, b }]));
  return {
    root: design.switches[rootsOf(of)[0]!]!.id,
    costs: Object.fromEntries(followers.map(({ s, b }) => [s.id, String(of.outcome.rootPathCost[b])])),
    rootPorts: Object.fromEntries(followers.map(({ s, b }) => [s.id, ports[of.outcome.rootPort[b]!]!.element.id])),
    ends: Object.fromEntries(
      sheetLinks(of).flatMap(({ a, b }) => [a, b].map((p) => [ports[p]!.element.id, endAnswer(of, p)])),
    ),
  };
}
const questions = () => checkPrediction(solved, of, NO_ANSWERS).open;

describe('a sheet', () => {
  test('asks for the root, cost and root port of every other switch, and both ends of every link', () => {
    const links = sheetLinks(of);
    expect(new Set(links.flatMap(({ a, b }) => [a, b])).size).toBe(2 * links.length);
    expect(questions()).toBe(1 + 2 * (design.switches.length - 1) + 2 * links.length);
  });
  test('has every answer right that the tree gives, and none open', () => {
    const marks = checkPrediction(solved, of, allRight());
    expect([marks.right.size, marks.wrong.size, marks.open]).toEqual([questions(), 0, 0]);
  });
  test('takes costs with blanks between the digits, and counts what is left empty as open', () => {
    const right = allRight();
    const spaced = { ...right, costs: { ...right.costs, gate: ' 22 000 ', workshop: '' } };
    const marks = checkPrediction(solved, of, spaced);
    expect([marks.right.has('cost gate'), marks.wrong.size, marks.open]).toEqual([true, 0, 1]);
  });
  test('marks each wrong answer by itself', () => {
    const right = allRight();
    const wrong: Prediction = {
      ...right,
      root: 'gate',
      rootPorts: { ...right.rootPorts, gate: 'gate:2' },
      ends: { ...right.ends, 'gate:2': 'designated' },
    };
    expect([...checkPrediction(solved, of, wrong).wrong].sort()).toEqual(['end gate:2', 'port gate', 'root']);
  });
  test('an end is cut whether it is an alternate or a backup', () => {
    const p = solved.topology.portIndex.get('gate:2')!;
    expect([endAnswer(of, p), endAnswer(of, solved.topology.portIndex.get('gate:1')!)]).toEqual(['blocked', 'root']);
  });
  test('does not ask about a switch that is off', () => {
    const applied = applyEdits(asMeant(), [setField('switch', 'workshop', 'off', true)]);
    if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
    const without = solveDesign(applied.design);
    const marks = checkPrediction(without, without.byId.get('vlan-110')!, NO_ANSWERS);
    expect(marks.open).toBeLessThan(questions());
  });
});
