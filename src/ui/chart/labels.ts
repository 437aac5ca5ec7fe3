/** Where the labels of wires stand on their way, so that none lies on a plate, a host, a blocked end or another label. */
import { KNOT, LABEL_HEIGHT, boxRound, labelWidth, plateBox, spotBox, wireMiddle } from './geometry';
import type { Anchor, Box, Point } from './geometry';

interface Labelled {
  readonly a: Anchor;
  readonly b: Anchor;
  readonly via: readonly Anchor[];
  readonly label: string | null;
  /** Share of the way at which it stands by itself. */
  readonly usual: number;
  /** It is shown even where there is no room. */
  readonly kept: boolean;
}

type Spot = Parameters<typeof spotBox>[0];

/** Shares of the way that are tried, from the usual one outwards. */
const ASIDE = [0, -0.08, 0.08, -0.16, 0.16, -0.24, 0.24, -0.3, 0.3] as const;
const [FIRST, LAST] = [0.14, 0.86];
/** Room round a label, so that two of them are read apart. */
const APART = 2;
const KNOT_ROOM = 10;
/** Of the ports at the edges of a plate. */
const PORT_ROOM = 8;
/** How much larger a label is where the drawing is small. */
export const GROWN = 1.3;
/** What a label covers only once it has grown counts less than what it covers anyway. */
const LESS = 0.01;
/** Beyond this many wires labels are not read all at once, and a drawing has to move. */
const MOST_WIRES = 400;

/** The room that a label takes, in the middle of which it stands. */
export const labelBox = (at: Point, label: string, grown = 1): Box =>
  boxRound(at, grown * labelWidth(label) + 2 * APART, grown * LABEL_HEIGHT + APART);

const overlap = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));

export interface LabelPlace {
  readonly share: number;
  /** Nothing lies under it. */
  readonly free: boolean;
}

/** The share of its way at which each label covers least; the usual one where it covers nothing. */
export function labelPlaces(
  wires: readonly Labelled[],
  plates: readonly (Point & { readonly width: number })[],
  spots: readonly Spot[],
): readonly LabelPlace[] {
  if (wires.length > MOST_WIRES) return wires.map((w) => ({ share: w.usual, free: true }));
  const taken: Box[] = [...plates.map((p) => plateBox(p, PORT_ROOM)), ...spots.map(spotBox)];
  for (const { a, b, label } of wires)
    if (label !== null)
      for (const { x, y, nx, ny } of [a, b])
        taken.push(boxRound({ x: x + nx * KNOT.away, y: y + ny * KNOT.away }, 2 * KNOT_ROOM, 2 * KNOT_ROOM));
  return wires.map(({ a, b, via, label, usual, kept }) => {
    if (label === null) return { share: usual, free: true };
    const { share, room, free } = bestPlace(taken, usual, (at) => [wireMiddle(a, b, at, via), label]);
    if (free || kept) taken.push(room);
    return { share, free };
  });
}

/** The place at which least is covered, of those that are tried: first by the label as it is, then as it grows. */
function bestPlace(taken: readonly Box[], usual: number, labelAt: (share: number) => readonly [Point, string]) {
  const covers = (box: Box) => taken.reduce((sum, t) => sum + overlap(t, box), 0);
  let best = { share: usual, room: labelBox(...labelAt(usual)), free: false };
  let least = Infinity;
  for (const aside of ASIDE) {
    const share = Math.min(LAST, Math.max(FIRST, usual + aside));
    const [at, label] = labelAt(share);
    const room = labelBox(at, label);
    const covered = covers(room);
    if (covered >= least) continue;
    const sum = covered + LESS * covers(labelBox(at, label, GROWN));
    if (sum < least - 1e-6) [best, least] = [{ share, room, free: covered === 0 }, sum];
    if (sum === 0) break;
  }
  return best;
}
