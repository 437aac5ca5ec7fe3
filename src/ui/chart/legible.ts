/** Which names of a drawing are shown at a scale, each large enough to be read and none over another. */
import { PLATE, boxRound, boxesMeet, plateBox } from './geometry';
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
export function nameBox(at: Point, text: string, scale: number): Box {
  const size = nameSize(scale);
  return boxRound(at, text.length * size * NAME.letter + 4, size * 1.2);
}

/** What tells a switch from its neighbours where the whole name has no room: `…07` of `b01-acc-07`. */
const ending = (name: string): string => `…${name.split(/[-_. ]/).at(-1)}`;

/** Share of a plate that is left where the names beside it reach over its edges. */
const INSIDE = 0.7;
const FEWEST = 3;

/** As much of a name as its plate holds at a scale; nothing where that is too little to tell. */
const beginning =
  (scale: number) =>
  (name: string, width: number): string => {
    const letters = Math.floor((width * INSIDE) / (nameSize(scale) * NAME.letter));
    return letters < FEWEST ? '' : name.length <= letters ? name : `${name.slice(0, letters - 1)}…`;
  };

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
    if (keys.some((k) => this.squares.get(k)?.some((other) => boxesMeet(other, box)))) return false;
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
 * cables. Where a name has no room its end may have some, or its beginning.
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
  for (const textOf of [shortName, ending, beginning(scale)])
    for (const p of sorted) {
      const text = named.has(p.id) ? '' : textOf(p.name, p.width);
      if (text !== '' && squares.take(nameBox(p, text, scale))) named.set(p.id, text);
    }
  return named;
}

/** How much larger tags of hosts may become at most. */
const MOST_GROWN = 1.7;
/** More than this are not compared: they are not read all at once. */
const MOST_SPOTS = 150;
const TAG = { letter: 3.2, pad: 6, half: 9, peg: 9 } as const;
/** A tag this near to the middle line of a plate stands beside it, or below. */
const IN_LINE = 4;
const [BESIDE, BELOW] = [PLATE.width * 2, PLATE.height * 2];

/** From where the tag of a host grows: away from the plate that it stands beside or below. */
export type Growth = 'right' | 'down' | 'round';

export function growthOf({ x, y }: Point, plates: readonly (Point & { readonly width: number })[]): Growth {
  for (const p of plates) {
    const [dx, dy] = [x - p.x, y - p.y];
    if (Math.abs(dy) < IN_LINE && dx > 0 && dx < BESIDE) return 'right';
    if (Math.abs(dx) < IN_LINE && dy > 0 && dy < BELOW) return 'down';
  }
  return 'round';
}

interface Tag extends Point {
  readonly half: number;
  readonly growth: Growth;
}

/** The room of a tag that has become larger. */
function tagBox({ x, y, half, growth }: Tag, by: number): Box {
  const [wide, high] = [half * by, TAG.half * by];
  const middle = {
    x: growth === 'right' ? x - half + wide : x,
    y: growth === 'down' ? y - TAG.half + high : y,
  };
  return boxRound(middle, 2 * wide, 2 * high);
}

/** Sizes that are tried, the largest first. */
const SIZES = [MOST_GROWN, 1.55, 1.4, 1.25, 1.1] as const;

/** How much larger the tags of hosts can become before one lies on another or on a plate; 1 to 1.7. */
export function roomForSpots({ spots, plates }: Pick<Scene, 'spots' | 'plates'>): number {
  if (spots.length > MOST_SPOTS) return MOST_GROWN;
  const tags = spots.map((s): Tag => ({
    ...s,
    half: s.name.length * TAG.letter + TAG.pad,
    growth: growthOf(s, plates),
  }));
  const sheets = plates.map((p) => plateBox(p, TAG.peg));
  const fits = (by: number) => {
    const boxes = tags.map((t) => tagBox(t, by));
    return boxes.every(
      (box, i) => !sheets.some((s) => boxesMeet(s, box)) && !boxes.some((other, j) => j < i && boxesMeet(other, box)),
    );
  };
  return SIZES.find(fits) ?? 1;
}
