/** Which names of a drawing are shown at a scale, each large enough to be read and none over another. */
import { PLATE, boxRound, boxesMeet, plateBox, spotBox, wireMiddle } from './geometry';
import { GROWN, labelBox } from './labels';
import type { Box, Point } from './geometry';
import type { PlateItem, Scene, SpotItem, Standing } from './scene-items';

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

type TextOf = (plate: PlateItem) => string;

/** What tells a switch from its neighbours where the whole name has no room: `…07` of `b01-acc-07`. A fold has no such end. */
const ending: TextOf = ({ name, fold }) => (fold ? '' : `…${name.split(/[-_. ]/).at(-1)}`);

/** Share of a plate that is left where the names beside it reach over its edges. */
const INSIDE = 0.7;
const FEWEST = 3;

/** As much of a name as its plate holds at a scale; nothing where that is too little to tell. */
const beginning =
  (scale: number): TextOf =>
  ({ name, width }) => {
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

  /** Whether nothing that was put here meets a box, but for what is its own. */
  isFree(box: Box, own: readonly Box[] = []): boolean {
    return !this.over(box).some((k) =>
      this.squares.get(k)?.some((other) => boxesMeet(other, box) && !own.includes(other)),
    );
  }

  put(box: Box): void {
    for (const k of this.over(box)) {
      const own = this.squares.get(k);
      if (own) own.push(box);
      else this.squares.set(k, [box]);
    }
  }

  /** Takes room where it is free. */
  take(box: Box): boolean {
    const free = this.isFree(box);
    if (free) this.put(box);
    return free;
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
  const whole: TextOf = ({ name }) => shortName(name);
  for (const textOf of [whole, ending, beginning(scale)])
    for (const p of sorted) {
      const text = named.has(p.id) ? '' : textOf(p);
      if (text !== '' && squares.take(nameBox(p, text, scale))) named.set(p.id, text);
    }
  return named;
}

/** How much larger tags of hosts may become, step by step. */
const SIZES = [1.1, 1.25, 1.4, 1.55, 1.7] as const;
/** Room for the ports at the edges of a plate. */
const PORTS = 9;
/** A tag this near to the middle line of a plate stands beside it, or below. */
const IN_LINE = 4;
const [BESIDE, BELOW] = [PLATE.width * 2, PLATE.height * 2];

/** From where the tag of a host grows: away from the plate that it stands beside or below. */
export type Way = 'right' | 'down' | 'round';

export interface Growth {
  readonly way: Way;
  /** How much larger it can become before it lies on another or on a plate; 1 to 1.7. */
  readonly most: number;
}

function wayOf({ x, y }: Point, plates: Scene['plates']): Way {
  for (const p of plates) {
    const [dx, dy] = [x - p.x, y - p.y];
    if (Math.abs(dy) < IN_LINE && dx > 0 && dx < BESIDE) return 'right';
    if (Math.abs(dx) < IN_LINE && dy > 0 && dy < BELOW) return 'down';
  }
  return 'round';
}

/** The room of a tag that has become larger. */
export function grownTag(spot: SpotItem, way: Way, by: number): Box {
  const { left, right, top, bottom } = spotBox(spot);
  const [wide, high] = [((right - left) / 2) * (by - 1), ((bottom - top) / 2) * (by - 1)];
  const away = { x: way === 'right' ? wide : 0, y: way === 'down' ? high : 0 };
  return {
    left: left - wide + away.x,
    right: right + wide + away.x,
    top: top - high + away.y,
    bottom: bottom + high + away.y,
  };
}

/** How the tags of hosts grow as a drawing shrinks: all alike, until one has no more room; that one stays, the others go on. */
export function spotGrowth({
  spots,
  plates,
  wires,
}: Pick<Scene, 'spots' | 'plates' | 'wires'>): ReadonlyMap<string, Growth> {
  const squares = new Squares(PLATE.width);
  for (const p of plates) squares.put(plateBox(p, PORTS));
  for (const { a, b, labelAt, via, label } of wires)
    if (label !== null) squares.put(labelBox(wireMiddle(a, b, labelAt, via), label, GROWN));
  const tags = spots.map((spot) => {
    const way = wayOf(spot, plates);
    return { spot, way, most: 1, grows: true, own: [grownTag(spot, way, 1)] };
  });
  for (const tag of tags) squares.put(tag.own[0]!);
  for (const by of SIZES)
    for (const tag of tags) {
      const box = grownTag(tag.spot, tag.way, by);
      tag.grows &&= squares.isFree(box, tag.own);
      if (!tag.grows) continue;
      tag.most = by;
      tag.own.push(box);
      squares.put(box);
    }
  return new Map(tags.map(({ spot, way, most }) => [spot.id, { way, most }]));
}
