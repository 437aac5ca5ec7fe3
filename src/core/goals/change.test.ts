import fc from 'fast-check';
import { asCabled, asMeant } from '../../demo/brackwater';
import { applyEdits, setField } from '../design';
import type { Edit } from '../design';
import { solveDesign } from '../trees';
import { checkGoals } from './check';
import { goalChange, goalChangeWords } from './change';
import type { CheckedGoal, GoalState } from './check';

const checked = (...states: GoalState[]): CheckedGoal[] =>
  states.map((state, i) => ({
    goal: { id: `g${i}`, vlans: 'all', type: 'never-root', tier: 'access' },
    state,
    reason: '',
    trees: [],
  }));
const words = (before: GoalState[], after: GoalState[]) =>
  goalChangeWords(goalChange(checked(...before), checked(...after)));

describe('what became of goals', () => {
  test('goals that are met no more are lost, whether broken or void', () => {
    const change = goalChange(checked('met', 'met', 'met', 'broken'), checked('met', 'broken', 'void', 'void'));
    expect(change.lost.map((c) => c.goal.id)).toEqual(['g1', 'g2']);
    expect(change).toMatchObject({ met: 1, of: 4, mended: 0, stillBroken: 0 });
  });
  test('one that was not there before is neither lost nor mended', () => {
    expect(goalChange([], checked('broken', 'met'))).toMatchObject({ met: 1, lost: [], mended: 0, stillBroken: 0 });
  });
  test.each([
    [['met'], ['met'], 'the goal is met'],
    [['met', 'met'], ['met', 'met'], 'all 2 goals are met'],
    [['met'], ['broken'], 'the goal is not met'],
    [['met', 'broken'], ['broken', 'met'], '1 of 2 goals are met; 1 that was broken before is met'],
    [
      ['broken', 'broken', 'broken'],
      ['met', 'met', 'broken'],
      '2 of 3 goals are met; 2 that were broken before are met; 1 is broken as before',
    ],
    [['broken', 'broken'], ['broken', 'broken'], '0 of 2 goals are met; 2 are broken as before'],
  ] as [GoalState[], GoalState[], string][])('%j then %j', (before, after, said) => {
    expect(words(before, after)).toBe(said);
  });
  test('every goal is counted once, whatever its outcome', () => {
    const state = fc.constantFrom<GoalState>('met', 'broken', 'void');
    fc.assert(
      fc.property(fc.array(fc.tuple(state, state), { maxLength: 12 }), (pairs) => {
        const [before, after] = [pairs.map(([b]) => b), pairs.map(([, a]) => a)];
        const { met, of, lost, mended, stillBroken } = goalChange(checked(...before), checked(...after));
        const kept = pairs.filter(([b, a]) => b === 'met' && a === 'met').length;
        const fromVoid = pairs.filter(([b, a]) => b === 'void' && a === 'met').length;
        expect([of, met]).toEqual([pairs.length, kept + mended + fromVoid]);
        expect(lost.length + kept).toBe(before.filter((b) => b === 'met').length);
        expect(mended + stillBroken).toBeLessThanOrEqual(before.filter((b) => b === 'broken').length);
      }),
    );
  });
});

describe('of the demo', () => {
  const after = (...edits: Edit[]) => {
    const design = asMeant();
    const applied = applyEdits(design, edits);
    if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
    const solved = solveDesign(design);
    return goalChange(checkGoals(solved), checkGoals(solveDesign(applied.design, solved)));
  };
  test('a core switch that goes takes the goals with it that speak of it', () => {
    const change = after(setField('switch', 'core-west', 'off', true));
    expect(change.lost.map((c) => [c.goal.id, c.reason])).toEqual([
      ['roots-east', 'Quay-a comes next in VLANs 110, 120, 130.'],
      ['roots-west', 'Core-west is off in VLANs 140, 150, 160.'],
      ['cameras', 'There is no path in VLAN 130.'],
    ]);
    expect(goalChangeWords(change)).toBe('3 of 6 goals are met');
  });
  test('an uplink that goes breaks none that it does not carry', () => {
    expect(goalChangeWords(after(setField('link', 'quay-a:3--ticket-hall:1', 'down', true)))).toBe(
      'all 6 goals are met',
    );
  });
  test('what was meant mends what was cabled', () => {
    const change = goalChange(checkGoals(solveDesign(asCabled())), checkGoals(solveDesign(asMeant())));
    expect([change.lost, change.stillBroken]).toEqual([[], 0]);
    expect(change.mended).toBe(2);
  });
});
