import { detailAt, EVERYWHERE, FAR } from './detail';
import { contains } from './geometry';
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
