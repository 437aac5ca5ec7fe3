/** What the pointer does with notes on the cabling: put them, pull boxes and distances, move them. */
import { noteById } from '../../core/design';
import type { Note } from '../../core/design';
import type { Chosen } from '../../core/editing';
import type { ChartHandle } from '../chart/hands';
import { layOut } from '../chart/cabling-scene';
import type { Point } from '../chart/geometry';
import type { NoteDraft } from '../session/notes';
import { SLACK, drawPath, swallowClick, thingAt, wireAt } from './pointing';
import type { Gesture, GestureHost } from './pointing';

type Place = Pick<Note, 'x' | 'y' | 'toX' | 'toY'>;

/** The note under an element of the chart, and whether its corner is meant. */
export function noteAt(element: Element | null): { readonly id: string; readonly corner: boolean } | null {
  const found = element?.closest('[data-kind="note"]');
  return found ? { id: found.getAttribute('data-id')!, corner: element!.hasAttribute('data-corner') } : null;
}

const whole = (n: number) => Math.round(n);

/** A note carried along, or pulled by its corner. */
function moved(note: Note, { x: dx, y: dy }: Point, corner: boolean): Place {
  const [x, y] = [note.x ?? 0, note.y ?? 0];
  if (corner) return { x, y, toX: whole((note.toX ?? x) + dx), toY: whole((note.toY ?? y) + dy) };
  return {
    x: whole(x + dx),
    y: whole(y + dy),
    ...(note.toX === undefined ? {} : { toX: whole(note.toX + dx) }),
    ...(note.toY === undefined ? {} : { toY: whole(note.toY + dy) }),
  };
}

/** Moves a note by the pointer, or its far corner. */
export function moveNote(
  host: GestureHost,
  chart: ChartHandle,
  id: string,
  corner: boolean,
  start: PointerEvent,
): Gesture {
  const [looks, places] = [host.looks(), host.places()];
  const { notes } = looks.design;
  const known = noteById(looks.design, id)!;
  const drawn = layOut(looks, places).notes.find((n) => n.id === id);
  // Words that found room by themselves start where they are seen.
  const note = drawn?.by ? { ...known, x: drawn.by.x, y: drawn.by.y } : known;
  const from = chart.toDrawing(start.clientX, start.clientY);
  let place: Place | null = null;
  const to = (event: PointerEvent) => {
    const now = chart.toDrawing(event.clientX, event.clientY);
    return moved(note, { x: now.x - from.x, y: now.y - from.y }, corner);
  };
  return {
    move: (event) => {
      if (!place && Math.hypot(event.clientX - start.clientX, event.clientY - start.clientY) < SLACK) return;
      place = to(event);
      const changed = { ...note, ...place };
      chart.preview(
        layOut(
          looks,
          places,
          notes.map((n) => (n.id === id ? changed : n)),
        ),
      );
    },
    end: (event) => {
      if (!place) return;
      swallowClick();
      host.noteMoved(id, to(event));
    },
    giveUp: () => chart.preview(layOut(looks, places)),
  };
}

/** What a press with the note tool comes to: words at a thing or a place, a box on the sheet, a distance between two things. */
function drafted(
  from: Point,
  to: Point,
  pulled: boolean,
  first: Chosen | null,
  last: Chosen | null,
  wire: string | null,
): NoteDraft {
  const [x, y] = [whole(from.x), whole(from.y)];
  const [toX, toY] = [whole(to.x), whole(to.y)];
  if (pulled && first && last && first.id !== last.id)
    return { id: null, about: [first.id, last.id], form: 'distance' };
  const about = first?.id ?? wire;
  if (about) return { id: null, about: [about], form: 'text' };
  return pulled ? { id: null, about: [], form: 'box', x, y, toX, toY } : { id: null, about: [], form: 'text', x, y };
}

/** A note that is put with the note tool. */
export function putNote(host: GestureHost, chart: ChartHandle, start: PointerEvent): Gesture {
  const element = start.target as Element;
  const [first, wire] = [thingAt(element), wireAt(element)];
  const from = chart.toDrawing(start.clientX, start.clientY);
  const clear = () => chart.overlay.replaceChildren();
  let pulled = false;
  return {
    move: (event) => {
      pulled ||= Math.hypot(event.clientX - start.clientX, event.clientY - start.clientY) >= SLACK;
      const to = chart.toDrawing(event.clientX, event.clientY);
      if (first) drawPath(chart, 'draft', `M${from.x} ${from.y}L${to.x} ${to.y}`);
      else drawPath(chart, 'band', `M${from.x} ${from.y}H${to.x}V${to.y}H${from.x}Z`);
    },
    end: (event) => {
      clear();
      swallowClick();
      const last = thingAt(document.elementFromPoint(event.clientX, event.clientY));
      host.noteBegun(drafted(from, chart.toDrawing(event.clientX, event.clientY), pulled, first, last, wire));
    },
    giveUp: clear,
  };
}
