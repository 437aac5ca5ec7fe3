/** What the list of designs shows of a document: counts, and a drawing small enough to send many of. */
import type { Summary } from '../api/contract';
import type { Design } from '../core/design';
import { farEnd, portById } from '../core/design';
import { portsOnLan, treesOf } from '../core/network';
import { blockedPorts, roleAt, rootsOf, solveDesign } from '../core/trees';

const WIDTH = 100;
const HEIGHT = 60;
const MOST_LINES = 400;
/** Larger designs are not solved for so small a drawing. */
const MOST_SOLVED = 60;

/** Switches without a place are put in rows by tier. */
function places(design: Design): [number, number][] {
  const rows = { core: 0, distribution: 1, access: 2 } as const;
  const filled = [0, 0, 0];
  return design.switches.map((s) => {
    if (s.x !== undefined && s.y !== undefined) return [s.x, s.y];
    const row = rows[s.tier ?? 'access'];
    return [filled[row]!++ * 100, row * 120];
  });
}

/** Not more than can be distinguished in so small a drawing, spread over all of them. */
const thinned = (pairs: readonly string[]) => pairs.filter((_, i) => i % Math.ceil(pairs.length / MOST_LINES) === 0);

/** Where the roots are, and which lines carry nothing in the first tree that has a root. */
function standing(design: Design, lines: readonly (readonly [number, number])[]): Pick<Summary, 'roots' | 'blocked'> {
  const { trees, topology } = solveDesign(design);
  const first = trees.find((of) => rootsOf(of).length > 0);
  if (!first) return { roots: [], blocked: [] };
  const { portBridge, lanCount } = topology;
  const carries = new Set<string>();
  const isCut = new Set(blockedPorts(first));
  for (let lan = 0; lan < lanCount; lan++) {
    const ports = [...portsOnLan(topology, lan)].filter((p) => !isCut.has(p) && roleAt(first, p) !== 'none');
    for (const a of ports) for (const b of ports) carries.add(`${portBridge[a]!} ${portBridge[b]!}`);
  }
  const acting = (i: number) => topology.actsAs[i]!;
  const idle = (a: number, b: number) => acting(a) !== acting(b) && !carries.has(`${acting(a)} ${acting(b)}`);
  return {
    roots: [...new Set(trees.flatMap((of) => rootsOf(of)))],
    blocked: lines.flatMap(([a, b], i) => (idle(a, b) ? [i] : [])),
  };
}

/** Summary of a document. */
export function summarise(design: Design): Summary {
  const raw = places(design);
  const bounds = (axis: 0 | 1) => [
    raw.reduce((least, place) => Math.min(least, place[axis]), Infinity),
    raw.reduce((most, place) => Math.max(most, place[axis]), -Infinity),
  ];
  const [[left, right], [top, bottom]] = [bounds(0), bounds(1)] as [[number, number], [number, number]];
  /** A single row or column stands in the middle. */
  const along = (value: number, least: number, most: number, size: number) =>
    Math.round((most === least ? 0.5 : (value - least) / (most - least)) * size);
  const dots = raw.map(([x, y]): [number, number] => [along(x, left, right, WIDTH), along(y, top, bottom, HEIGHT)]);
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const pairs = new Set<string>();
  for (const link of design.links) {
    if (!('port' in link.a)) continue;
    const far = farEnd(link, link.a.port);
    if (!('port' in far)) continue;
    const [a, b] = [portById(design, link.a.port), portById(design, far.port)];
    if (a && b) pairs.add(`${index.get(a.switch)} ${index.get(b.switch)}`);
  }
  const lines = thinned([...pairs]).map((p) => p.split(' ').map(Number) as [number, number]);
  return {
    switches: design.switches.length,
    links: design.links.length,
    trees: treesOf(design).length,
    dots,
    lines,
    ...(design.switches.length <= MOST_SOLVED ? standing(design, lines) : {}),
  };
}

/** What the list shows of a document that cannot be read. */
export const NO_SUMMARY: Summary = { switches: 0, links: 0, trees: 0, dots: [], lines: [] };
