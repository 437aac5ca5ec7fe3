import fc from 'fast-check';
import { detailAt, EVERYWHERE, FAR, isOutside } from './detail';
import { contains, wireMiddle } from './geometry';
import type { PegItem } from './scene-items';

const size = { width: 800, height: 600 };
const scene = (ports: number) => ({ pegs: Array.from({ length: ports }, () => ({}) as PegItem) });

test('a large design is thinned out earlier', () => {
  expect(detailAt({ k: 0.5, x: 0, y: 0 }, size, scene(5000), null)).toBeNull();
  expect(detailAt({ k: 0.5, x: 0, y: 0 }, size, scene(10), null)).not.toBeNull();
});

test('from afar no port is drawn, in a small design every one', () => {
  expect(detailAt({ k: FAR / 2, x: 0, y: 0 }, size, scene(10), null)).toBeNull();
  expect(detailAt({ k: 1, x: 0, y: 0 }, size, scene(10), null)).toBe(EVERYWHERE);
});

test('in a large design those near what is in sight, and the same ones while it stays in sight', () => {
  const first = detailAt({ k: 1, x: 0, y: 0 }, size, scene(5000), null)!;
  expect(contains(first, { x: 1000, y: 300 })).toBe(true);
  expect(contains(first, { x: 1100, y: 300 })).toBe(false);
  expect(detailAt({ k: 1, x: -200, y: -150 }, size, scene(5000), first)).toBe(first);
  const moved = detailAt({ k: 1, x: -900, y: 0 }, size, scene(5000), first)!;
  expect(contains(moved, { x: 1300, y: 300 })).toBe(true);
});

test('a wire that comes into sight anywhere on its way is never passed over', () => {
  const place = fc.integer({ min: -1500, max: 1500 });
  const side = fc.constantFrom([0, 1], [0, -1], [1, 0], [-1, 0]);
  const anchor = fc.tuple(place, place, side).map(([x, y, [nx, ny]]) => ({ x, y, nx: nx, ny: ny }));
  const wire = fc.record({ a: anchor, b: anchor, via: fc.array(anchor, { maxLength: 3 }) });
  const detail = { left: -400, right: 400, top: -300, bottom: 300 };
  let out = 0;
  fc.assert(
    fc.property(wire, ({ a, b, via }) => {
      if (!isOutside(detail, { a, b, via })) return;
      out++;
      for (let share = 0; share <= 1; share += 0.02) expect(contains(detail, wireMiddle(a, b, share, via))).toBe(false);
    }),
    { numRuns: 2000 },
  );
  expect(out).toBeGreaterThan(100);
  expect(isOutside(EVERYWHERE, { a: { x: 9, y: 9, nx: 0, ny: 1 }, b: { x: 9, y: 99, nx: 0, ny: -1 } })).toBe(false);
});
