/** Where the switches stand: as cabled, or by depth of the tree in view. */
import type { Design } from '../../core/design';
import { bundleAt, farEnd, hostById, linkAt, segmentAt } from '../../core/design';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { isFold, unfolded } from './cells';
import type { Folding } from './cells';
import { PLATE, plateWidth, tagWidth } from './geometry';
import { neighboursOf } from './groups';
import type { Point } from './geometry';
import { tidy } from './tidy';
import type { TidyNode } from './tidy';
import { upstream } from '../../core/network';

export interface RulerMark {
  readonly cost: number;
  readonly y: number;
}

export interface Arranged {
  /** Middle of each plate, by its index. */
  readonly at: readonly Point[];
  /** Costs that occur, in the depth arrangement; empty otherwise. */
  readonly ruler: readonly RulerMark[];
  /** Height at which switches without the tree stand; null when every switch has it. */
  readonly outside: number | null;
  /** Plates with nothing below them: their hosts hang beneath. */
  readonly leaves: ReadonlySet<number>;
}

export interface Area {
  readonly width: number;
  readonly height: number;
}

/** Beside a plate: the line to a host, its tag as large as it is read in a usual window, and room before the ports of the next plate. */
const HOST_ROOM = { line: 27, grown: 1.25, after: 10 } as const;
const LEAST_HOST_ROOM = 104;

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

/** Room that the hosts beside each switch take: as much as the longest of their names. */
function hostRoom(design: Design): number[] {
  const room = new Map<string, number>();
  for (const port of design.ports) {
    const link = linkAt(design, port.id);
    const end = link && farEnd(link, port.id);
    if (!end || !('host' in end)) continue;
    const name = hostById(design, end.host)?.name ?? '';
    const own = HOST_ROOM.line + HOST_ROOM.grown * tagWidth(name) + HOST_ROOM.after;
    room.set(port.switch, Math.max(LEAST_HOST_ROOM, own, room.get(port.switch) ?? 0));
  }
  return design.switches.map((s) => room.get(s.id) ?? 0);
}

const TIER_LEVEL = { core: 0, distribution: 1, access: 2 } as const;

/** Switches without a place: hops from the best-connected switch of the highest tier, level by level. */
function arrangeByHops(design: Design, area: Area): Point[] {
  const next = neighboursOf(design);
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

/** Least room between two plates that stand side by side with a cable between them: for its pegs, a knot at either end, and its label. */
const LINK_ROOM = 152;

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

/** What of a folding decides where its plates are: the plates, and how many wires end at each. */
export interface Plates {
  readonly folding: Folding;
  readonly wires: readonly number[];
}

interface Standing {
  /** Cost to the root; Infinity where the plate is outside of the tree. */
  readonly cost: number;
  /** Plate above; −1 for none. */
  readonly parent: number;
}

/** How far down a plate is, and below which: as the switch in it that is nearest to the root of those that lead out of it. */
function standingIn(solved: SolvedDesign, of: SolvedTree, { cells, cellOf }: Folding): Standing[] {
  const { actsAs } = solved.topology;
  const costOf = (b: number) => (of.outcome.root[actsAs[b]!]! < 0 ? Infinity : of.outcome.rootPathCost[actsAs[b]!]!);
  return cells.map(({ members }, own): Standing => {
    const least = members.reduce((a, b) => (costOf(b) < costOf(a) ? b : a));
    const above = upstream(of.topology, of.outcome, actsAs[least]!);
    const parent = above < 0 || cellOf[above] === own ? -1 : cellOf[above]!;
    return { cost: costOf(least), parent };
  });
}

/** Neighbouring plates. */
function cellNeighbours(design: Design, { cells, cellOf }: Folding): number[][] {
  const next = cells.map(() => new Set<number>());
  neighboursOf(design).forEach((others, b) => {
    for (const other of others) if (cellOf[b] !== cellOf[other]) next[cellOf[b]!]!.add(cellOf[other]!);
  });
  return next.map((set) => [...set]);
}

/** The root at the top, every plate as far down as its root path cost; below all, those without the tree. */
export function arrangeByDepth(
  solved: SolvedDesign,
  of: SolvedTree,
  cabled: readonly Point[],
  area: Area,
  plates?: Plates,
): Arranged {
  const { design } = solved.topology;
  const folding = plates?.folding ?? unfolded(design);
  const { cells } = folding;
  const standing = standingIn(solved, of, folding);
  const costs = [...new Set(standing.map((s) => s.cost).filter(Number.isFinite))].sort((a, b) => a - b);
  const level = new Map(costs.map((cost, i) => [cost, i]));
  const outsideLevel = costs.length;
  const inner = new Set(standing.map((s) => s.parent));
  const room = hostRoom(design);
  const wide = plates ? plates.wires.map(plateWidth) : plateWidths(design);
  const nodes = cells.map((cell, i): TidyNode => ({
    parent: standing[i]!.parent,
    level: level.get(standing[i]!.cost) ?? outsideLevel,
    order: mean(cell.members.map((m) => cabled[m]!.x)),
    // Hosts of a leaf hang below it and need no room beside it.
    width: wide[i]!,
    beside: isFold(cell) ? FOLD_ROOM : inner.has(i) ? room[cell.members[0]!]! : 0,
  }));
  const steps = costs.slice(1).map((cost, i) => cost - costs[i]!);
  const gap = costGap(Math.min(...steps, Infinity), costs.length);
  const between = (upper: number, lower: number) => (lower === outsideLevel ? 110 : gap(costs[upper]!, costs[lower]!));
  const laid = tidy(nodes, between, area, plates ? FOLDED_WRAP : undefined);
  const at = laid.at.map((p) => ({ ...p }));
  const width = laid.width + makeRoom(at, wide, cellNeighbours(design, folding));
  // A wide, low drawing is pulled down to the shape of the area, so that the room below is used.
  const wanted = ((width + 168) * area.height) / area.width - 168;
  const stretch = Math.min(MOST_STRETCH, Math.max(1, wanted / Math.max(1, laid.height)));
  const hasOutside = nodes.some((n) => n.level === outsideLevel);
  return {
    at: at.map(({ x, y }) => ({ x, y: y * stretch })),
    ruler: costs.map((cost, i) => ({ cost, y: laid.levelY.get(i)! * stretch })),
    outside: hasOutside ? laid.levelY.get(outsideLevel)! * stretch : null,
    leaves: new Set([...cells.keys()].filter((b) => !inner.has(b))),
  };
}

/** A folded drawing has few plates, which are to be read: they wrap early. */
const FOLDED_WRAP = 6;
/** Room for the sheets that show behind a plate that stands for several. */
const FOLD_ROOM = 8;
const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Coordinates with no gap wider than is needed, in their order. */
function squeezed(values: readonly number[], most: number): number[] {
  const sorted = [...new Set(values)].sort((a, b) => a - b);
  const to = new Map<number, number>();
  sorted.forEach((v, i) => to.set(v, i === 0 ? 0 : to.get(sorted[i - 1]!)! + Math.min(most, v - sorted[i - 1]!)));
  return values.map((v) => to.get(v)!);
}

/** Plates where their switches were put: a fold at the one of its switches that stands nearest to the middle of them all. */
export function arrangeFolded(cabled: Arranged, { folding, wires }: Plates, area: Area): Arranged {
  if (!folding.cells.some(isFold)) return cabled;
  const at = folding.cells.map(({ members }) => {
    const [x, y] = (['x', 'y'] as const).map((k) => mean(members.map((m) => cabled.at[m]![k])));
    const away = (m: number) => Math.hypot(cabled.at[m]!.x - x!, cabled.at[m]!.y - y!);
    return cabled.at[members.reduce((a, b) => (away(b) < away(a) ? b : a))]!;
  });
  const widest = Math.max(...wires.map(plateWidth));
  const x = squeezed(
    at.map((p) => p.x),
    widest + 40,
  );
  const y = squeezed(
    at.map((p) => p.y),
    3 * PLATE.height,
  );
  // A wide, low drawing is pulled down to the shape of the area.
  const [width, height] = [Math.max(...x) + widest, Math.max(...y)];
  const stretch = Math.min(MOST_STRETCH, Math.max(1, (width * area.height) / area.width / Math.max(1, height)));
  const placed = at.map((_, i) => ({ x: x[i]!, y: y[i]! * stretch }));
  return { at: placed, ruler: [], outside: null, leaves: new Set() };
}
