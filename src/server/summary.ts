/** What the list of designs shows of a document: counts, and a drawing small enough to send many of. */
import type { Summary } from '../api/contract';
import type { Design } from '../core/design';
import { farEnd, portById } from '../core/design';
import { treesOf } from '../core/network';

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

/** Not more than can be distinguished in so small a drawing, spread over all of them. */
const thinned = (pairs: readonly string[]) => pairs.filter((_, i) => i % Math.ceil(pairs.length / MOST_LINES) === 0);

/** Summary of a document. */
export function summarise(design: Design): Summary {
  const raw = places(design);
  const bounds = (axis: 0 | 1) => [
    raw.reduce((least, place) => Math.min(least, place[axis]), Infinity),
    raw.reduce((most, place) => Math.max(most, place[axis]), -Infinity),
  ];
  const [[left, right], [top, bottom]] = [bounds(0), bounds(1)] as [[number, number], [number, number]];
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

/** What the list shows of a document that cannot be read. */
export const NO_SUMMARY: Summary = { switches: 0, links: 0, trees: 0, dots: [], lines: [] };
