/** Where the switches stand: as cabled, or by depth of the tree in view. */
import type { Design } from '../../core/design';
import { farEnd, linkAt, portById } from '../../core/design';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { PLATE } from './geometry';
import type { Point } from './geometry';
import { tidy } from './tidy';
import type { TidyNode } from './tidy';

export type Arrangement = 'cabling' | 'depth';

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
}

export interface Area {
  readonly width: number;
  readonly height: number;
}

const HOST_ROOM = 104;

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

/** Width that a switch takes, with the hosts that stand beside it. */
function widths(design: Design): number[] {
  const hosts = new Set<string>();
  for (const port of design.ports) {
    const link = linkAt(design, port.id);
    if (link && 'host' in farEnd(link, port.id)) hosts.add(port.switch);
  }
  return design.switches.map((s) => PLATE.width + (hosts.has(s.id) ? HOST_ROOM : 0));
}

const TIER_LEVEL = { core: 0, distribution: 1, access: 2 } as const;

/** Switches that nobody placed: hops from the best-connected switch of the highest tier, level by level. */
function arrangeByHops(design: Design, area: Area): Point[] {
  const next = neighbours(design);
  const rank = (i: number) => (TIER_LEVEL[design.switches[i]!.tier ?? 'access'] ?? 2) * 10_000 - next[i]!.length;
  const order = [...design.switches.keys()].sort((a, b) => rank(a) - rank(b));
  const nodes: TidyNode[] = [];
  const wide = widths(design);
  for (const start of order) {
    if (nodes[start]) continue;
    const add = (i: number, parent: number, level: number) =>
      (nodes[i] = { parent, level, order: i, width: wide[i]! });
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

/** Where the engineer put things; where nobody did, an arrangement by hops. */
export function arrangeAsCabled(design: Design, area: Area): Arranged {
  const placed = design.switches.every((s) => s.x !== undefined && s.y !== undefined);
  const at = placed ? design.switches.map((s) => ({ x: s.x!, y: s.y! })) : arrangeByHops(design, area);
  return { at, ruler: [], outside: null };
}

/** Height between two neighbouring costs: more for a wider step, within what the eye can still take in. */
function costGap(smallest: number) {
  return (upper: number, lower: number) => 92 + 9 * Math.min(4, Math.log10((lower - upper) / smallest) * 2);
}

/** The root at the top, every switch as far down as its root path cost; below all, those without the tree. */
export function arrangeByDepth(solved: SolvedDesign, of: SolvedTree, cabled: readonly Point[], area: Area): Arranged {
  const { design, portLan, portBridge } = solved.topology;
  const { rootPort, rootPathCost, root, designatedPort } = of.outcome;
  const costs = [...new Set([...rootPathCost].filter(Number.isFinite))].sort((a, b) => a - b);
  const level = new Map(costs.map((cost, i) => [cost, i]));
  const wide = widths(design);
  const outsideLevel = costs.length;
  const nodes = design.switches.map((_, b): TidyNode => {
    const base = { order: cabled[b]!.x, width: wide[b]! };
    if (root[b]! < 0) return { ...base, parent: -1, level: outsideLevel };
    const port = rootPort[b]!;
    const parent = port < 0 ? -1 : portBridge[designatedPort[portLan[port]!]!]!;
    return { ...base, parent, level: level.get(rootPathCost[b]!)! };
  });
  const steps = costs.slice(1).map((cost, i) => cost - costs[i]!);
  const gap = costGap(Math.min(...steps, Infinity));
  const laid = tidy(nodes, (upper, lower) => (lower === outsideLevel ? 110 : gap(costs[upper]!, costs[lower]!)), area);
  const hasOutside = nodes.some((n) => n.level === outsideLevel);
  return {
    at: laid.at,
    ruler: costs.map((cost, i) => ({ cost, y: laid.levelY.get(i)! })),
    outside: hasOutside ? laid.levelY.get(outsideLevel)! : null,
  };
}
