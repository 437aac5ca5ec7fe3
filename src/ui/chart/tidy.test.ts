import fc from 'fast-check';
import { tidy } from './tidy';
import type { TidyNode } from './tidy';

const AREA = { width: 800, height: 600 };
const node = (parent: number, level: number, order: number): TidyNode => ({
  parent,
  level,
  order,
  width: 100,
  beside: 0,
});

const forests = fc
  .array(fc.record({ parent: fc.nat(), order: fc.nat({ max: 50 }) }), { minLength: 1, maxLength: 60 })
  .map((list) => {
    const nodes: TidyNode[] = [];
    list.forEach(({ parent, order }, i) => {
      const up = i === 0 ? -1 : parent % i;
      nodes.push(node(up, up < 0 ? 0 : nodes[up]!.level + 1, order));
    });
    return nodes;
  });

test('no two nodes stand on each other', () => {
  fc.assert(
    fc.property(forests, (nodes) => {
      const { at } = tidy(nodes, () => 100, AREA);
      at.forEach((p, i) =>
        at.slice(i + 1).forEach((q) => expect(Math.abs(p.x - q.x) >= 99.9 || Math.abs(p.y - q.y) >= 80).toBe(true)),
      );
    }),
    { numRuns: 300 },
  );
});

test('lower levels stand lower, and everything lies within the given size', () => {
  fc.assert(
    fc.property(forests, (nodes) => {
      const { at, levelY, width, height } = tidy(nodes, () => 100, AREA);
      nodes.forEach(({ parent, level }, i) => {
        if (parent >= 0) expect(at[i]!.y).toBeGreaterThan(levelY.get(level - 1)!);
        expect(at[i]!.x).toBeLessThanOrEqual(width);
        expect(at[i]!.y).toBeLessThanOrEqual(height);
      });
    }),
    { numRuns: 200 },
  );
});

test('a parent stands over the middle of its children, siblings in their order', () => {
  const { at } = tidy([node(-1, 0, 0), node(0, 1, 3), node(0, 1, 1), node(0, 1, 2)], () => 100, AREA);
  expect(at[2]!.x).toBeLessThan(at[3]!.x);
  expect(at[3]!.x).toBeLessThan(at[1]!.x);
  expect(at[0]!.x).toBeCloseTo(at[3]!.x);
});

test('a child that stands higher than its siblings goes to the outside', () => {
  const nodes = [node(-1, 0, 0), node(0, 2, 1), node(0, 1, 2), node(0, 2, 3)];
  const { at } = tidy(nodes, () => 100, AREA);
  expect(at[2]!.x).toBeGreaterThan(at[3]!.x);
});

test('many leaves of one parent wrap into a block that fills the area better', () => {
  const nodes = [node(-1, 0, 0), ...Array.from({ length: 80 }, (_, i) => node(0, 1, i))];
  const { at, width } = tidy(nodes, () => 100, AREA);
  expect(width).toBeLessThan(2500);
  expect(new Set(at.slice(1).map((p) => p.y)).size).toBeGreaterThan(3);
});

test('room beside a node is kept free', () => {
  const nodes = [node(-1, 0, 0), { ...node(0, 1, 1), beside: 200 }, node(0, 1, 2)];
  const { at } = tidy(nodes, () => 100, AREA);
  expect(at[2]!.x - at[1]!.x).toBeGreaterThanOrEqual(300);
});
