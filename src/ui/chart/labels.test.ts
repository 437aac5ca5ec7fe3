import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { asCabled, asMeant } from '../../demo/brackwater';
import type { Design } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled, arrangeByDepth } from './arrange';
import { layOut, looksOf, placesOf } from './cabling-scene';
import { KNOT, LABEL_HEIGHT, PEG, boxRound, boxesMeet, labelWidth, plateBox, spotBox, wireMiddle } from './geometry';
import { labelBox } from './labels';
import type { Box } from './geometry';
import { LEAST_TEXT, grownTag, nameBox, nameSize, namedPlates, spotGrowth } from './legible';
import { sceneOf } from './scene';
import type { Scene } from './scene-items';

const AREA = { width: 860, height: 640 };

function scenes(design: Design): Scene[] {
  const solved = solveDesign(design);
  const { at } = arrangeAsCabled(design, AREA);
  const cabled = arrangeAsCabled(design, AREA);
  const trees = solved.trees.slice(0, 2).map((of) => sceneOf(solved, of, arrangeByDepth(solved, of, cabled.at, AREA)));
  return [layOut(looksOf(design, null), placesOf(design, at)), ...trees];
}

/** Labels of a scene, and how many of them lie on a plate, a host or another label. */
function labels({ wires, plates, spots }: Scene) {
  const boxes = wires.flatMap((w) =>
    w.label === null ? [] : [{ ...labelBox(wireMiddle(w.a, w.b, w.labelAt, w.via), w.label), alarm: w.alarm === true }],
  );
  const sheets = [...plates.map((p) => plateBox(p)), ...spots.map(spotBox)];
  const covers = (b: (typeof boxes)[number], i: number) =>
    sheets.some((s) => boxesMeet(s, b)) || boxes.some((o, j) => j < i && boxesMeet(o, b));
  const bare = wires.filter((w) => w.kind === 'link' && w.label === null).length;
  return { all: boxes.length, bare, covered: boxes.filter((b, i) => !b.alarm && covers(b, i)).length };
}

test('every link of the demo has its rate, and no label lies on a plate or on another label', () => {
  for (const scene of scenes(asMeant())) {
    expect(labels(scene).covered).toBe(0);
    if (scene.ruler.length === 0) expect(labels(scene).bare).toBe(0);
  }
});

test('labels of bundles stand clear of ports and knots, also where the drawing is small and they are larger', () => {
  const GROWN = 1.3;
  const solved = solveDesign(asCabled());
  const { at } = arrangeAsCabled(asCabled(), AREA);
  for (const of of solved.trees) {
    const { wires, pegs } = sceneOf(solved, of, arrangeByDepth(solved, of, at, AREA));
    const pegBoxes = pegs.map((p) => boxRound(p, PEG.size, PEG.size));
    const knots = wires.flatMap((w) => [...(w.blockedA ? [w.a] : []), ...(w.blockedB ? [w.b] : [])]);
    const knotBoxes = knots.map((k) => boxRound({ x: k.x + k.nx * KNOT.away, y: k.y + k.ny * KNOT.away }, 16, 16));
    for (const w of wires) {
      if (w.kind !== 'bundle' || w.label === null) continue;
      const middle = wireMiddle(w.a, w.b, w.labelAt, w.via);
      const box = boxRound(middle, labelWidth(w.label) * GROWN, LABEL_HEIGHT * GROWN);
      const under = [...pegBoxes, ...knotBoxes].filter((b) => boxesMeet(b, box)).length;
      expect([of.tree.id, w.id, under]).toEqual([of.tree.id, w.id, 0]);
    }
  }
});

test('no label of a random cabling lies on a plate or on another; most cables have theirs', () => {
  const sum = { all: 0, bare: 0 };
  fc.assert(
    fc.property(networks, (design) => {
      const own = labels(scenes(design)[0]!);
      expect(own.covered).toBe(0);
      sum.all += own.all;
      sum.bare += own.bare;
    }),
    { numRuns: 100, seed: 7 },
  );
  expect(sum.bare / (sum.all + sum.bare)).toBeLessThan(0.35);
});

test('names are read at every scale, none lies on another, and what is selected has its own', () => {
  fc.assert(
    fc.property(networks, fc.double({ min: 0.08, max: 1, noNaN: true }), fc.nat(), (design, scale, n) => {
      expect(nameSize(scale) * scale).toBeGreaterThanOrEqual(LEAST_TEXT - 1e-9);
      for (const scene of scenes(design)) {
        const chosen = scene.plates[n % scene.plates.length]!.id;
        const named = namedPlates(scene, scale, (id) => id === chosen);
        expect(named.has(chosen)).toBe(true);
        const boxes = scene.plates.flatMap((p) => {
          const text = named.get(p.id);
          return text ? [nameBox(p, text, scale)] : [];
        });
        boxes.forEach((a, i) => expect(boxes.slice(i + 1).some((b) => boxesMeet(a, b))).toBe(false));
      }
    }),
    { numRuns: 60 },
  );
});

test('tags of hosts grow away from their plates, and not onto another tag or a plate', () => {
  const plates = [{ x: 0, y: 0, width: 116 }] as unknown as Scene['plates'];
  const host = (name: string, x: number, y: number) => ({ id: name, kind: 'host' as const, name, x, y });
  const beside = host('server', 58 + 9 + 26, 0);
  const growth = (...spots: Scene['spots'][number][]) => spotGrowth({ plates, spots, wires: [] });
  const most = (...spots: Scene['spots'][number][]) => [...growth(...spots).values()].map((g) => g.most);
  const ways = [...growth(beside, host('below', 0, 60), host('away', -400, 90)).values()].map((g) => g.way);
  expect(ways).toEqual(['right', 'down', 'round']);
  expect(most(beside)).toEqual([1.7]);
  expect(most(host('desk', 0, 20))).toEqual([1]);
  // One that has another in its way stays small; those that have none grow.
  const [server, ...others] = most(beside, host('desk', 140, 0), host('away', -400, 90));
  expect(server).toBeLessThan(1.4);
  expect(others).toEqual([1.7, 1.7]);
});

test('no tag of a random network lies on another, on a plate or on a label once it has grown', () => {
  const size = ({ left, right, top, bottom }: Box) => (right - left) * (bottom - top);
  fc.assert(
    fc.property(networks, (design) => {
      for (const { spots, plates, wires } of scenes(design)) {
        const growth = spotGrowth({ spots, plates, wires });
        const rates = wires.flatMap((w) =>
          w.label === null ? [] : [labelBox(wireMiddle(w.a, w.b, w.labelAt, w.via), w.label)],
        );
        const boxes = spots.map((s) => grownTag(s, growth.get(s.id)!.way, growth.get(s.id)!.most));
        boxes.forEach((box, i) => {
          if (growth.get(spots[i]!.id)!.most === 1) return;
          expect(size(box)).toBeGreaterThan(size(spotBox(spots[i]!)));
          expect(boxes.some((other, j) => j !== i && boxesMeet(box, other))).toBe(false);
          expect(plates.some((p) => boxesMeet(plateBox(p), box))).toBe(false);
          expect(rates.some((r) => boxesMeet(r, box))).toBe(false);
        });
      }
    }),
    { numRuns: 60 },
  );
});

test('where names have no room a switch is reported by its end; a fold never by its count', () => {
  const plate = (name: string, x: number, fold?: string[]) =>
    ({ id: name, name, x, y: 0, width: 60, standing: 'plain', ...(fold ? { fold: { switches: fold } } : {}) }) as never;
  const plates = [plate('b01-acc-01', 0), plate('b01-acc-02', 80), plate('b01-acc × 22', 200, ['a', 'b'])];
  const named = namedPlates({ plates }, 0.6, () => false);
  expect(named.get('b01-acc × 22')).toBe('b01-acc × 22');
  expect([named.get('b01-acc-01'), named.get('b01-acc-02')].sort()).toEqual(['b01-acc-01', '…02']);
  expect(namedPlates({ plates }, 0.6, (id) => id === 'b01-acc-02').get('b01-acc × 22')).not.toBe('…22');
});
