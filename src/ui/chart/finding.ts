/** Finding things in a drawing: its box, the next plate in a direction, what an element stands for. */
import type { Ref } from '../session/view';
import { PLATE, boxAround } from './geometry';
import type { Box, Point } from './geometry';
import { cornersOf } from './notes';
import type { PlateItem, Scene } from './scene-items';

const MARGIN = 46;

/** The box of everything drawn; plates count with their whole width. */
export function sceneBox({ plates, spots, notes }: Scene): Box {
  const edges = [
    ...plates.flatMap((p) => [
      { x: p.x - p.width / 2 - 14, y: p.y },
      { x: p.x + p.width / 2 + 14, y: p.y },
    ]),
    ...spots.flatMap((s) => [
      { x: s.x - s.name.length * 3.5 - 14, y: s.y },
      { x: s.x + s.name.length * 3.5 + 14, y: s.y },
    ]),
    ...notes.flatMap(cornersOf),
  ];
  return boxAround(edges.length > 0 ? edges : [{ x: 0, y: 0 }], edges.length > 0 ? 0 : MARGIN, MARGIN);
}

/** Nearest plate in the direction of an arrow key. */
export function neighbour(scene: Scene, from: string | null, key: string): string | null {
  const plates = scene.plates.filter((p) => !p.fold);
  const here = plates.find((p) => p.id === from);
  if (!here) return plates[0]?.id ?? null;
  const [dx, dy] = { ArrowUp: [0, -1], ArrowDown: [0, 1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }[key] as [
    number,
    number,
  ];
  let best: string | null = null;
  let least = Infinity;
  for (const plate of plates) {
    const [x, y] = [plate.x - here.x, plate.y - here.y];
    const ahead = x * dx + y * dy;
    if (ahead <= 1) continue;
    const score = ahead + 2.5 * Math.abs(x * dy + y * dx);
    if (score < least) [best, least] = [plate.id, score];
  }
  return best;
}

/** What an element of the chart stands for; the wire of a host is a link. */
export function refOf(element: Element): Ref {
  const kind = element.getAttribute('data-kind')!;
  const id = element.getAttribute('data-id')!;
  return { kind: (kind === 'host' && element.classList.contains('wire') ? 'link' : kind) as Ref['kind'], id };
}

/** A fold is meant when the pointer is on it, or this near. */
const NEAR = 16;
/** Room round what is flown to. */
const ROUND = 80;

/** The fold that a point is on. */
export const foldUnder = ({ plates }: Pick<Scene, 'plates'>, { x, y }: Point): PlateItem | undefined =>
  plates.find((p) => p.fold && Math.abs(x - p.x) <= p.width / 2 + NEAR && Math.abs(y - p.y) <= PLATE.height / 2 + NEAR);

/** The box of the plates that show some switches. */
export function boxOfSwitches({ plates }: Pick<Scene, 'plates'>, switches: ReadonlySet<string>): Box | null {
  const own = plates.filter((p) => (p.fold?.switches ?? [p.id]).some((id) => switches.has(id)));
  return own.length > 0 ? boxAround(own, ROUND + PLATE.width / 2, ROUND) : null;
}
