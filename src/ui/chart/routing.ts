/**
 * Ways of wires round plates that they have nothing to do with. A wire that would run behind a plate passes beside it, straight
 * through the gap of its row, or above or below it where it runs along the row.
 */
import { PLATE, firstAlong } from './geometry';
import type { Anchor, Point } from './geometry';

interface Plate extends Point {
  readonly width: number;
}

interface Wire {
  readonly a: Anchor;
  readonly b: Anchor;
  /** Plates at which it ends, by index; null for a host or a segment. */
  readonly from: number | null;
  readonly to: number | null;
}

/** A line this near to a plate counts as behind it. */
const CLEAR = 5;
/** Distance at which a wire passes a plate: the middle of the gap between two that stand close. */
const BESIDE = 8;
/** How far before and behind a plate a wire is straight. */
const STRAIGHT = 6;
/** Between wires that pass a plate on the same side, where there is room, and how many of them stand apart. */
const APART = 6;
const MOST_ASIDE = 4;
const MOST_DETOURS = 10;
/** Beyond this many wires nothing is routed: names are not read there either, and a drawing has to move. */
const MOST_WIRES = 400;

const halfHeight = PLATE.height / 2;

/** Plates in columns of equal width, so that only those near a point are looked at. */
class Near {
  private static readonly SIZE = 120;
  private readonly columns = new Map<number, number[]>();
  /** Wires that pass each plate on each side, so that they run beside each other. */
  private readonly passing = new Map<string, number>();

  constructor(readonly plates: readonly Plate[]) {
    plates.forEach(({ x, width }, i) => {
      const reach = width / 2 + CLEAR;
      for (let c = Near.column(x - reach); c <= Near.column(x + reach); c++) {
        const column = this.columns.get(c);
        if (column) column.push(i);
        else this.columns.set(c, [i]);
      }
    });
  }

  private static column = (x: number) => Math.floor(x / Near.SIZE);

  /** How many wires pass here already; counts one more. */
  passes(key: string): number {
    const n = this.passing.get(key) ?? 0;
    this.passing.set(key, n + 1);
    return n;
  }

  /** The plate that a point is behind, of those that are not left out. */
  at(x: number, y: number, from: number | null, to: number | null): number | undefined {
    const column = this.columns.get(Near.column(x));
    if (!column) return undefined;
    for (let i = 0; i < column.length; i++) {
      const plate = this.plates[column[i]!]!;
      if (Math.abs(y - plate.y) >= halfHeight + CLEAR || Math.abs(x - plate.x) >= plate.width / 2 + CLEAR) continue;
      if (column[i] !== from && column[i] !== to) return column[i];
    }
    return undefined;
  }
}

/** The nearest free place beside a plate, on one side of it: beyond others that stand close. */
function freeBeside(near: Near, plate: Plate, side: 1 | -1): number {
  let x = plate.x + side * (plate.width / 2 + BESIDE);
  for (let tries = 0; tries < near.plates.length; tries++) {
    const next = near.at(x, plate.y, null, null);
    if (next === undefined) return x;
    x = near.plates[next]!.x + side * (near.plates[next]!.width / 2 + BESIDE);
  }
  return x;
}

/** Two points between which a wire runs straight past a plate: beside it when it goes down or up, else above or below. */
function passing(near: Near, plate: Plate, hit: Point, { a, b }: Wire, other: boolean): [Anchor, Anchor] {
  if (a.ny !== 0 || b.ny !== 0) {
    const down = Math.sign(b.y - a.y) || 1;
    const [left, right] = [freeBeside(near, plate, -1), freeBeside(near, plate, 1)];
    const lefts = Math.abs(left - hit.x) <= Math.abs(right - hit.x) !== other;
    const nearest = lefts ? left : right;
    const aside = nearest + (lefts ? -1 : 1) * APART * (near.passes(`${nearest} ${plate.y}`) % MOST_ASIDE);
    const x = near.at(aside, plate.y, null, null) === undefined ? aside : nearest;
    const reach = down * (halfHeight + STRAIGHT);
    return [-reach, reach].map((dy) => ({ x, y: plate.y + dy, nx: 0, ny: down })) as [Anchor, Anchor];
  }
  const along = Math.sign(b.x - a.x) || 1;
  const y = plate.y + (hit.y <= plate.y !== other ? -1 : 1) * (halfHeight + BESIDE + CLEAR);
  const reach = along * (plate.width / 2 + STRAIGHT);
  return [-reach, reach].map((dx) => ({ x: plate.x + dx, y, nx: along, ny: 0 })) as [Anchor, Anchor];
}

/** The way of one wire; `other`: round the first plate on the side that is farther. Null where it still runs behind one. */
function wayOf(near: Near, wire: Wire, other: boolean): Anchor[] | null {
  const via: Anchor[] = [];
  const passed = new Set<number>();
  const stops = (x: number, y: number) => near.at(x, y, wire.from, wire.to);
  // A leg that is free stays so: what is put in stands behind it.
  for (let leg = 0; leg <= via.length;) {
    const hit = firstAlong(wire.a, wire.b, via, leg, stops);
    if (!hit) leg++;
    else if (passed.has(hit.found) || passed.size === MOST_DETOURS) return null;
    else {
      via.splice(leg, 0, ...passing(near, near.plates[hit.found]!, hit.at, wire, other && passed.size === 0));
      passed.add(hit.found);
    }
  }
  return via;
}

/** Points that each wire passes on its way, in order, with the direction in which it does; none where the way is free. */
export function routed(plates: readonly Plate[], wires: readonly Wire[]): readonly (readonly Anchor[])[] {
  if (wires.length > MOST_WIRES) return wires.map(() => []);
  const near = new Near(plates);
  // A cable from a switch to itself swings round its own corner.
  return wires.map((wire) =>
    wire.from !== null && wire.from === wire.to ? [] : (wayOf(near, wire, false) ?? wayOf(near, wire, true) ?? []),
  );
}
