/** Where a thing that is dragged comes to stand: in line with another, else on the grid. */
import type { Point } from '../chart/geometry';

const GRID = 10;

/** Within this distance, in drawing units, a thing snaps into line. */
const REACH = 8;

/** The nearest value of the others along an axis within reach. */
function inLine(wanted: number, others: readonly Point[], axis: 'x' | 'y'): number | null {
  let best: number | null = null;
  for (const other of others) {
    const away = Math.abs(other[axis] - wanted);
    if (away <= REACH && (best === null || away < Math.abs(best - wanted))) best = other[axis];
  }
  return best;
}

/** The place, and the path of the lines that show what it is in line with. */
export function snapped(wanted: Point, others: readonly Point[]): { point: Point; guides: string } {
  const [x, y] = [inLine(wanted.x, others, 'x'), inLine(wanted.y, others, 'y')];
  const grid = (n: number) => Math.round(n / GRID) * GRID;
  const point = { x: x ?? grid(wanted.x), y: y ?? grid(wanted.y) };
  const along = (axis: 'x' | 'y', at: number) => {
    const across = axis === 'x' ? 'y' : 'x';
    const span = [...others.filter((o) => o[axis] === at).map((o) => o[across]), point[across]];
    const [from, to] = [Math.min(...span), Math.max(...span)];
    return axis === 'x' ? `M${at} ${from}V${to}` : `M${from} ${at}H${to}`;
  };
  return { point, guides: `${x === null ? '' : along('x', x)}${y === null ? '' : along('y', y)}` };
}
