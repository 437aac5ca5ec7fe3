/** Room for the words of a note: of the places round a thing the one at which they cover least. */
import { KNOT, boxRound, boxesMeet, plateBox, spotBox, wireMiddle } from './geometry';
import type { Box, Point } from './geometry';
import { labelBox } from './labels';
import type { Scene, WireItem } from './scene-items';

/** What notes are placed by. */
export type Placed = Pick<Scene, 'spots'> & {
  readonly plates: readonly (Point & {
    readonly id: string;
    readonly width: number;
    readonly fold?: { readonly switches: readonly string[] };
  })[];
  readonly wires: readonly Pick<WireItem, 'id' | 'portA' | 'portB' | 'a' | 'b' | 'via' | 'label' | 'labelAt'>[];
};

/** What it costs to cover something: a plate is worse than the cable behind. */
const COVERS = { plate: 1000, note: 800, spot: 300, knot: 200, label: 160, wire: 6 } as const;
/** A blocked end and its port number lie within this of a port. */
const KNOT_REACH = 13;
/** Words grow where the whole drawing is small. */
export const GROWN = 1.35;
/** Shares of a wire at which it is looked at. */
const SAMPLES = [0.12, 0.24, 0.36, 0.48, 0.6, 0.72, 0.84];

interface Obstacle {
  readonly box: Box;
  readonly cost: number;
}

const obstacle = (at: Point, width: number, height: number, cost: number): Obstacle => ({
  box: boxRound(at, width, height),
  cost,
});

export type Room = ReturnType<typeof roomIn>;

/** What stands in a drawing, to find room beside. */
export function roomIn({ plates, spots, wires }: Placed) {
  const taken: Obstacle[] = [
    ...plates.map((p): Obstacle => ({ box: plateBox(p), cost: COVERS.plate })),
    ...spots.map((s): Obstacle => ({ box: spotBox(s), cost: COVERS.spot })),
    ...wires.flatMap(({ a, b, via, label, labelAt }) => [
      ...[a, b].map(({ x, y, nx, ny }) =>
        obstacle({ x: x + nx * KNOT.away, y: y + ny * KNOT.away }, 2 * KNOT_REACH, 2 * KNOT_REACH, COVERS.knot),
      ),
      ...(label ? [{ box: labelBox(wireMiddle(a, b, labelAt, via), label), cost: COVERS.label }] : []),
      ...SAMPLES.map((share) => obstacle(wireMiddle(a, b, share, via), 2, 2, COVERS.wire)),
    ]),
  ];
  const cost = (box: Box) => taken.reduce((sum, o) => (boxesMeet(o.box, box) ? sum + o.cost : sum), 0);
  return {
    /** Takes the room of a note that has its place. */
    take: (box: Box) => void taken.push({ box, cost: COVERS.note }),
    /** The first of the places at which the least is covered. */
    best(places: readonly Point[], width: number, height: number): Point {
      const boxAt = ({ x, y }: Point): Box => ({
        left: x,
        right: x + width * GROWN,
        top: y + height * (1 - GROWN),
        bottom: y + height,
      });
      let [best, least] = [places[0]!, Infinity];
      for (const place of places) {
        const own = cost(boxAt(place));
        if (own < least) [best, least] = [place, own];
      }
      return best;
    },
  };
}

/** Places for words of a size round a box, the usual one first. */
export function placesRound({ left, right, top, bottom }: Box, width: number, height: number): readonly Point[] {
  const middle = (top + bottom - height) / 2;
  const rows = [top - height - 20, bottom + 20, top - height - 48, bottom + 46];
  return [
    ...rows.flatMap((y) => [
      { x: left, y },
      { x: right - width, y },
      { x: (left + right - width) / 2, y },
    ]),
    { x: right + 10, y: middle },
    { x: left - width - 10, y: middle },
    { x: right + 10, y: top - height },
    { x: left - width - 10, y: top - height },
    { x: right + 10, y: bottom },
    { x: left - width - 10, y: bottom },
  ];
}

/** Places for words beside a point of a wire. */
export const placesBeside = ({ x, y }: Point, width: number, height: number): readonly Point[] => [
  { x: x + 14, y: y + 12 },
  { x: x - width - 14, y: y + 12 },
  { x: x + 14, y: y - height - 12 },
  { x: x - width - 14, y: y - height - 12 },
  { x: x + 34, y: y - height / 2 },
  { x: x - width - 34, y: y - height / 2 },
];
