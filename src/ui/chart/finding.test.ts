import { campus } from '../../demo/campus';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled } from './arrange';
import { sheetOf } from './folded';
import { PLATE } from './geometry';
import { groupsOf } from './groups';
import { boxOfSwitches, foldUnder } from './finding';

const AREA = { width: 860, height: 640 };
const design = campus({ switches: 102, vlans: 4, outcomes: 2 });
const solved = solveDesign(design);
const NONE: ReadonlySet<never> = new Set();
const scene = (open: ReadonlySet<string> = NONE) =>
  sheetOf({
    solved,
    of: solved.trees[0]!,
    cabled: arrangeAsCabled(design, AREA),
    byDepth: true,
    area: AREA,
    fold: 'groups',
    groups: groupsOf(design),
    keep: NONE,
    open,
    moved: NONE,
  }).scene;

test('a fold is meant where the pointer is on it or right beside it, a switch never', () => {
  const folded = scene();
  const fold = folded.plates.find((p) => p.fold)!;
  expect(foldUnder(folded, fold)).toBe(fold);
  expect(foldUnder(folded, { x: fold.x + fold.width / 2 + 10, y: fold.y })).toBe(fold);
  expect(foldUnder(folded, { x: fold.x, y: fold.y - PLATE.height * 3 })).not.toBe(fold);
  for (const plate of folded.plates.filter((p) => !p.fold)) expect(foldUnder(folded, plate)).toBeUndefined();
});

test('what was in a fold that is opened lies in the box that is flown to', () => {
  const fold = scene().plates.find((p) => p.name === 'b01' && p.fold)!;
  const switches = new Set(fold.fold!.switches);
  const opened = scene(new Set([fold.id.startsWith('group ') ? fold.id : `group ${fold.name}`]));
  const shownBy = (p: (typeof opened.plates)[number]) => (p.fold?.switches ?? [p.id]).filter((id) => switches.has(id));
  const own = opened.plates.filter((p) => shownBy(p).length > 0);
  expect(own.length).toBeGreaterThan(1);
  expect(own.flatMap(shownBy)).toHaveLength(switches.size);
  const box = boxOfSwitches(opened, switches)!;
  for (const { x, y } of own) {
    expect(x).toBeGreaterThan(box.left);
    expect(x).toBeLessThan(box.right);
    expect(y).toBeGreaterThan(box.top);
    expect(y).toBeLessThan(box.bottom);
  }
  expect(boxOfSwitches(opened, new Set(['removed']))).toBeNull();
});
