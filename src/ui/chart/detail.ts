/** Where ports and knots are worth drawing: not from afar, and in a large design only near what is in sight. */
import type { ZoomTransform } from 'd3-zoom';
import { boxAround, boxesMeet } from './geometry';
import type { Box } from './geometry';
import type { Scene, WireItem } from './scene-items';

/** Below this scale ports are too small to tell apart: they are left out. */
export const FAR = 0.42;

/** The same in a large design, where at a smaller scale too many would be in sight at once. */
const FAR_OF_MANY = 0.62;

/** And in a very large one. */
const FAR_OF_VERY_MANY = 0.8;
const VERY_MANY = 2500;

/** Names of ports and labels of cables are read from this scale on; in a small design earlier. */
const NAMES = 0.9;
/** Smaller, and names of ports that can be read would lie over each other. */
const LEAST_NAMES = 0.5;
/** Ports that stand close have room for their names from here on. */
export const CROWDED_NAMES = 1.6;

/** With fewer ports than this, all are drawn: moving the chart then changes nothing in it. */
export const FEW = 400;

/** The scale from which a design is drawn in detail. */
export const farScale = ({ pegs }: Pick<Scene, 'pegs'>): number =>
  pegs.length > VERY_MANY ? FAR_OF_VERY_MANY : pegs.length > FEW ? FAR_OF_MANY : FAR;

/** Whether names of ports are worth drawing. */
export const namesAt = (scale: number, { pegs }: Pick<Scene, 'pegs'>): boolean =>
  scale >= (pegs.length <= FEW ? LEAST_NAMES : NAMES);

/** Below this scale the second line of plates would be too small to read: their names are larger instead. */
const SECOND_LINES = 0.78;

/** Whether second lines of plates are worth drawing. */
export const secondLinesAt = (scale: number): boolean => scale >= SECOND_LINES;

/** Scales between which text keeps its size. */
const STEP = 0.05;

/** The scale that text is written for: not larger than the real one, so that it can be read. */
export const scaleStep = (scale: number): number => Math.max(STEP, Math.floor(scale / STEP + 1e-9) * STEP);

/** How much of the window's size is drawn beyond its edges, so that a short move finds it there. */
const MARGIN = 0.3;

export const EVERYWHERE: Box = { left: -Infinity, right: Infinity, top: -Infinity, bottom: Infinity };

const within = (outer: Box, inner: Box) =>
  outer.left <= inner.left && outer.right >= inner.right && outer.top <= inner.top && outer.bottom >= inner.bottom;

/** The part of the drawing to draw in detail; the one before as long as it still covers what is in sight. */
export function detailAt(
  transform: Pick<ZoomTransform, 'k' | 'x' | 'y'>,
  size: { readonly width: number; readonly height: number },
  scene: Pick<Scene, 'pegs'>,
  before: Box | null,
): Box | null {
  const { k, x, y } = transform;
  if (k < farScale(scene)) return null;
  if (scene.pegs.length <= FEW) return EVERYWHERE;
  const sight = { left: -x / k, right: (size.width - x) / k, top: -y / k, bottom: (size.height - y) / k };
  if (before && before !== EVERYWHERE && within(before, sight)) return before;
  const [wide, high] = [(size.width / k) * MARGIN, (size.height / k) * MARGIN];
  return { left: sight.left - wide, right: sight.right + wide, top: sight.top - high, bottom: sight.bottom + high };
}

/** How far a wire swings out at most beyond its ends and the points that it passes. */
const SWING = 170;

/** Whether no part of a wire is in the part of the drawing that is drawn in detail. */
export const isOutside = (detail: Box | null, { a, b, via = [] }: Pick<WireItem, 'a' | 'b' | 'via'>): boolean =>
  detail !== null && detail !== EVERYWHERE && !boxesMeet(detail, boxAround([a, b, ...via], SWING, SWING));
