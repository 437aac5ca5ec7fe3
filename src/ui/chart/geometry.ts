/** Sizes and shapes of the chart, in drawing units (one is a pixel at scale 1). No React here. */

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Where a wire meets a plate: the middle of the port peg, and which way out of the plate is. */
export interface Anchor extends Point {
  readonly nx: number;
  readonly ny: number;
}

export const PEG = { size: 15, gap: 3 } as const;
export const PLATE = { width: 116, height: 48, widest: 320 } as const;

/** Width of a plate by how many wires end on it; the same in every arrangement, so that a plate keeps its size when it moves. */
export function plateWidth(wires: number): number {
  return Math.min(PLATE.widest, Math.max(PLATE.width, Math.ceil(wires * 0.62) * (PEG.size + PEG.gap) + 12));
}

/** Distance from the peg's middle to the middle of the open knot, and the knot's radius. */
export const KNOT = { away: 25, radius: 6.5 } as const;

const along = (a: Anchor, distance: number): Point => ({ x: a.x + a.nx * distance, y: a.y + a.ny * distance });
const round = (n: number) => Math.round(n * 10) / 10;
const at = ({ x, y }: Point) => `${round(x)} ${round(y)}`;

/** How far a wire goes straight out of its port before it turns: half of the way ahead, or a wide bend when the far end lies behind. */
function pull(from: Anchor, to: Anchor, cut: boolean, tight: boolean): number {
  const ahead = (to.x - from.x) * from.nx + (to.y - from.y) * from.ny;
  const bend = ahead > 0 ? ahead * 0.55 : Math.hypot(to.x - from.x, to.y - from.y) * 0.3;
  // On its way round a plate a wire turns within the gap, however narrow that is.
  if (tight) return Math.min(170, bend);
  // Round the corner of one plate the cable swings out, so that it is seen beside the plate.
  const corner = from.nx * to.nx + from.ny * to.ny === 0 && Math.hypot(to.x - from.x, to.y - from.y) < 130;
  const least = corner ? 84 : cut ? KNOT.away + KNOT.radius + 12 : 26;
  return Math.min(170, Math.max(least, bend));
}

type Leg = readonly [Point, Point, Point, Point];
const NO_WAY: readonly Anchor[] = [];

const back = (p: Anchor): Anchor => ({ ...p, nx: -p.nx, ny: -p.ny });

/** One of the cubic curves of a wire: from the point that it passes before to the next; a cut end stops short, at its knot. */
function legOf(a: Anchor, b: Anchor, cutA: boolean, cutB: boolean, via: readonly Anchor[], i: number): Leg {
  const stop = (cut: boolean) => (cut ? KNOT.away + KNOT.radius : PEG.size / 2);
  const [first, last] = [i === 0, i === via.length];
  const from = first ? a : via[i - 1]!;
  const to = last ? b : back(via[i]!);
  const tight = via.length > 0;
  return [
    first ? along(from, stop(cutA)) : from,
    along(from, pull(from, to, first && cutA, tight)),
    along(to, pull(to, from, last && cutB, tight)),
    last ? along(to, stop(cutB)) : to,
  ];
}

/** A wire as cubic curves: from one anchor to the other, by the points that it passes, each with the direction in which it does. */
const legsOf = (a: Anchor, b: Anchor, cutA: boolean, cutB: boolean, via: readonly Anchor[]): Leg[] =>
  Array.from({ length: via.length + 1 }, (_, i) => legOf(a, b, cutA, cutB, via, i));

/** The path of a wire. */
export function wirePath(
  a: Anchor,
  b: Anchor,
  blockedA: boolean,
  blockedB: boolean,
  via: readonly Anchor[] = NO_WAY,
): string {
  return legsOf(a, b, blockedA, blockedB, via)
    .map(([p0, p1, p2, p3], i) => `${i === 0 ? `M${at(p0)}` : ''}C${at(p1)} ${at(p2)} ${at(p3)}`)
    .join('');
}

function pointOn([p0, p1, p2, p3]: Leg, t: number): Point {
  const u = 1 - t;
  const mix = (k: 'x' | 'y') => u * u * u * p0[k] + 3 * u * u * t * p1[k] + 3 * u * t * t * p2[k] + t * t * t * p3[k];
  return { x: mix('x'), y: mix('y') };
}

/** The point at a share of the whole way, each leg counted by the distance of its ends. */
function pointAlong(legs: readonly Leg[], share: number): Point {
  const lengths = legs.map(([p, , , q]) => Math.hypot(q.x - p.x, q.y - p.y) || 1);
  let left = share * lengths.reduce((sum, l) => sum + l, 0);
  for (let i = 0; i < legs.length; i++) {
    if (left <= lengths[i]! || i === legs.length - 1) return pointOn(legs[i]!, Math.min(1, left / lengths[i]!));
    left -= lengths[i]!;
  }
  return pointOn(legs.at(-1)!, 1);
}

/** Distance of the points that are looked at along a wire. */
const SAMPLE = 12;

/** The first point of a leg at which `stops` gives something, with what it gives. */
export function firstAlong<T>(
  a: Anchor,
  b: Anchor,
  via: readonly Anchor[],
  leg: number,
  stops: (x: number, y: number) => T | undefined,
  step = SAMPLE,
): { readonly at: Point; readonly found: T } | null {
  const [p0, p1, p2, p3] = legOf(a, b, false, false, via, leg);
  const steps = Math.max(2, Math.ceil((Math.abs(p3.x - p0.x) + Math.abs(p3.y - p0.y)) / step));
  for (let n = 0; n <= steps; n++) {
    const t = n / steps;
    const u = 1 - t;
    const [k0, k1, k2, k3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    const x = k0 * p0.x + k1 * p1.x + k2 * p2.x + k3 * p3.x;
    const y = k0 * p0.y + k1 * p1.y + k2 * p2.y + k3 * p3.y;
    const found = stops(x, y);
    if (found !== undefined) return { at: { x, y }, found };
  }
  return null;
}

/** Place on a wire for its label: the middle, or another share of the way. */
export const wireMiddle = (a: Anchor, b: Anchor, share = 0.5, via: readonly Anchor[] = NO_WAY): Point =>
  pointAlong(legsOf(a, b, false, false, via), share);

/** Two strands that twist round each other from one anchor to the other: a bundle. */
export function strandPath(
  a: Anchor,
  b: Anchor,
  blockedA: boolean,
  blockedB: boolean,
  side: 1 | -1,
  via: readonly Anchor[] = NO_WAY,
): string {
  const legs = legsOf(a, b, blockedA, blockedB, via);
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  const turns = Math.max(2, Math.round(length / 46));
  const steps = turns * 8;
  const parts: string[] = [];
  for (let i = 0; i <= steps; i++) {
    const t = i / steps;
    const here = pointAlong(legs, t);
    const next = pointAlong(legs, Math.min(1, t + 0.01));
    const back = pointAlong(legs, Math.max(0, t - 0.01));
    const slope = Math.hypot(next.x - back.x, next.y - back.y) || 1;
    const swing = side * 4.5 * Math.sin(Math.PI * turns * t);
    const shifted = {
      x: here.x - ((next.y - back.y) / slope) * swing,
      y: here.y + ((next.x - back.x) / slope) * swing,
    };
    parts.push(`${i === 0 ? 'M' : 'L'}${at(shifted)}`);
  }
  return parts.join('');
}

/** The open knot before a cut port, drawn round the origin with the port to the right: the line loops once over itself and ends free. */
export const KNOT_PATH = 'M-7.5 2H2.5C9 2 9.5 -8 2.5 -8C-4 -8 -4.5 1 -1.5 7.5';

/** Place and turn of the knot at an anchor. */
export function knotTransform(a: Anchor): string {
  const { x, y } = along(a, KNOT.away);
  const angle = (Math.atan2(-a.ny, -a.nx) * 180) / Math.PI;
  return `translate(${at({ x, y })}) rotate(${round(angle)})`;
}

export const translate = ({ x, y }: Point): string => `translate(${at({ x, y })})`;

export const mixPoint = <T extends Point>(a: T, b: T, t: number): T => ({
  ...b,
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
});

/** Between two anchors; the way out turns with it. */
export function mixAnchor(a: Anchor, b: Anchor, t: number): Anchor {
  const nx = a.nx + (b.nx - a.nx) * t;
  const ny = a.ny + (b.ny - a.ny) * t;
  const length = Math.hypot(nx, ny) || 1;
  return { ...mixPoint(a, b, t), nx: nx / length, ny: ny / length };
}

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The box of points with a margin at the sides, and one above and below. */
export function boxAround(points: readonly Point[], beside: number, above: number): Box {
  const box = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity };
  for (const { x, y } of points) {
    box.left = Math.min(box.left, x);
    box.right = Math.max(box.right, x);
    box.top = Math.min(box.top, y);
    box.bottom = Math.max(box.bottom, y);
  }
  return { left: box.left - beside, right: box.right + beside, top: box.top - above, bottom: box.bottom + above };
}

export const contains = (box: Box, { x, y }: Point): boolean =>
  x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;

/** The box of a size round its middle. */
export const boxRound = ({ x, y }: Point, width: number, height: number): Box => ({
  left: x - width / 2,
  right: x + width / 2,
  top: y - height / 2,
  bottom: y + height / 2,
});

/** The box of a plate, and of some room round it. */
export const plateBox = (plate: Point & { readonly width: number }, room = 0): Box =>
  boxRound(plate, plate.width + 2 * room, PLATE.height + 2 * room);

/** Whether two boxes have a part in common. */
export const boxesMeet = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Height of the tag of a host, and half of the bar of a segment. */
export const TAG_HEIGHT = 18;
export const BAR_HALF = 34;

/** Width of the tag of a host by its name. */
export const tagWidth = (name: string): number => name.length * 6.4 + 12;

/** The room that a host or a segment takes, with its name. */
export const spotBox = (spot: Point & { readonly kind: 'host' | 'segment'; readonly name: string }): Box =>
  boxRound(spot, spot.kind === 'host' ? tagWidth(spot.name) : 2 * BAR_HALF, TAG_HEIGHT);

/** Corners of a box, to be taken into another one. */
export const cornersOfBox = ({ left, right, top, bottom }: Box): readonly Point[] => [
  { x: left, y: top },
  { x: right, y: bottom },
];

/** Height of the label of a wire, and its width by its text. */
export const LABEL_HEIGHT = 18;
export const labelWidth = (label: string): number => label.length * 7.2 + 8;
