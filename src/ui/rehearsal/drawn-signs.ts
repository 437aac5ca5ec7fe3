/** Signs of ports under the plates of their switches: ports to hosts and strangers are not in the drawing of a tree. */
import { PLATE } from '../chart/geometry';
import type { PlateItem, Scene } from '../chart/scene-items';
import { bundleById, groupBy, portById } from '../../core/design';
import type { Design } from '../../core/design';
import type { PortSign } from '../../core/trace';

const SVG = 'http://www.w3.org/2000/svg';
/** Of a box, in pixels: height of a line, width of a letter, room round the words, how far it hangs below the plate. */
const BOX = { line: 15, letter: 5.9, room: 6, stub: 9 } as const;
/** More at one plate are counted. */
const MOST = 3;

/** The plate that a switch is on: its own, or one that stands for it. */
const plateOf = ({ plates }: Scene, id: string): PlateItem | undefined =>
  plates.find((p) => p.id === id || p.fold?.switches.includes(id));

function element(name: string, attributes: Readonly<Record<string, string | number>>): SVGElement {
  const made = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, String(value));
  return made;
}

/** The signs of one plate as a box that hangs from it, at the same size however far the drawing is zoomed. */
function boxOf(plate: PlateItem, signs: readonly PortSign[], zoom: number): SVGElement {
  const guarded = signs.some((s) => s.kind === 'guard');
  const words = signs.slice(0, MOST).map((s) => s.words);
  if (signs.length > MOST) words.push(`and ${signs.length - MOST} more`);
  const width = 2 * BOX.room + BOX.letter * Math.max(...words.map((w) => w.length));
  const [x, y] = [plate.x - plate.width / 2 + 14, plate.y + PLATE.height / 2];
  const g = element('g', {
    class: `port-sign sign-${guarded ? 'guard' : 'plugged'}`,
    transform: `translate(${x} ${y}) scale(${1 / zoom})`,
  });
  g.append(
    element('path', { d: `M0 0v${BOX.stub}` }),
    element('rect', { x: -8, y: BOX.stub, width, height: words.length * BOX.line + BOX.room, rx: 3 }),
    ...words.map((line, i) => {
      const text = element('text', { x: BOX.room - 8, y: BOX.stub + BOX.line * (i + 1) });
      text.textContent = line;
      return text;
    }),
  );
  return g;
}

/** One box a plate; `zoom` in pixels a unit of the drawing. */
export function drawnSigns(design: Design, scene: Scene, signs: readonly PortSign[], zoom: number): SVGElement[] {
  const at = ({ port }: PortSign) => {
    const id = portById(design, port)?.switch ?? bundleById(design, port)?.switch;
    return id === undefined ? undefined : plateOf(scene, id);
  };
  return [...groupBy(signs, at)].flatMap(([plate, own]) => (plate ? [boxOf(plate, own, zoom)] : []));
}
