/**
 * Places and shapes of what is drawn, written straight to the elements. React decides which elements there are and how
 * they look; where they stand is decided here, so that a drawing which re-forms is computed once a frame and not also
 * by React.
 */
import { KNOT_PATH, mixAnchor, mixPoint, translate } from './geometry';
import type { Anchor, Point } from './geometry';
import { drawNote, numbersOf } from './note-shapes';
import type { NoteItem, Scene, WireItem } from './scene-items';
import { wireShape } from './still';

const DURATION_MS = 420;

/** Above this many wires a frame takes too long to draw; the drawing then changes at once. */
const MOST_WIRES = 900;

const ease = (t: number) => (t < 0.5 ? 4 * t * t * t : 1 - (-2 * t + 2) ** 3 / 2);

interface Place {
  readonly element: Element;
  readonly point: Point;
}

interface WireParts {
  readonly element: Element;
  readonly wire: WireItem;
  readonly hit: Element | null;
  readonly line: Element | null;
  readonly second: Element | null;
  readonly knotA: Element | null;
  readonly knotB: Element | null;
  readonly label: Element | null;
  a: Anchor;
  b: Anchor;
  via: readonly Anchor[];
}

const NO_WAY: readonly Anchor[] = [];

function shape(parts: WireParts, a: Anchor, b: Anchor, via: readonly Anchor[]): void {
  const { wire, hit, line, second, knotA, knotB, label } = parts;
  parts.a = a;
  parts.b = b;
  parts.via = via;
  const to = wireShape(wire, a, b, via);
  hit?.setAttribute('d', to.hit);
  line?.setAttribute('d', to.line);
  if (to.second !== null) second?.setAttribute('d', to.second);
  for (const [knot, transform] of [
    [knotA, to.knotA],
    [knotB, to.knotB],
  ] as const)
    if (knot && transform !== null) {
      knot.setAttribute('d', KNOT_PATH);
      knot.setAttribute('transform', transform);
    }
  label?.setAttribute('transform', to.label);
}

const still = (p: Point, q: Point) => p.x === q.x && p.y === q.y;
const stillWay = (p: readonly Anchor[], q: readonly Anchor[]) =>
  p.length === q.length && p.every((x, i) => stillAnchor(x, q[i]!));
const stillAnchor = (p: Anchor, q: Anchor) => still(p, q) && p.nx === q.nx && p.ny === q.ny;

type Frame = (t: number) => void;

export class Drawing {
  /** Elements by key, as React makes and removes them. */
  private readonly elements = new Map<string, Element>();
  private readonly places = new Map<string, Place>();
  private readonly wires = new Map<string, WireParts>();
  private readonly notes = new Map<string, { readonly element: Element; readonly at: readonly number[] }>();
  private frame = 0;

  /** To be called by React with every element that has a place of its own. */
  readonly register = (key: string, element: Element | null): void => {
    if (!element) return void this.elements.delete(key);
    this.elements.set(key, element);
    // A name that comes with the zoom or the selection stands where its plate does.
    const plate = key.startsWith('name ') ? this.places.get(`switch ${key.slice(5)}`) : undefined;
    if (plate) element.setAttribute('transform', translate(plate.point));
  };

  /** Brings the drawing to a scene: what is new stands there at once, what was there moves if `moving`. */
  show(scene: Scene, moving: boolean): void {
    this.stop();
    const frames: Frame[] = [];
    for (const plate of scene.plates) this.place(`switch ${plate.id}`, plate, frames, `name ${plate.id}`);
    for (const peg of scene.pegs) this.place(`port ${peg.key}`, peg, frames);
    for (const spot of scene.spots) this.place(`${spot.kind} ${spot.id}`, spot, frames);
    for (const wire of scene.wires) this.wire(wire, frames);
    for (const note of scene.notes) this.note(note, frames);
    if (frames.length === 0) return;
    const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    if (moving && !calm && scene.wires.length <= MOST_WIRES) this.play(frames);
    else for (const draw of frames) draw(1);
  }

  /** `follower`: what goes where it goes, and may come while it moves. */
  private place(key: string, point: Point, frames: Frame[], follower?: string): void {
    const element = this.elements.get(key);
    if (!element) return void this.places.delete(key);
    const was = this.places.get(key);
    const put = (at: Point) => {
      const transform = translate(at);
      element.setAttribute('transform', transform);
      if (follower) this.elements.get(follower)?.setAttribute('transform', transform);
      this.places.set(key, { element, point: at });
    };
    if (was?.element !== element) put(point);
    else if (!still(was.point, point)) {
      const from = was.point;
      frames.push((t) => put(t === 1 ? point : mixPoint(from, point, t)));
    }
  }

  private note(note: NoteItem, frames: Frame[]): void {
    const key = `note ${note.id}`;
    const element = this.elements.get(key);
    if (!element) return void this.notes.delete(key);
    const was = this.notes.get(key);
    const put = (from: readonly number[], t: number) =>
      this.notes.set(key, { element, at: drawNote(element, note, from, t) });
    const to = numbersOf(note);
    if (was?.element !== element || was.at.length !== to.length) return void put(to, 1);
    const from = was.at;
    if (from.some((n, i) => n !== to[i])) frames.push((t) => put(from, t));
    else put(to, 1);
  }

  private wire(wire: WireItem, frames: Frame[]): void {
    const element = this.elements.get(wire.key);
    if (!element) return void this.wires.delete(wire.key);
    const was = this.wires.get(wire.key);
    const way = wire.via ?? NO_WAY;
    const known = was !== undefined && was.element === element;
    // A part that React took away or made again, for a cut or for the distance, is looked up again.
    const alike =
      known &&
      was.wire.blockedA === wire.blockedA &&
      was.wire.blockedB === wire.blockedB &&
      was.wire.label === wire.label &&
      was.wire.labelAt === wire.labelAt &&
      element.querySelector('.sum') === was.label &&
      element.querySelector('.hit') === was.hit;
    const part = (selector: string) => element.querySelector(selector);
    const parts: WireParts = alike
      ? was
      : {
          element,
          wire,
          hit: part('.hit'),
          line: part('.line'),
          second: part('.second'),
          knotA: part('.knot-a'),
          knotB: part('.knot-b'),
          label: part('.sum'),
          a: known ? was.a : wire.a,
          b: known ? was.b : wire.b,
          via: known ? was.via : way,
        };
    if (!alike) {
      this.wires.set(wire.key, parts);
      shape(parts, parts.a, parts.b, parts.via);
    }
    const { a: fromA, b: fromB, via: fromWay } = parts;
    if (stillAnchor(fromA, wire.a) && stillAnchor(fromB, wire.b) && stillWay(fromWay, way)) return;
    // Ways with as many points turn into each other; others are straight while they move.
    const mixed = (t: number) =>
      fromWay.length === way.length ? way.map((to, i) => mixAnchor(fromWay[i]!, to, t)) : NO_WAY;
    frames.push((t) =>
      t === 1
        ? shape(parts, wire.a, wire.b, way)
        : shape(parts, mixAnchor(fromA, wire.a, t), mixAnchor(fromB, wire.b, t), mixed(t)),
    );
  }

  private play(frames: readonly Frame[]): void {
    const start = performance.now();
    const tick = (now: number) => {
      const t = Math.min(1, Math.max(0, (now - start) / DURATION_MS));
      for (const draw of frames) draw(t === 1 ? 1 : ease(t));
      this.frame = t < 1 ? requestAnimationFrame(tick) : 0;
    };
    this.frame = requestAnimationFrame(tick);
  }

  /** Ends a motion where it is; the next scene goes on from there. */
  stop(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
  }
}
