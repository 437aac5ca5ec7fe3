/** A tree as a drawing of lines: the root on top, each switch under the one that it reaches the root through. */
import { isMacOnlyRoot, nextRoot, rootsOf } from '../trees';
import { blockedPorts } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { forEachNeighbour, upstream } from '../network';
import { priorityInForce } from '../design';
import type { Design, Note } from '../design';
import { NOTHING, html } from './html';
import type { Html } from './html';

/** Of a plate and the room round it, in units of the drawing. */
const PLATE = { width: 104, height: 34, gap: 18, level: 86 } as const;
const MOST_NAME = 15;

interface Place {
  readonly x: number;
  readonly y: number;
}

interface Layout {
  readonly places: ReadonlyMap<number, Place>;
  readonly width: number;
  readonly height: number;
}

/** Children of each bridge on the way to the root, and those at the top: roots and what is in no tree. */
function branches({ topology, outcome }: SolvedTree): { children: Map<number, number[]>; tops: number[] } {
  const children = new Map<number, number[]>();
  const tops: number[] = [];
  outcome.root.forEach((root, b) => {
    if (root < 0) return;
    const parent = upstream(topology, outcome, b);
    if (parent < 0) tops.push(b);
    else children.set(parent, [...(children.get(parent) ?? []), b]);
  });
  return { children, tops };
}

/** Leaves side by side, each switch above the middle of what hangs on it. */
function layoutOf(of: SolvedTree): Layout {
  const { children, tops } = branches(of);
  const places = new Map<number, Place>();
  let [right, deepest] = [0, 0];
  const put = (bridge: number, depth: number): number => {
    deepest = Math.max(deepest, depth);
    const own = (children.get(bridge) ?? []).map((child) => put(child, depth + 1));
    const x =
      own.length > 0 ? (own[0]! + own.at(-1)!) / 2 : (right += PLATE.width + PLATE.gap) - PLATE.gap - PLATE.width / 2;
    places.set(bridge, { x, y: depth * PLATE.level + PLATE.height / 2 + 24 });
    return x;
  };
  for (const top of tops) put(top, 0);
  return {
    places,
    width: Math.max(right, PLATE.width),
    height: (deepest + 1) * PLATE.level - PLATE.level + PLATE.height + 32,
  };
}

const clipped = (name: string): string => (name.length > MOST_NAME ? `${name.slice(0, MOST_NAME - 1)}…` : name);

/** Links of the tree, and those that are blocked with the end at which they are. */
function lines(of: SolvedTree, { places }: Layout): Html[] {
  const { topology, problem, outcome } = of;
  const blocked = new Set(blockedPorts(of));
  const drawn: Html[] = [];
  for (const bridge of places.keys())
    forEachNeighbour(topology, problem.portTakesPart, bridge, (own, other) => {
      const far = topology.portBridge[other]!;
      const [a, b] = [places.get(bridge)!, places.get(far)];
      if (!b) return;
      if (outcome.rootPort[bridge] === own && upstream(topology, outcome, bridge) === far)
        drawn.push(html`<path d="M${a.x} ${a.y - PLATE.height / 2}L${b.x} ${b.y + PLATE.height / 2}" class="open" />`);
      else if (blocked.has(own)) drawn.push(blockedLine(a, b));
    });
  return drawn;
}

/** A dashed line with a cross at the end that is blocked: upwards from the top of a plate, or over those of its level. */
function blockedLine(a: Place, b: Place): Html {
  const half = PLATE.height / 2;
  const side = b.x >= a.x ? 1 : -1;
  const from = { x: a.x + side * 30, y: a.y - half };
  const above = b.y < a.y;
  const to = { x: b.x - side * 30, y: above ? b.y + half : b.y - half };
  const [up, down] = above ? [28, to.y + 28] : [20, to.y - 20];
  const line = `M${from.x} ${from.y}C${from.x} ${from.y - up} ${to.x} ${down} ${to.x} ${to.y}`;
  const cross = `M${from.x - 4} ${from.y - 12}l8 8m0 -8l-8 8`;
  return html`<path d="${line}" class="blocked" /><path d="${cross}" class="cross" />`;
}

/** Notes of a report, in its order. */
export const shownNotes = ({ notes }: Design): readonly Note[] => notes.filter((n) => !n.hidden);

/** Numbers of the notes about each switch. */
function noteNumbers(design: Design): ReadonlyMap<string, string> {
  const numbers = new Map<string, number[]>();
  shownNotes(design).forEach(({ about }, i) => {
    for (const id of about) numbers.set(id, [...(numbers.get(id) ?? []), i + 1]);
  });
  return new Map([...numbers].map(([id, of]) => [id, `note ${of.join(', ')}`]));
}

/** The drawing of one tree, as vectors. */
export function treeDrawing(solved: SolvedDesign, of: SolvedTree): Html {
  const layout = layoutOf(of);
  const { design } = solved.topology;
  const [root] = rootsOf(of);
  const next = root === undefined ? -1 : nextRoot(of, root);
  const numbers = noteNumbers(design);
  const plates = [...layout.places].map(([b, { x, y }]) => {
    const s = design.switches[b]!;
    const isRoot = of.outcome.root[b] === b;
    const note = isRoot ? (isMacOnlyRoot(solved, of, b) ? 'root, by MAC' : 'root') : b === next ? 'next' : '';
    const priority = priorityInForce(design, s, of.tree).value;
    return html`<g transform="translate(${x - PLATE.width / 2} ${y - PLATE.height / 2})"
      ><rect width="${PLATE.width}" height="${PLATE.height}" rx="3" class="${isRoot ? 'root' : 'plate'}" /><text
        x="7"
        y="14"
        class="name${isRoot ? ' on' : ''}"
        >${clipped(s.name)}</text
      ><text x="7" y="27" class="note${isRoot ? ' on' : ''}">${priority} ${note}</text>${
        numbers.has(s.id)
          ? html`<text x="${PLATE.width}" y="${PLATE.height + 11}" class="noted">${numbers.get(s.id)!}</text>`
          : NOTHING
      }</g
    >`;
  });
  return html`<svg
    viewBox="-6 0 ${layout.width + 12} ${layout.height}"
    style="width:${Math.min(100, Math.max(30, layout.width / 8))}%"
    role="img"
  >
    ${lines(of, layout)}${plates}
  </svg>`;
}
