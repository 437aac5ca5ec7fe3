/** Where the links of a sheet of facts run, and where the costs at their ends stand, so that none lies on another or on a plate. */
import { boxRound, boxesMeet } from '../../chart/geometry';
import type { Box, Point } from '../../chart/geometry';

export const FACT_PLATE = { width: 118, height: 40 };
const TEXT_HEIGHT = 16;
/** Between links that join the same two switches. */
const BESIDE = 16;
/** From the edge of the plate to the first place that is tried, from one to the next, and how many there are. */
const [FIRST, STEP, MOST] = [20, 9, 14] as const;
/** No farther than this share of the way: what is beyond belongs to the other end. */
const LAST = 0.47;

/** Room that a cost takes. */
export const factWidth = (text: string): number => text.length * 7 + 4;

export interface FactLink {
  /** Switches at both ends, and what is written at each. */
  readonly ends: readonly [number, number];
  readonly texts: readonly [string, string];
}

export interface FactLine {
  readonly from: Point;
  readonly to: Point;
  readonly texts: readonly (Point & { readonly text: string })[];
}

/** The way from the middle of a plate to its edge, towards another. */
function edgeOf(from: Point, to: Point, length: number): number {
  const [ux, uy] = [Math.abs(to.x - from.x) / length, Math.abs(to.y - from.y) / length];
  return Math.min(FACT_PLATE.width / 2 / (ux || 1e-6), FACT_PLATE.height / 2 / (uy || 1e-6));
}

/** Lines and places; a text that finds no room stands at its first place. */
export function factLines(links: readonly FactLink[], at: readonly Point[], shown: readonly number[]): FactLine[] {
  const taken: Box[] = shown.map((s) => boxRound(at[s]!, FACT_PLATE.width, FACT_PLATE.height));
  const seen = new Map<string, number>();
  const place = (from: Point, to: Point, text: string): Point & { text: string } => {
    const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const out = edgeOf(from, to, length) + (Math.abs(to.x - from.x) / length) * (factWidth(text) / 2);
    const points = Array.from({ length: MOST }, (_, i) => {
      const share = Math.min(LAST, (out + FIRST + i * STEP) / length);
      return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
    });
    const box = (p: Point) => boxRound(p, factWidth(text), TEXT_HEIGHT);
    const free = points.find((p) => !taken.some((t) => boxesMeet(t, box(p)))) ?? points[0]!;
    taken.push(box(free));
    return { ...free, text };
  };
  return links.map(({ ends, texts }) => {
    const [a, b] = [at[ends[0]]!, at[ends[1]]!];
    const pair = [...ends].sort((x, y) => x - y).join();
    const n = seen.get(pair) ?? 0;
    seen.set(pair, n + 1);
    const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const aside = { x: (-(b.y - a.y) / length) * n * BESIDE, y: ((b.x - a.x) / length) * n * BESIDE };
    const [from, to] = [a, b].map((p) => ({ x: p.x + aside.x, y: p.y + aside.y })) as [Point, Point];
    return { from, to, texts: [place(from, to, texts[0]), place(to, from, texts[1])] };
  });
}
