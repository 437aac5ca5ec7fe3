/** Where notes stand in a drawing: beside what they are about, or at their places on the sheet. */
import { bundleAt, linkById } from '../../core/design';
import type { Design, Note } from '../../core/design';
import { boxAround, boxRound, cornersOfBox, plateBox, spotBox, wireMiddle } from './geometry';
import { GROWN, placesBeside, placesRound, roomIn } from './note-places';
import type { Placed, Room } from './note-places';
import type { Box, Point } from './geometry';
import type { NoteItem } from './scene-items';

const WORDS = { line: 15, letter: 6.3, most: 34, pad: 5 } as const;
const FRAME = { beside: 16, above: 20 } as const;
/** How far a dimension line stands from what it measures. */
const SPAN_AWAY = 26;
/** Words that stand farther than this from what they are about have a line to it. */
const NEAR = 32;

/** Lines as written, the long ones broken between words. */
export function wrapped(text: string, most: number = WORDS.most): string[] {
  return text.split('\n').flatMap((written) => {
    const lines = [''];
    for (const word of written.split(' ')) {
      const line = lines.at(-1)!;
      if (line !== '' && line.length + 1 + word.length > most) lines.push(word);
      else lines[lines.length - 1] = line === '' ? word : `${line} ${word}`;
    }
    return lines;
  });
}

const dot = (p: Point): Box => boxRound(p, 0, 0);

/** Finds the box of a thing, or the ends of a link, in a drawing. */
function finder(design: Design, { plates, spots, wires }: Placed) {
  const boxes = new Map<string, Box>();
  for (const p of plates) for (const id of p.fold?.switches ?? [p.id]) boxes.set(id, plateBox(p));
  for (const s of spots) boxes.set(s.id, spotBox(s));
  const byPort = new Map(
    wires.flatMap((w) => [w.portA, w.portB].flatMap((p) => (p === null ? [] : [[p, w] as const]))),
  );
  const wireOf = (id: string) => {
    const link = linkById(design, id);
    const ports = link ? [link.a, link.b].flatMap((e) => ('port' in e ? [e.port] : [])) : [];
    return ports.flatMap((p) => byPort.get(p) ?? byPort.get(bundleAt(design, p)?.id ?? '') ?? [])[0];
  };
  /** What a frame has to hold: a thing, or both ends of a link. */
  const cornersOfThing = (id: string): readonly Point[] => {
    const box = boxes.get(id);
    if (box) return cornersOfBox(box);
    const wire = wireOf(id);
    return wire ? [wire.a, wire.b] : [];
  };
  return { boxOf: (id: string) => boxes.get(id), wireOf, cornersOfThing };
}

type Find = ReturnType<typeof finder>;
const middle = (b: Box): Point => ({ x: (b.left + b.right) / 2, y: (b.top + b.bottom) / 2 });

/** Distance between two boxes; nothing where they meet. */
const gap = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, a.left - b.right, b.left - a.right), Math.max(0, a.top - b.bottom, b.top - a.bottom));

interface Anchored {
  /** Where the words stand by themselves, the usual place first. */
  readonly places: readonly Point[];
  readonly thing: Box;
  readonly lead: Point;
}

/** Places of words about one thing: round it, or beside the middle of the link. */
function textPlaces(note: Note, find: Find, { width, height }: Size): Anchored | null {
  for (const id of note.about) {
    const box = find.boxOf(id);
    if (box) return { places: placesRound(box, width, height), thing: box, lead: { x: box.left + 12, y: box.top } };
    const wire = find.wireOf(id);
    if (wire) {
      const lead = wireMiddle(wire.a, wire.b, 0.5, wire.via);
      return { places: placesBeside(lead, width, height), thing: dot(lead), lead };
    }
  }
  return null;
}

/** What a distance lies between: the ends of a link, or two things. */
function measured(note: Note, find: Find): readonly [Box, Box] | null {
  const wire = note.about.map(find.wireOf).find((w) => w !== undefined);
  if (wire) return [dot(wire.a), dot(wire.b)];
  const [a, b] = note.about.flatMap((id) => find.boxOf(id) ?? []);
  return a && b ? [a, b] : null;
}

/** A dimension line beside what it measures, on the upper or the left side; it is measured from the edges of things. */
function spanOf(from: Box, to: Box, by: Point, away: number): NonNullable<NoteItem['span']> {
  const [boxA, boxB] = middle(from).x <= middle(to).x ? [from, to] : [to, from];
  const [a, b] = [middle(boxA), middle(boxB)];
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const out = { x: (b.y - a.y) / length, y: -(b.x - a.x) / length };
  const edge = ({ left, right, top, bottom }: Box) =>
    Math.min((right - left) / 2 / Math.abs(out.x || 1e-9), (bottom - top) / 2 / Math.abs(out.y || 1e-9));
  const [edgeA, edgeB] = [edge(boxA), edge(boxB)];
  const far = Math.max(edgeA, edgeB) + away;
  const on = (p: Point, distance: number) => ({ x: p.x + out.x * distance, y: p.y + out.y * distance });
  const moved = (p: Point) => ({ x: on(p, far).x + by.x, y: on(p, far).y + by.y });
  return { a: moved(a), b: moved(b), fromA: on(a, edgeA), fromB: on(b, edgeB) };
}

type Shape = Pick<NoteItem, 'x' | 'y' | 'frame' | 'span' | 'lead' | 'by'>;
type Size = Pick<NoteItem, 'width' | 'height'>;

/** A note that is about something, where that is drawn. */
function tied(note: Note, find: Find, room: Room, free: boolean, size: Size): Shape | null {
  const by = { x: note.x ?? 0, y: note.y ?? 0 };
  if (note.form === 'box') {
    const corners = note.about.flatMap(find.cornersOfThing);
    if (corners.length === 0 || !free) return null;
    const box = boxAround(corners, FRAME.beside, FRAME.above);
    const frame = { ...box, top: box.top - size.height };
    return { x: frame.left, y: frame.top, frame };
  }
  if (note.form === 'distance') {
    const ends = free ? measured(note, find) : null;
    return ends && spanned(spanOf(...ends, by, SPAN_AWAY), size);
  }
  const anchored = textPlaces(note, find, size);
  if (!anchored) return null;
  const { places, thing, lead } = anchored;
  // Where things stand as they were put, so do words that were moved; elsewhere they find room.
  const put = free && (note.x !== undefined || note.y !== undefined);
  const [usual] = places as [Point];
  const at = put ? { x: usual.x + by.x, y: usual.y + by.y } : room.best(places, size.width, size.height);
  const shape = { ...at, by: { x: at.x - usual.x, y: at.y - usual.y } };
  return gap({ left: at.x, right: at.x + size.width, top: at.y, bottom: at.y + size.height }, thing) < NEAR
    ? shape
    : { ...shape, lead };
}

function spanned(span: NonNullable<NoteItem['span']>, { width, height }: Size): Shape {
  const at = { x: (span.a.x + span.b.x - width) / 2, y: (span.a.y + span.b.y - height) / 2 };
  return { ...at, span };
}

/** A note at its place on the sheet. */
function placed({ form, x = 0, y = 0, toX, toY }: Note, size: Size): Shape {
  const to = { x: toX ?? x + 160, y: toY ?? y + (form === 'box' ? 90 : 0) };
  if (form === 'distance') return spanned(spanOf(dot({ x, y }), dot(to), { x: 0, y: 0 }, 0), size);
  if (form !== 'box') return { x, y };
  const frame = boxAround([{ x, y }, to], 0, 0);
  return { x: frame.left, y: frame.top, frame };
}

/**
 * Notes of a design that have a place in a drawing. In one that is `free` things stand where they were put: only there
 * places on the sheet, boxes and distances mean anything.
 */
export function notesIn(design: Design, drawn: Placed, free: boolean): NoteItem[] {
  if (design.notes.length === 0) return NONE;
  const find = finder(design, drawn);
  const room = roomIn(drawn);
  return design.notes.flatMap((note) => {
    if (note.hidden) return [];
    const lines = wrapped(note.text);
    const longest = Math.max(...lines.map((l) => l.length));
    const size = { width: longest * WORDS.letter + 2 * WORDS.pad, height: lines.length * WORDS.line + WORDS.pad };
    const loose = note.about.length === 0;
    const shape = loose ? (free ? placed(note, size) : null) : tied(note, find, room, free, size);
    if (shape) room.take({ left: shape.x, right: shape.x + size.width, top: shape.y, bottom: shape.y + size.height });
    return shape ? [{ id: note.id, form: note.form ?? 'text', lines, loose, ...size, ...shape }] : [];
  });
}

const NONE: NoteItem[] = [];

/** The corners of a note, for the box of a drawing. */
export const cornersOf = ({ x, y, width, height, frame, span }: NoteItem): readonly Point[] => [
  { x, y },
  // Words grow where the whole is small.
  { x: x + width * GROWN, y: y + height },
  ...(frame ? cornersOfBox(frame) : []),
  ...(span ? [span.a, span.b] : []),
];
