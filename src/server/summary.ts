/** What the list of designs shows of a document: counts, and a drawing small enough to send many of. */
import type { Design } from '../core/design';
import { farEnd, portById } from '../core/design';
import { treesOf } from '../core/trees';

export interface Summary {
  switches: number;
  links: number;
  trees: number;
  /** Switch places, scaled to 0 … 100 across and 0 … 60 down; empty when nothing has a place. */
  dots: [x: number, y: number][];
  /** Pairs of indices into `dots`. */
  lines: [from: number, to: number][];
}

const WIDTH = 100;
const HEIGHT = 60;
const MOST_LINES = 400;

/** Switches without a place are put in rows by tier. */
function places(design: Design): [number, number][] {
  const rows = { core: 0, distribution: 1, access: 2 } as const;
  const filled = [0, 0, 0];
  return design.switches.map((s) => {
    if (s.x !== undefined && s.y !== undefined) return [s.x, s.y];
    const row = rows[s.tier ?? 'access'];
    return [filled[row]!++ * 100, row * 120];
  });
}

/** Not more than can be told apart in so small a drawing, spread over all of them. */
const thinned = (pairs: readonly string[]) => pairs.filter((_, i) => i % Math.ceil(pairs.length / MOST_LINES) === 0);

/** Summary of a document. */
export function summarise(design: Design): Summary {
  const raw = places(design);
  const [xs, ys] = [raw.map(([x]) => x), raw.map(([, y]) => y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [right, bottom] = [Math.max(...xs), Math.max(...ys)];
  /** A single row or column stands in the middle. */
  const along = (value: number, least: number, most: number, size: number) =>
    Math.round((most === least ? 0.5 : (value - least) / (most - least)) * size);
  const dots = raw.map(([x, y]): [number, number] => [along(x, left, right, WIDTH), along(y, top, bottom, HEIGHT)]);
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const pairs = new Set<string>();
  for (const link of design.links) {
    if (!('port' in link.a)) continue;
    const far = farEnd(link, link.a.port);
    if (!('port' in far)) continue;
    const [a, b] = [portById(design, link.a.port), portById(design, far.port)];
    if (a && b) pairs.add(`${index.get(a.switch)} ${index.get(b.switch)}`);
  }
  return {
    switches: design.switches.length,
    links: design.links.length,
    trees: treesOf(design).length,
    dots,
    lines: thinned([...pairs]).map((p) => p.split(' ').map(Number) as [number, number]),
  };
}
