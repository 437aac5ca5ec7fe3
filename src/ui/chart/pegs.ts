/** Which edge of its plate each wire leaves from, and where on it: sorted by the far end, so that few wires cross. */
import { PEG, PLATE, plateWidth } from './geometry';
import type { Anchor, Point } from './geometry';

export interface AttachmentEnd {
  /** Null for an end that is no plate: a host or a segment. */
  readonly bridge: number | null;
  readonly port: number;
  readonly at: Point;
}

export interface Attachment {
  readonly a: AttachmentEnd;
  readonly b: AttachmentEnd;
}

const EDGES = ['top', 'bottom', 'left', 'right'] as const;
type Edge = (typeof EDGES)[number];
const NOWHERE: Anchor = { x: 0, y: 0, nx: 0, ny: 1 };
const OUT: Record<Edge, { nx: number; ny: number }> = {
  top: { nx: 0, ny: -1 },
  bottom: { nx: 0, ny: 1 },
  left: { nx: -1, ny: 0 },
  right: { nx: 1, ny: 0 },
};

/** Edge that faces the other end: above or below when there is room between the rows, else beside. */
function facing(own: Point, far: Point): Edge {
  const dy = far.y - own.y;
  if (Math.abs(dy) > PLATE.height + 14) return dy < 0 ? 'top' : 'bottom';
  return far.x < own.x ? 'left' : 'right';
}

interface Seat {
  readonly wire: number;
  readonly side: 0 | 1;
  readonly port: number;
  readonly far: Point;
}

/** Anchors of every wire, and how wide each plate has to be for the ports on its edges. */
export function attachPegs(
  plates: readonly Point[],
  wires: readonly Attachment[],
): { anchors: [Anchor, Anchor][]; width: number[]; crowded: boolean[] } {
  const edges = plates.map((): Record<Edge, Seat[]> => ({ top: [], bottom: [], left: [], right: [] }));
  const loops: number[] = [];
  wires.forEach(({ a, b }, wire) => {
    if (a.bridge !== null && a.bridge === b.bridge) return void loops.push(wire);
    const seat = (own: AttachmentEnd, far: AttachmentEnd, side: 0 | 1) => {
      if (own.bridge === null) return;
      edges[own.bridge]![facing(own.at, far.at)].push({ wire, side, port: own.port, far: far.at });
    };
    seat(a, b, 0);
    seat(b, a, 1);
  });
  for (const wire of loops) seatLoop(plates, wire, wires[wire]!, edges[wires[wire]!.a.bridge!]!);

  const width = edges.map(({ top, bottom, left, right }) =>
    plateWidth(top.length + bottom.length + left.length + right.length),
  );
  const crowded = edges.map(
    ({ top, bottom, left, right }, i) =>
      Math.max(top.length, bottom.length) * (PEG.size - 2) > width[i]! ||
      Math.max(left.length, right.length) * (PEG.size - 2) > PLATE.height,
  );
  const anchors = wires.map(({ a, b }): [Anchor, Anchor] => [
    a.bridge === null ? freeEnd(a, b) : NOWHERE,
    b.bridge === null ? freeEnd(b, a) : NOWHERE,
  ]);
  edges.forEach((byEdge, plate) => {
    for (const edge of EDGES) seatAlong(plates[plate]!, edge, byEdge[edge], width[plate]!, anchors);
  });
  return { anchors, width, crowded };
}

/** How far a cable from a switch to itself swings out beside it. */
const SWING = 96;

/** Whether another plate stands where a cable would swing out beside a plate. */
const isCrowded = (plates: readonly Point[], own: number, side: 1 | -1): boolean =>
  plates.some(({ x, y }, i) => {
    const away = (x - plates[own]!.x) * side;
    return i !== own && away > 0 && away < PLATE.width + SWING && Math.abs(y - plates[own]!.y) < PLATE.height * 2;
  });

/** A cable from a switch to itself passes the corner where there is room and the fewest others are, else hangs below. */
function seatLoop(plates: readonly Point[], wire: number, { a, b }: Attachment, own: Record<Edge, Seat[]>): void {
  const free = (['left', 'right'] as const).filter((edge) => !isCrowded(plates, a.bridge!, edge === 'left' ? -1 : 1));
  const beside = free.sort((p, q) => own[p].length - own[q].length || (p === 'right' ? -1 : 1))[0];
  const corner = { x: a.at.x + (beside === 'left' ? -1000 : 1000), y: a.at.y + 1000 };
  own[beside ?? 'bottom'].push({ wire, side: 0, port: a.port, far: corner });
  own.bottom.push({ wire, side: 1, port: b.port, far: corner });
}

/** A host or segment is met at its middle, from the side of the other end. */
function freeEnd(own: AttachmentEnd, far: AttachmentEnd): Anchor {
  const { nx, ny } = OUT[facing(own.at, far.at)];
  return { x: own.at.x, y: own.at.y, nx, ny };
}

/** Spreads the seats of one edge along it and writes their anchors. */
function seatAlong(plate: Point, edge: Edge, seats: readonly Seat[], width: number, anchors: [Anchor, Anchor][]): void {
  if (seats.length === 0) return;
  const level = edge === 'top' || edge === 'bottom';
  const sorted = [...seats].sort((p, q) =>
    level ? p.far.x - q.far.x || p.far.y - q.far.y || p.port - q.port : p.far.y - q.far.y || p.port - q.port,
  );
  const room = (level ? width : PLATE.height) - 8;
  const pitch = Math.min(PEG.size + PEG.gap, room / Math.max(1, sorted.length));
  const { nx, ny } = OUT[edge];
  sorted.forEach(({ wire, side }, i) => {
    const off = (i - (sorted.length - 1) / 2) * pitch;
    const x = level ? plate.x + off : plate.x + (nx * width) / 2;
    const y = level ? plate.y + (ny * PLATE.height) / 2 : plate.y + off;
    anchors[wire]![side] = { x, y, nx, ny };
  });
}
