import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { campus } from '../../demo/campus';
import { asCabled, asMeant } from '../../demo/brackwater';
import type { Design } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled, arrangeByDepth } from './arrange';
import { PLATE, firstAlong } from './geometry';
import type { Scene } from './scene-items';
import { sceneOf } from './scene';

const AREA = { width: 876, height: 600 };

/** Wires that run behind a plate at which they do not end. */
function behind({ plates, wires }: Scene): string[] {
  return wires.flatMap(({ a, b, via = [], key }) => {
    const ends = plates.filter((p) =>
      [a, b].some((e) => Math.abs(e.x - p.x) <= p.width / 2 + 1 && Math.abs(e.y - p.y) <= PLATE.height / 2 + 1),
    );
    const others = plates.filter((p) => !ends.includes(p));
    const isBehind = (x: number, y: number) =>
      others.find((p) => Math.abs(x - p.x) < p.width / 2 && Math.abs(y - p.y) < PLATE.height / 2);
    const hit = Array.from({ length: via.length + 1 }, (_, leg) => firstAlong(a, b, via, leg, isBehind, 3)).some(
      Boolean,
    );
    return hit ? [key] : [];
  });
}

function scenes(design: Design): Scene[] {
  const solved = solveDesign(design);
  const cabled = arrangeAsCabled(design, AREA);
  return solved.trees.flatMap((of) => [
    sceneOf(solved, of, cabled),
    sceneOf(solved, of, arrangeByDepth(solved, of, cabled.at, AREA)),
  ]);
}

describe('the ways of wires', () => {
  test.each([
    ['the demo as cabled', asCabled()],
    ['the demo as meant', asMeant()],
    ['a campus of 50', campus({ switches: 50, vlans: 4, outcomes: 2 })],
  ])('no wire runs behind a plate: %s', (_, design) => {
    for (const scene of scenes(design)) expect(behind(scene)).toEqual([]);
  });
  test('two plates side by side have room for the cable between them', () => {
    fc.assert(
      fc.property(networks, (design) => {
        const solved = solveDesign(design);
        const of = solved.trees[0]!;
        const { plates, wires } = sceneOf(
          solved,
          of,
          arrangeByDepth(solved, of, arrangeAsCabled(design, AREA).at, AREA),
        );
        for (const { a, b, kind } of wires)
          if (kind === 'link' && a.nx * b.nx === -1 && plates.length > 1)
            expect(Math.abs(a.x - b.x)).toBeGreaterThan(90);
      }),
      { numRuns: 150 },
    );
  });
  test('nor in random networks', () => {
    fc.assert(
      fc.property(networks, (design) => {
        for (const scene of scenes(design)) expect(behind(scene)).toEqual([]);
      }),
      { numRuns: 150 },
    );
  });
});
