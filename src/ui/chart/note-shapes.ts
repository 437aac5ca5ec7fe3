/** The parts of a note written to its element, and what lies between two places of it. */
import { translate } from './geometry';
import type { Point } from './geometry';
import type { NoteItem } from './scene-items';

/** Length of the strokes at the ends of a dimension line. */
const TICK = 5;

const r = (n: number) => Math.round(n * 10) / 10;

/** Where a note is, as numbers. */
export const numbersOf = ({ x, y, frame, span, lead }: NoteItem): number[] => [
  x,
  y,
  ...(frame ? [frame.left, frame.top, frame.right, frame.bottom] : []),
  ...(span ? [span.a, span.b, span.fromA, span.fromB].flatMap((p) => [p.x, p.y]) : []),
  ...(lead ? [lead.x, lead.y] : []),
];

const mix = (a: readonly number[], b: readonly number[], t: number) => a.map((n, i) => n + (b[i]! - n) * t);

/** A dimension line: strokes at its ends, and thin lines from what it measures. */
function spanPath(a: Point, b: Point, fromA: Point, fromB: Point): string {
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const [nx, ny] = [(-(b.y - a.y) / length) * TICK, ((b.x - a.x) / length) * TICK];
  const tick = (p: Point) => `M${r(p.x - nx)} ${r(p.y - ny)}L${r(p.x + nx)} ${r(p.y + ny)}`;
  const from = (p: Point, q: Point) => (p.x === q.x && p.y === q.y ? '' : `M${r(p.x)} ${r(p.y)}L${r(q.x)} ${r(q.y)}`);
  return `M${r(a.x)} ${r(a.y)}L${r(b.x)} ${r(b.y)}${tick(a)}${tick(b)}${from(fromA, a)}${from(fromB, b)}`;
}

/** Parts of a note, each an element with a class of this name. */
type Part = 'words' | 'frame' | 'span' | 'lead' | 'corner';
export type NoteShape = Partial<Record<Part, Readonly<Record<string, string | number>>>>;

/** Attributes of the parts of a note that is where these numbers say. */
export function noteShape(note: NoteItem, at: readonly number[]): NoteShape {
  const shape: NoteShape = { words: { transform: translate({ x: at[0]!, y: at[1]! }) } };
  let used = 2;
  const next = (): Point => ({ x: at[used++]!, y: at[used++]! });
  let corner: Point | null = null;
  if (note.frame) {
    const [a, b] = [next(), next()];
    shape.frame = { x: r(a.x), y: r(a.y), width: r(b.x - a.x), height: r(b.y - a.y) };
    corner = b;
  }
  if (note.span) {
    const [a, b, fromA, fromB] = [next(), next(), next(), next()];
    shape.span = { d: spanPath(a, b, fromA, fromB) };
    corner = b;
  }
  if (note.lead) {
    const lead = next();
    shape.lead = { d: `M${r(lead.x)} ${r(lead.y)}L${r(at[0]! + 5)} ${r(at[1]! + note.height)}` };
  }
  if (corner) shape.corner = { transform: translate(corner) };
  return shape;
}

/** Writes a note to its element, at numbers between two of its places. */
export function drawNote(element: Element, note: NoteItem, from: readonly number[], t: number): number[] {
  const to = numbersOf(note);
  const at = from.length === to.length ? mix(from, to, t) : to;
  for (const [part, attributes] of Object.entries(noteShape(note, at))) {
    const own = element.querySelector(`:scope > .${part}`);
    for (const [name, value] of Object.entries(attributes)) own?.setAttribute(name, String(value));
  }
  return at;
}
