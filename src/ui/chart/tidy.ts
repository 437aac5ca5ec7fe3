/** Lays a forest out in levels without crossings: every leaf has a slot of its own, leaves alike may wrap into blocks. */
import type { Point } from './geometry';

export interface TidyNode {
  /** Index of the parent; −1 for a top. */
  readonly parent: number;
  /** Levels are rows; equal levels stand at the same height. */
  readonly level: number;
  /** Siblings stand in this order. */
  readonly order: number;
  readonly width: number;
  /** Room beside it, to the right. */
  readonly beside: number;
}

export interface TidyLayout {
  readonly at: Point[];
  /** Height of each level that occurs, top row of it. */
  readonly levelY: ReadonlyMap<number, number>;
  readonly width: number;
  readonly height: number;
}

const SLOT_GAP = 16;
const SUB_ROW = 84;

/**
 * Siblings that stand higher move to the outside, on their own side: the line from the parent down to a lower one then
 * does not pass behind them.
 */
function outward(list: number[], nodes: readonly TidyNode[]): void {
  const side = new Map(list.map((node, i) => [node, i < (list.length - 1) / 2 ? -1 : 1]));
  const key = (node: number) => side.get(node)! * -nodes[node]!.level;
  const [left, right] = [list.filter((n) => side.get(n)! < 0), list.filter((n) => side.get(n)! > 0)];
  left.sort((a, b) => key(a) - key(b));
  right.sort((a, b) => key(a) - key(b));
  list.splice(0, list.length, ...left, ...right);
}

interface Forest {
  readonly nodes: readonly TidyNode[];
  readonly children: readonly (readonly number[])[];
  readonly tops: readonly number[];
}

/** Children of every node, in the order in which they stand. */
function forestOf(nodes: readonly TidyNode[]): Forest {
  const children: number[][] = nodes.map(() => []);
  const tops: number[] = [];
  nodes.forEach(({ parent }, i) => (parent < 0 ? tops : children[parent]!).push(i));
  for (const list of [tops, ...children]) {
    if (list.length < 2) continue;
    list.sort((a, b) => nodes[a]!.order - nodes[b]!.order || a - b);
    outward(list, nodes);
  }
  return { nodes, children, tops };
}

/** Where the nodes of a forest are from left to right, and in which row of a block; leaves wrap after `columns`. */
class Placing {
  readonly x: Float64Array;
  readonly subRow: Int32Array;
  /** Rows of the largest block on each level. */
  readonly subRows = new Map<number, number>();

  constructor(
    private readonly forest: Forest,
    private readonly columns: number,
  ) {
    this.x = new Float64Array(forest.nodes.length);
    this.subRow = new Int32Array(forest.nodes.length);
  }

  /** All trees beside each other; the width of them all. */
  all(): number {
    let width = 0;
    for (const top of this.forest.tops) {
      const size = this.place(top);
      this.shift(top, width);
      width += size;
    }
    return width;
  }

  private shift(node: number, by: number): void {
    this.x[node]! += by;
    for (const child of this.forest.children[node]!) this.shift(child, by);
  }

  /** Lays a subtree out from x = 0 and gives its width; the node stands over the middle of its children. */
  private place(node: number): number {
    const { nodes, children } = this.forest;
    const half = (nodes[node]!.width + SLOT_GAP) / 2;
    let width = 0;
    for (const group of this.blocks(children[node]!)) {
      const [child, ...others] = group;
      if (others.length > 0) width += this.placeBlock(group, width);
      else if (child !== undefined) {
        const size = this.place(child);
        this.shift(child, width);
        width += size;
      }
    }
    const middle = Math.max(half, width / 2);
    if (middle > width / 2) for (const child of children[node]!) this.shift(child, middle - width / 2);
    this.x[node] = middle;
    return Math.max(width, middle + half + nodes[node]!.beside);
  }

  /** Leaves of one parent and level, in the order of their siblings, go into one block when they are many. */
  private blocks(list: readonly number[]): number[][] {
    const { nodes, children } = this.forest;
    const result: number[][] = [];
    const open = new Map<number, number[]>();
    for (const child of list) {
      const level = nodes[child]!.level;
      const block = children[child]!.length === 0 ? open.get(level) : undefined;
      if (block) block.push(child);
      else {
        const fresh = [child];
        result.push(fresh);
        if (children[child]!.length === 0) open.set(level, fresh);
      }
    }
    return result.flatMap((block) => (block.length > this.columns ? [block] : block.map((child) => [child])));
  }

  private placeBlock(block: readonly number[], from: number): number {
    const { nodes } = this.forest;
    const slot = Math.max(...block.map((n) => nodes[n]!.width)) + SLOT_GAP;
    block.forEach((node, i) => {
      this.x[node] = from + (i % this.columns) * slot + slot / 2;
      this.subRow[node] = Math.floor(i / this.columns);
    });
    const level = nodes[block[0]!]!.level;
    this.subRows.set(level, Math.max(this.subRows.get(level) ?? 1, Math.ceil(block.length / this.columns)));
    return this.columns * slot;
  }
}

/** `gap(upper, lower)` is the height between two neighbouring levels; leaves wrap after `columns`. */
function layOut(forest: Forest, gap: (upper: number, lower: number) => number, columns: number): TidyLayout {
  const { nodes } = forest;
  const placing = new Placing(forest, columns);
  const width = placing.all();
  const { x, subRow, subRows } = placing;
  const levels = [...new Set(nodes.map((n) => n.level))].sort((a, b) => a - b);
  const levelY = new Map<number, number>();
  let y = 0;
  levels.forEach((level, i) => {
    if (i > 0) y += ((subRows.get(levels[i - 1]!) ?? 1) - 1) * SUB_ROW + gap(levels[i - 1]!, level);
    levelY.set(level, y);
  });
  const height = y + ((subRows.get(levels.at(-1) ?? 0) ?? 1) - 1) * SUB_ROW;
  const at = nodes.map((n, i) => ({ x: x[i]!, y: levelY.get(n.level)! + subRow[i]! * SUB_ROW }));
  return { at, levelY, width, height };
}

/** Lays out with the wrapping that fills an area of the given shape best; `wrapFrom`: nodes from which leaves wrap. */
export function tidy(
  nodes: readonly TidyNode[],
  gap: (upper: number, lower: number) => number,
  area: { width: number; height: number },
  wrapFrom = 20,
): TidyLayout {
  const scale = (l: TidyLayout) => Math.min(area.width / (l.width + 40), area.height / (l.height + 120));
  const forest = forestOf(nodes);
  const unwrapped = layOut(forest, gap, Infinity);
  if (nodes.length < wrapFrom || scale(unwrapped) > 0.8) return unwrapped;
  return [2, 3, 4, 5, 6, 8, 10, 14]
    .map((columns) => layOut(forest, gap, columns))
    .reduce((best, next) => (scale(next) > scale(best) ? next : best), unwrapped);
}
