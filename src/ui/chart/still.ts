/**
 * A drawing made by the server: in the page before any script has run. It stands still, so that places and shapes are
 * written with the elements; in the browser `Drawing` writes them, since there they move.
 */
import { KNOT_PATH, knotTransform, strandPath, translate, wireMiddle, wirePath } from './geometry';
import type { Anchor, Point } from './geometry';
import type { WireItem } from './scene-items';

/** Whether this is the server. */
export const STILL = typeof window === 'undefined';

/** Size that a chart has in a window of 1280 × 800; in another window the drawing is scaled with it. */
export interface StillSize {
  readonly width: number;
  readonly height: number;
}

/** Of the chart of a tree. */
export const BESIDE_PANEL: StillSize = { width: 876, height: 670 };

/** Where an element stands; nothing in the browser. */
export const stillAt = (point: Point): string | undefined => (STILL ? translate(point) : undefined);

interface WireShape {
  readonly hit: string;
  readonly line: string;
  readonly second: string | null;
  readonly knotA: string | null;
  readonly knotB: string | null;
  /** Place of its label. */
  readonly label: string;
}

/** The shapes of the parts of a wire between two anchors; those that not every wire has are made when they are asked for. */
export function wireShape(wire: WireItem, a: Anchor, b: Anchor, via: readonly Anchor[] = []): WireShape {
  const { blockedA, blockedB } = wire;
  const strand = (side: 1 | -1) => strandPath(a, b, blockedA, blockedB, side, via);
  const twisted = wire.kind === 'bundle';
  return {
    get hit() {
      return wirePath(a, b, false, false, via);
    },
    line: twisted ? strand(1) : wirePath(a, b, blockedA, blockedB, via),
    second: twisted ? strand(-1) : null,
    knotA: blockedA ? knotTransform(a) : null,
    knotB: blockedB ? knotTransform(b) : null,
    get label() {
      return translate(wireMiddle(a, b, wire.labelAt, via));
    },
  };
}

type Attributes = Partial<Record<'d' | 'transform', string>>;

/** Attributes of the parts of a wire that stands still; none in the browser. */
export function stillWire(wire: WireItem): Partial<Record<keyof WireShape, Attributes>> {
  if (!STILL) return {};
  const { hit, line, second, knotA, knotB, label } = wireShape(wire, wire.a, wire.b, wire.via);
  const knot = (transform: string | null) => (transform === null ? {} : { d: KNOT_PATH, transform });
  return {
    hit: { d: hit },
    line: { d: line },
    second: second === null ? {} : { d: second },
    knotA: knot(knotA),
    knotB: knot(knotB),
    label: { transform: label },
  };
}
