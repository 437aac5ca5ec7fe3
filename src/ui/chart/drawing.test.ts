import { asCabled } from '../../demo/brackwater';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled, arrangeByDepth } from './arrange';
import { Drawing } from './drawing';
import { translate } from './geometry';
import type { Scene } from './scene-items';
import { sceneOf } from './scene';

/** What the drawing writes to an element. */
class Written {
  readonly values = new Map<string, string>();
  setAttribute(name: string, value: string): void {
    this.values.set(name, value);
  }
  querySelector(): null {
    return null;
  }
}
const element = () => new Written() as unknown as Element & Written;

/** Frames of a motion, asked for one by one. */
let waiting: ((now: number) => void)[] = [];
function frame(milliseconds: number): void {
  const due = waiting;
  waiting = [];
  for (const draw of due) draw(performance.now() + milliseconds);
}

beforeEach(() => {
  waiting = [];
  Object.assign(globalThis, {
    window: { matchMedia: () => ({ matches: false }) },
    requestAnimationFrame: (draw: (now: number) => void) => waiting.push(draw),
    cancelAnimationFrame: () => (waiting = []),
  });
});

const AREA = { width: 860, height: 640 };
const solved = solveDesign(asCabled());
const [of] = solved.trees;
const cabled = arrangeAsCabled(asCabled(), AREA);
const scenes = {
  depth: sceneOf(solved, of!, arrangeByDepth(solved, of!, cabled.at, AREA)),
  cabling: sceneOf(solved, of!, cabled),
};

test.each(['before', 'during', 'after'] as const)(
  'a name that comes %s a motion stands where its plate comes to',
  (when) => {
    const drawing = new Drawing();
    const plates = new Map(scenes.depth.plates.map((p) => [p.id, element()]));
    const names = new Map(scenes.depth.plates.map((p) => [p.id, element()]));
    const comes = () => names.forEach((e, id) => drawing.register(`name ${id}`, e));
    plates.forEach((e, id) => drawing.register(`switch ${id}`, e));
    if (when === 'before') comes();
    drawing.show(scenes.depth, false);
    drawing.show(scenes.cabling, true);
    frame(100);
    if (when === 'during') comes();
    frame(200);
    frame(2000);
    if (when === 'after') comes();
    expect(waiting).toEqual([]);
    const stands = (scene: Scene, of: ReadonlyMap<string, Written>) =>
      scene.plates.filter((p) => of.get(p.id)!.values.get('transform') === translate(p)).length;
    expect(stands(scenes.cabling, plates)).toBe(plates.size);
    expect(stands(scenes.cabling, names)).toBe(plates.size);
  },
);
