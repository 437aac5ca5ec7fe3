/** Which names of a drawing are shown at a scale, each large enough to be read and none over another. */
import { PLATE } from './geometry';
import type { Box, Point } from './geometry';
import type { PlateItem, Scene, Standing } from './scene-items';

/** Pixels below which text is not read. */
export const LEAST_TEXT = 11;
/** Names of plates where they stand alone, in units of the drawing. */
const NAME = { size: 18, letter: 0.56, most: 16 } as const;
const WEIGHT: Partial<Record<Standing, number>> = { root: 3, 'mac-only-root': 3, next: 2 };

/** Size of the name of a plate at a scale, in units of the drawing. */
export const nameSize = (scale: number): number => Math.max(NAME.size, LEAST_TEXT / scale);

/** How a name is cut off. */
export const shortName = (name: string): string =>
  name.length > NAME.most ? `${name.slice(0, NAME.most - 1)}…` : name;

/** The room of a text in the middle of a plate at a scale. */
export function nameBox({ x, y }: Point, text: string, scale: number): Box {
  const size = nameSize(scale);
  const half = (text.length * size * NAME.letter) / 2 + 2;
  return { left: x - half, right: x + half, top: y - size * 0.6, bottom: y + size * 0.6 };
}

/** What tells a switch from its neighbours where the whole name has no room: `…07` of `b01-acc-07`. */
const ending = (name: string): string => `…${name.split(/[-_. ]/).at(-1)}`;

const meet = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Boxes in squares of the sheet, so that only those near by are looked at. */
class Squares {
  private readonly squares = new Map<string, Box[]>();
  constructor(private readonly size: number) {}

  private over({ left, right, top, bottom }: Box): string[] {
    const keys: string[] = [];
    for (let c = Math.floor(left / this.size); c <= Math.floor(right / this.size); c++)
      for (let r = Math.floor(top / this.size); r <= Math.floor(bottom / this.size); r++) keys.push(`${c} ${r}`);
    return keys;
  }

  /** Takes room where it is free. */
  take(box: Box): boolean {
    const keys = this.over(box);
    if (keys.some((k) => this.squares.get(k)?.some((other) => meet(other, box)))) return false;
    for (const k of keys) {
      const own = this.squares.get(k);
      if (own) own.push(box);
      else this.squares.set(k, [box]);
    }
    return true;
  }
}

/**
 * The names that are shown at a scale, by plate: what is selected first, then roots, folds, and the switches with the most
 * cables. Where a name has no room its end may have some.
 */
export function namedPlates(
  { plates }: Pick<Scene, 'plates'>,
  scale: number,
  isSelected: (id: string) => boolean,
): ReadonlyMap<string, string> {
  const weight = (p: PlateItem) =>
    (isSelected(p.id) ? 1000 : 0) +
    100 * (WEIGHT[p.standing] ?? 0) +
    (p.alarms || p.unlike ? 60 : 0) +
    (p.fold ? 50 : 0) +
    p.width / PLATE.width;
  const squares = new Squares(nameSize(scale) * 10);
  const named = new Map<string, string>();
  const sorted = [...plates].sort((a, b) => weight(b) - weight(a));
  for (const text of [shortName, ending])
    for (const p of sorted)
      if (!named.has(p.id) && squares.take(nameBox(p, text(p.name), scale))) named.set(p.id, text(p.name));
  return named;
}

/** How much larger tags of hosts may become at most. */
const MOST_GROWN = 1.7;
/** More than this are not compared: they are not read all at once. */
const MOST_SPOTS = 150;
const TAG = { letter: 3.2, pad: 6, half: 9, peg: 9 } as const;

/** How much larger the tags of hosts can become before one lies on another or on a plate; 1 to 1.7. */
export function roomForSpots({ spots, plates }: Pick<Scene, 'spots' | 'plates'>): number {
  if (spots.length > MOST_SPOTS) return MOST_GROWN;
  const halfOf = (name: string) => name.length * TAG.letter + TAG.pad;
  let most: number = MOST_GROWN;
  spots.forEach((s, i) => {
    const own = halfOf(s.name);
    for (const o of spots.slice(i + 1)) {
      const [wide, high] = [Math.abs(s.x - o.x) / (own + halfOf(o.name)), Math.abs(s.y - o.y) / (2 * TAG.half)];
      most = Math.min(most, Math.max(wide, high));
    }
    for (const p of plates) {
      const wide = (Math.abs(s.x - p.x) - p.width / 2 - TAG.peg) / own;
      const high = (Math.abs(s.y - p.y) - PLATE.height / 2 - TAG.peg) / TAG.half;
      most = Math.min(most, Math.max(wide, high));
    }
  });
  return Math.max(1, most);
}
