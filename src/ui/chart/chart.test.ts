import fc from 'fast-check';
import { networks } from '../../../tests/support/networks';
import { asCabled } from '../../demo/brackwater';
import { campus } from '../../demo/campus';
import { applyEdits, setField } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled, arrangeByDepth } from './arrange';
import { PLATE, plateWidth, wirePath } from './geometry';
import { sceneOf } from './scene';

const AREA = { width: 860, height: 640 };

function scene(design = asCabled(), tree = 0, arrangement: 'depth' | 'cabling' = 'depth') {
  const solved = solveDesign(design);
  const of = solved.trees[tree]!;
  const cabled = arrangeAsCabled(design, AREA);
  return sceneOf(solved, of, arrangement === 'depth' ? arrangeByDepth(solved, of, cabled.at, AREA) : cabled);
}

test('in depth, the root is at the top and dearer switches are lower', () => {
  const { plates, ruler } = scene();
  const y = (id: string) => plates.find((p) => p.id === id)!.y;
  expect(ruler.map((m) => m.cost)).toEqual([0, 1000, 2000, 22000, 42000]);
  expect(y('core-east')).toBeLessThan(y('core-west'));
  expect(y('core-west')).toBeLessThan(y('quay-a'));
  expect(y('quay-a')).toBe(y('quay-b'));
  expect(y('workshop')).toBe(ruler.at(-1)!.y);
});

test('no two plates overlap, in any tree of any network', () => {
  const check = (design: Parameters<typeof scene>[0]) => {
    const solved = solveDesign(design!);
    for (const of of solved.trees.slice(0, 3)) {
      const cabled = arrangeAsCabled(design!, AREA);
      for (const arranged of [cabled, arrangeByDepth(solved, of, cabled.at, AREA)]) {
        const { plates } = sceneOf(solved, of, arranged);
        plates.forEach((a, i) =>
          plates.slice(i + 1).forEach((b) => {
            const apart = Math.abs(a.x - b.x) >= (a.width + b.width) / 2 || Math.abs(a.y - b.y) >= PLATE.height;
            if (!apart) throw new Error(`${a.id} and ${b.id} overlap`);
          }),
        );
      }
    }
  };
  fc.assert(
    fc.property(networks, (design) => check(design)),
    { numRuns: 150 },
  );
  const wide = campus({ switches: 120, vlans: 6, outcomes: 6 });
  for (const s of wide.switches) {
    delete s.x;
    delete s.y;
  }
  check(wide);
});

test('a wire is cut at the end that discards, down, half carried, or outside, as its ends say', () => {
  const design = asCabled();
  const state = (tree: number, id: string) => {
    const { state: s, blockedA, blockedB } = scene(design, tree).wires.find((w) => w.id === id)!;
    return [s, blockedA, blockedB];
  };
  expect(state(0, 'quay-a:4--gate:1')).toEqual(['open', false, false]);
  expect(state(0, 'quay-b:4--gate:2')).toEqual(['blocked', false, true]);
  expect(state(2, 'quay-b:4--gate:2')).toEqual(['half', false, true]);
  expect(state(3, 'crane-yard:3--workshop:2')).toEqual(['outside', false, false]);
  const down = applyEdits(design, [setField('link', 'quay-a:4--gate:1', 'down', true)]);
  if (!down.ok) throw new Error('refused');
  expect(scene(down.design).wires.find((w) => w.id === 'quay-a:4--gate:1')!.state).toBe('down');
});

test('a bundle is one wire, labelled with what of it works', () => {
  const labels = scene()
    .wires.filter((w) => w.kind === 'bundle')
    .map((w) => w.label);
  expect(labels).toEqual(['2 × 10G', '1 of 2 × 1G']);
});

test('root and next stand out, and a root by MAC address only is distinguished', () => {
  const standing = (tree: number) => Object.fromEntries(scene(asCabled(), tree).plates.map((p) => [p.id, p.standing]));
  expect(standing(0)).toMatchObject({ 'core-east': 'root', 'core-west': 'next', gate: 'plain' });
  expect(standing(6)).toMatchObject({ workshop: 'mac-only-root', 'quay-a': 'next' });
  expect(standing(3).workshop).toBe('outside');
});

test('every port that is cabled has one peg on the edge of its plate', () => {
  const { plates, pegs } = scene(asCabled(), 0, 'cabling');
  expect(new Set(pegs.map((p) => p.id)).size).toBe(pegs.length);
  for (const peg of pegs) {
    const plate = plates.find((p) => peg.id.startsWith(`${p.id}:`))!;
    const onEdge =
      Math.abs(Math.abs(peg.y - plate.y) - PLATE.height / 2) < 0.01 ||
      Math.abs(Math.abs(peg.x - plate.x) - plate.width / 2) < 0.01;
    expect(onEdge).toBe(true);
  }
});

test('a wire stops short of a cut end', () => {
  const [a, b] = [
    { x: 0, y: 0, nx: 0, ny: 1 },
    { x: 0, y: 200, nx: 0, ny: -1 },
  ];
  const lastY = (d: string) => Number(d.trim().split(/[ ,]/).at(-1));
  expect(lastY(wirePath(a, b, false, true))).toBeLessThan(lastY(wirePath(a, b, false, false)) - 15);
  expect(plateWidth(2)).toBe(PLATE.width);
});
