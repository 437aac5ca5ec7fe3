/** Where the switches stand: as cabled, or by depth of the tree in view. */
import type { Design } from '../../core/design';
import { bundleAt, farEnd, linkAt, portById, segmentAt } from '../../core/design';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { plateWidth } from './geometry';
import type { Point } from './geometry';
import { tidy } from './tidy';
import type { TidyNode } from './tidy';
import { upstream } from '../../core/network';

export interface RulerMark {
  readonly cost: number;
  readonly y: number;
}

export interface Arranged {
  /** Middle of each plate, by bridge index. */
  readonly at: readonly Point[];
  /** Costs that occur, in the depth arrangement; empty otherwise. */
  readonly ruler: readonly RulerMark[];
  /** Height at which switches without the tree stand; null when every switch has it. */
  readonly outside: number | null;
  /** Bridges with nothing below them: their hosts hang beneath. */
  readonly leaves: ReadonlySet<number>;
}

export interface Area {
  readonly width: number;
  readonly height: number;
}

const HOST_ROOM = 104;

/** Width of each plate, from its cables; a bundle counts as one. */
function plateWidths(design: Design): number[] {
  const wires = new Map<string, number>();
  for (const port of design.ports) {
    const member = bundleAt(design, port.id);
    const counts = member ? member.members[0] === port.id : linkAt(design, port.id) || segmentAt(design, port.id);
    if (counts) wires.set(port.switch, (wires.get(port.switch) ?? 0) + 1);
  }
  return design.switches.map((s) => plateWidth(wires.get(s.id) ?? 0));
}

/** Neighbouring switches, by bridge index; cabling only, whatever is down. */
function neighbours(design: Design): number[][] {
  const index = new Map(design.switches.map((s, i) => [s.id, i]));
  const found = design.switches.map(() => new Set<number>());
  const join = (a: string, b: string) => {
    const [i, j] = [index.get(portById(design, a)?.switch ?? ''), index.get(portById(design, b)?.switch ?? '')];
    if (i === undefined || j === undefined || i === j) return;
    found[i]!.add(j);
    found[j]!.add(i);
  };
  for (const link of design.links) if ('port' in link.a && 'port' in link.b) join(link.a.port, link.b.port);
  for (const segment of design.segments) for (const port of segment.ports) join(segment.ports[0]!, port);
  return found.map((set) => [...set]);
}

/** Room that the hosts beside each switch take. */
function hostRoom(design: Design): number[] {
  const hosts = new Set<string>();
  for (const port of design.ports) {
    const link = linkAt(design, port.id);
    if (link && 'host' in farEnd(link, port.id)) hosts.add(port.switch);
  }
  return design.switches.map((s) => (hosts.has(s.id) ? HOST_ROOM : 0));
}

const TIER_LEVEL = { core: 0, distribution: 1, access: 2 } as const;

/** Switches without a place: hops from the best-connected switch of the highest tier, level by level. */
function arrangeByHops(design: Design, area: Area): Point[] {
  const next = neighbours(design);
  const rank = (i: number) => (TIER_LEVEL[design.switches[i]!.tier ?? 'access'] ?? 2) * 10_000 - next[i]!.length;
  const order = [...design.switches.keys()].sort((a, b) => rank(a) - rank(b));
  const nodes: TidyNode[] = [];
  const room = hostRoom(design);
  const wide = plateWidths(design);
  for (const start of order) {
    if (nodes[start]) continue;
    const add = (i: number, parent: number, level: number) =>
      (nodes[i] = { parent, level, order: i, width: wide[i]!, beside: room[i]! });
    add(start, -1, 0);
    const queue = [start];
    for (const here of queue)
      for (const there of next[here]!)
        if (!nodes[there]) {
          add(there, here, nodes[here]!.level + 1);
          queue.push(there);
        }
  }
  return tidy(nodes, () => 150, area).at;
}

/** Where the engineer put things; without places, an arrangement by hops. */
export function arrangeAsCabled(design: Design, area: Area): Arranged {
  const placed = design.switches.every((s) => s.x !== undefined && s.y !== undefined);
  const at = placed ? design.switches.map((s) => ({ x: s.x!, y: s.y! })) : arrangeByHops(design, area);
  return { at, ruler: [], outside: null, leaves: new Set() };
}

/** Height between two neighbouring costs: more for a wider step, within what can still be seen at a glance. */
function costGap(smallest: number, levels: number) {
  const base = 96 + 22 * Math.max(0, 5 - levels);
  return (upper: number, lower: number) => base + 9 * Math.min(4, Math.log10((lower - upper) / smallest) * 2);
}

/** Least room between two plates that stand side by side with a cable between them: for its pegs, its knot and its label. */
const LINK_ROOM = 104;

/**
 * Moves plates apart that stand side by side with a cable between them: everything to the right of such a gap goes to the right.
 * Gives by how much the drawing has grown.
 */
function makeRoom(at: { x: number; y: number }[], wide: readonly number[], next: readonly number[][]): number {
  const rows = new Map<number, number[]>();
  at.forEach(({ y }, i) => rows.set(Math.round(y), [...(rows.get(Math.round(y)) ?? []), i]));
  const tight = [...rows.values()].flatMap((row) => {
    row.sort((a, b) => at[a]!.x - at[b]!.x);
    return row.slice(1).flatMap((right, i) => {
      const left = row[i]!;
      return next[left]!.includes(right) ? [[left, right] as const] : [];
    });
  });
  let grown = 0;
  for (const [left, right] of tight.sort((p, q) => at[p[1]]!.x - at[q[1]]!.x)) {
    const gap = at[right]!.x - at[left]!.x - (wide[left]! + wide[right]!) / 2;
    if (gap >= LINK_ROOM) continue;
    const from = at[right]!.x;
    for (const p of at) if (p.x >= from) p.x += LINK_ROOM - gap;
    grown += LINK_ROOM - gap;
  }
  return grown;
}

const MOST_STRETCH = 1.5;

/** The root at the top, every switch as far down as its root path cost; below all, those without the tree. */
export function arrangeByDepth(solved: SolvedDesign, of: SolvedTree, cabled: readonly Point[], area: Area): Arranged {
  const { design, actsAs } = solved.topology;
  const { rootPathCost, root } = of.outcome;
  const costs = [...new Set([...rootPathCost].filter(Number.isFinite))].sort((a, b) => a - b);
  const level = new Map(costs.map((cost, i) => [cost, i]));
  const outsideLevel = costs.length;
  const parent = design.switches.map((_, b) => upstream(of.topology, of.outcome, actsAs[b]!));
  const inner = new Set(parent);
  const room = hostRoom(design);
  const wide = plateWidths(design);
  const nodes = design.switches.map((_, b): TidyNode => ({
    parent: parent[b]!,
    level: root[actsAs[b]!]! < 0 ? outsideLevel : level.get(rootPathCost[actsAs[b]!]!)!,
    order: cabled[b]!.x,
    // Hosts of a leaf hang below it and need no room beside it.
    width: wide[b]!,
    beside: inner.has(b) ? room[b]! : 0,
  }));
  const steps = costs.slice(1).map((cost, i) => cost - costs[i]!);
  const gap = costGap(Math.min(...steps, Infinity), costs.length);
  const laid = tidy(nodes, (upper, lower) => (lower === outsideLevel ? 110 : gap(costs[upper]!, costs[lower]!)), area);
  const at = laid.at.map((p) => ({ ...p }));
  const width = laid.width + makeRoom(at, wide, neighbours(design));
  // A wide, low drawing is pulled down to the shape of the area, so that the room below is used.
  const wanted = ((width + 168) * area.height) / area.width - 168;
  const stretch = Math.min(MOST_STRETCH, Math.max(1, wanted / Math.max(1, laid.height)));
  const hasOutside = nodes.some((n) => n.level === outsideLevel);
  return {
    at: at.map(({ x, y }) => ({ x, y: y * stretch })),
    ruler: costs.map((cost, i) => ({ cost, y: laid.levelY.get(i)! * stretch })),
    outside: hasOutside ? laid.levelY.get(outsideLevel)! * stretch : null,
    leaves: new Set([...design.switches.keys()].filter((b) => !inner.has(b))),
  };
}
