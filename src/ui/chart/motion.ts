/** Moves the drawing from one scene to the next by writing to its elements, past React, frame by frame. */
import { mixAnchor, mixPoint, translate } from './geometry';
import type { Anchor } from './geometry';
import type { Scene } from './scene';
import { wireShapes } from './Wire';

const DURATION_MS = 420;
/** Above this many wires a frame takes too long to draw; the drawing then changes at once. */
const MOST_WIRES = 900;

const ease = (t: number) => (t < 0.5 ? 4 * t * t * t : 1 - (-2 * t + 2) ** 3 / 2);

type Write = (t: number) => void;

function writers(root: SVGGElement, from: Scene, to: Scene): Write[] {
  const found = new Map<string, Element>();
  for (const element of root.querySelectorAll('[data-id]')) {
    const key = element.getAttribute('data-key') ?? `${element.getAttribute('data-kind')} ${element.getAttribute('data-id')}`;
    found.set(key, element);
  }
  const writes: Write[] = [];
  const glide = <T extends { id: string; x: number; y: number }>(kind: string, before: readonly T[], after: readonly T[]) => {
    const was = new Map(before.map((item) => [item.id, item]));
    for (const item of after) {
      const [old, element] = [was.get(item.id), found.get(`${kind} ${item.id}`)];
      if (old && element && (old.x !== item.x || old.y !== item.y))
        writes.push((t) => element.setAttribute('transform', translate(mixPoint(old, item, t))));
    }
  };
  glide('switch', from.plates, to.plates);
  glide('port', from.pegs, to.pegs);
  for (const kind of ['host', 'segment'] as const)
    glide(kind, from.spots.filter((s) => s.kind === kind), to.spots.filter((s) => s.kind === kind));

  const was = new Map(from.wires.map((wire) => [wire.key, wire]));
  const still = (a: Anchor, b: Anchor) => a.x === b.x && a.y === b.y && a.nx === b.nx && a.ny === b.ny;
  for (const wire of to.wires) {
    const [old, element] = [was.get(wire.key), found.get(wire.key)];
    if (!old || !element || (still(old.a, wire.a) && still(old.b, wire.b))) continue;
    const part = (selector: string) => element.querySelector(selector);
    const parts = {
      hit: part('.hit'),
      line: part('.line'),
      second: part('.second'),
      knotA: part('.knot-a'),
      knotB: part('.knot-b'),
      label: part('.sum'),
    };
    writes.push((t) => {
      const shapes = wireShapes(wire, mixAnchor(old.a, wire.a, t), mixAnchor(old.b, wire.b, t));
      parts.hit?.setAttribute('d', shapes.hit);
      parts.line?.setAttribute('d', shapes.line);
      if (shapes.second) parts.second?.setAttribute('d', shapes.second);
      if (shapes.knotA) parts.knotA?.setAttribute('transform', shapes.knotA);
      if (shapes.knotB) parts.knotB?.setAttribute('transform', shapes.knotB);
      parts.label?.setAttribute('transform', shapes.label);
    });
  }
  return writes;
}

/** Starts the motion; the returned function ends it at once, with everything in its place. */
export function moveScene(root: SVGGElement, from: Scene, to: Scene): () => void {
  const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
  if (calm || to.wires.length > MOST_WIRES) return () => {};
  const writes = writers(root, from, to);
  if (writes.length === 0) return () => {};
  const draw = (t: number) => writes.forEach((write) => write(t));
  let frame = 0;
  const start = performance.now();
  const tick = (now: number) => {
    const t = Math.min(1, (now - start) / DURATION_MS);
    draw(ease(Math.max(0, t)));
    frame = t < 1 ? requestAnimationFrame(tick) : 0;
  };
  draw(0);
  frame = requestAnimationFrame(tick);
  return () => {
    if (frame === 0) return;
    cancelAnimationFrame(frame);
    draw(1);
  };
}
