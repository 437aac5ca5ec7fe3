import * as fc from 'fast-check';
import { asMeant } from '../../demo/brackwater';
import type { Design, Note } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled, arrangeByDepth } from './arrange';
import { layOut, looksOf, placesOf } from './cabling-scene';
import { sceneOf } from './scene';
import { sceneBox } from './finding';
import { KNOT, PLATE } from './geometry';
import { drawNote, numbersOf } from './note-shapes';
import { cornersOf, wrapped } from './notes';

const AREA = { width: 1200, height: 420 };
const demo = asMeant();
const withNotes = (notes: Note[]): Design => ({ ...demo, notes });
const cabled = (design: Design) => layOut(looksOf(design, null), placesOf(design, arrangeAsCabled(design, AREA).at));
const inTree = (design: Design) => {
  const solved = solveDesign(design);
  const of = solved.trees[0]!;
  return sceneOf(solved, of, arrangeByDepth(solved, of, arrangeAsCabled(design, AREA).at, AREA));
};
const note = (more: Partial<Note>): Note => ({ id: 'n', text: 'Two ducts', about: [], ...more });

test('long lines are broken between words, written ones are kept', () => {
  expect(wrapped('the key is with the porter\nring twice', 12)).toEqual([
    'the key is',
    'with the',
    'porter',
    'ring twice',
  ]);
  fc.assert(
    fc.property(fc.array(fc.stringMatching(/^[a-z]{1,12}$/), { minLength: 1 }), (words) => {
      const lines = wrapped(words.join(' '), 20);
      expect(lines.join(' ')).toBe(words.join(' '));
      for (const line of lines) expect(line.length).toBeLessThanOrEqual(20);
    }),
  );
});

test('words that were moved stand as far from their switch wherever it stands', () => {
  const design = withNotes([note({ about: ['gate'], x: 30, y: -5 })]);
  const scene = cabled(design);
  const plate = scene.plates.find((p) => p.id === 'gate')!;
  const [item] = scene.notes;
  expect(item!.x).toBeCloseTo(plate.x - plate.width / 2 + 30);
  expect(item!.y + item!.height).toBeLessThan(plate.y - PLATE.height / 2);
});

test('words find room beside what they are about: they lie on no plate, no host, no blocked end and no other words', () => {
  const notes = demo.switches.map((s) => note({ id: `n ${s.id}`, about: [s.id] }));
  for (const scene of [cabled(withNotes(notes)), inTree(withNotes(notes))]) {
    expect(scene.notes).toHaveLength(notes.length);
    const boxes = [
      ...scene.plates.map((p) => ({ ...p, height: PLATE.height })),
      ...scene.wires.flatMap(({ a, b, blockedA, blockedB }) =>
        [blockedA && a, blockedB && b].flatMap((end) =>
          end ? [{ x: end.x + end.nx * KNOT.away, y: end.y + end.ny * KNOT.away, width: 12, height: 12 }] : [],
        ),
      ),
      ...scene.notes.map((n) => ({ x: n.x + n.width / 2, y: n.y + n.height / 2, width: n.width, height: n.height })),
    ];
    for (const words of scene.notes) {
      const middle = { x: words.x + words.width / 2, y: words.y + words.height / 2 };
      const covered = boxes.filter(
        ({ x, y, width, height }) =>
          Math.abs(x - middle.x) < (width + words.width) / 2 && Math.abs(y - middle.y) < (height + words.height) / 2,
      );
      expect(covered).toHaveLength(1);
    }
  }
});

test('a box holds what it is about, and is part of what is fitted', () => {
  const about = ['gate', 'workshop', 'ticket-hall'];
  const scene = cabled(withNotes([note({ form: 'box', about })]));
  const { frame } = scene.notes[0]!;
  for (const id of about) {
    const plate = scene.plates.find((p) => p.id === id)!;
    expect(frame!.left).toBeLessThan(plate.x - plate.width / 2);
    expect(frame!.bottom).toBeGreaterThan(plate.y + PLATE.height / 2);
  }
  const box = sceneBox(scene);
  for (const { x, y } of cornersOf(scene.notes[0]!)) {
    expect(x).toBeGreaterThanOrEqual(box.left);
    expect(y).toBeLessThanOrEqual(box.bottom);
  }
});

test('a box about cables holds their ends, a bundle in a tree as well', () => {
  const bundle = demo.bundles[0]!;
  const links = demo.links.filter(({ a }) => 'port' in a && bundle.members.includes(a.port)).map((l) => l.id);
  const design = withNotes([note({ form: 'box', about: links })]);
  const solved = solveDesign(design);
  const inCabling = sceneOf(solved, solved.trees[0]!, arrangeAsCabled(design, AREA));
  for (const scene of [cabled(design), inCabling]) {
    const { frame } = scene.notes[0]!;
    const ends = scene.wires.filter((w) => links.includes(w.id) || w.id === bundle.id || w.portA === bundle.id);
    expect(ends.length).toBeGreaterThan(0);
    for (const { a, b } of ends)
      for (const { x, y } of [a, b]) {
        expect(x).toBeGreaterThan(frame!.left);
        expect(x).toBeLessThan(frame!.right);
        expect(y).toBeGreaterThan(frame!.top);
        expect(y).toBeLessThan(frame!.bottom);
      }
  }
});

test('places on the sheet, boxes and distances are drawn only where things stand as cabled', () => {
  const loose = [note({ id: 'a', x: 5, y: 6 }), note({ id: 'b', form: 'box', about: ['gate'] })];
  expect(cabled(withNotes(loose)).notes.map((n) => n.id)).toEqual(['a', 'b']);
  expect(inTree(withNotes(loose)).notes).toEqual([]);
});

test('a distance lies beside what it measures: two switches, or a link', () => {
  const link = demo.links.find((l) => 'port' in l.a && 'port' in l.b)!;
  const scene = cabled(
    withNotes([
      note({ id: 'a', form: 'distance', about: ['gate', 'workshop'] }),
      note({ id: 'b', form: 'distance', about: [link.id] }),
    ]),
  );
  for (const { span } of scene.notes) {
    const length = (p: { x: number; y: number }, q: { x: number; y: number }) => Math.hypot(p.x - q.x, p.y - q.y);
    const along = [span!.b.x - span!.a.x, span!.b.y - span!.a.y] as const;
    const out = [span!.a.x - span!.fromA.x, span!.a.y - span!.fromA.y] as const;
    expect(along[0] * out[0] + along[1] * out[1]).toBeCloseTo(0);
    expect(Math.max(length(span!.a, span!.fromA), length(span!.b, span!.fromB))).toBeCloseTo(26);
  }
});

test('hidden notes, and notes about what is gone, are not drawn', () => {
  const gone = [note({ id: 'a', hidden: true, x: 1, y: 1 }), note({ id: 'b', about: ['attic'] })];
  expect(cabled(withNotes(gone)).notes).toEqual([]);
});

test('half of the way of a note is half way', () => {
  const [from] = cabled(withNotes([note({ form: 'box', x: 0, y: 0, toX: 100, toY: 50 })])).notes;
  const [to] = cabled(withNotes([note({ form: 'box', x: 50, y: 20, toX: 150, toY: 70 })])).notes;
  const element = { querySelector: () => null } as unknown as Element;
  const half = drawNote(element, to!, numbersOf(from!), 0.5);
  expect(half.slice(0, 4)).toEqual([25, 10, 25, 10]);
  expect(drawNote(element, to!, numbersOf(from!), 1)).toEqual(numbersOf(to!));
});
