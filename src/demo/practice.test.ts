import fc from 'fast-check';
import { readDesign } from '../core/design';
import { NO_ANSWERS, checkPrediction, explainTree, rootsOf, sheetLinks, solveDesign } from '../core/trees';
import { asMeant } from './brackwater';
import { PRACTICE_KINDS, PRACTICE_SIZE, isPractice, practiceNetwork } from './practice';

const exercises = fc.record({
  switches: fc.integer({ min: PRACTICE_SIZE.min, max: PRACTICE_SIZE.max }),
  kind: fc.constantFrom(...PRACTICE_KINDS),
  seed: fc.nat(),
});

test('every exercise is a sound design with one root a tree, all of it connected, with something to block', () => {
  fc.assert(
    fc.property(exercises, (exercise) => {
      const design = practiceNetwork(exercise);
      const read = readDesign(JSON.parse(JSON.stringify(design)));
      expect(read.ok).toBe(true);
      expect(isPractice(design)).toBe(true);
      const solved = solveDesign(design);
      for (const of of solved.trees) {
        expect(rootsOf(of)).toHaveLength(1);
        expect([...of.outcome.root].every((r) => r >= 0)).toBe(true);
        expect(sheetLinks(of).length).toBeGreaterThanOrEqual(exercise.switches);
        expect(checkPrediction(solved, of, NO_ANSWERS).open).toBeGreaterThan(exercise.switches);
        expect(explainTree(solved, of).sentence).not.toBe('');
      }
    }),
  );
});

test('the same number gives the same network, another one another', () => {
  const made = (seed: number) => JSON.stringify(practiceNetwork({ switches: 6, kind: 'port', seed }));
  expect(made(7)).toBe(made(7));
  expect(made(7)).not.toBe(made(8));
});

test('ties are of the kind that is practised', () => {
  const design = practiceNetwork({ switches: 8, kind: 'address', seed: 3 });
  expect(design.switches.every((s) => s.priority === undefined)).toBe(true);
  const speeds = new Set(practiceNetwork({ switches: 10, kind: 'costs', seed: 3 }).ports.map((p) => p.speed));
  expect(speeds.size).toBeGreaterThan(1);
  expect(solveDesign(practiceNetwork({ switches: 5, kind: 'instances', seed: 1 })).trees.length).toBeGreaterThan(1);
});

test('no other design is taken for an exercise', () => {
  expect(isPractice(asMeant())).toBe(false);
  expect(isPractice({ switches: [] })).toBe(false);
});
