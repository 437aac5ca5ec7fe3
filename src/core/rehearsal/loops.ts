/** Rings in what is open: frames that go round, over which ports, for how long, and what that does. */
import { passes, reaches, speedOf } from './network';
import type { LoopSpan } from './recorder';
import type { BridgePort, World } from './world';

/** Number of what each physical port is plugged into; both ends of a bundle that forms share one LAN. */
function lanNumbers(w: World): Map<string, number> {
  if (w.lans) return w.lans;
  const numbers = new Map<string, number>();
  w.lans = new Map();
  for (const { id, attached } of w.physical.values()) {
    const far = reaches(w, id);
    const other = far.length === 1 ? w.physical.get(far[0]!)?.attached : null;
    const name = w.loops.has(id)
      ? `hub ${id}`
      : attached && other
        ? [attached.id, other.id].sort().join(' = ')
        : [id, ...far].sort().join(' ');
    if (!numbers.has(name)) numbers.set(name, numbers.size);
    w.lans.set(id, numbers.get(name)!);
  }
  return w.lans;
}

interface Edge {
  readonly bp: BridgePort;
  readonly lan: number;
  /** The switch and the LAN as vertices of a graph. */
  readonly from: number;
  readonly to: number;
}

interface Edges {
  readonly list: readonly Edge[];
  /** Switches and LANs in all. */
  readonly vertices: number;
}

/** Every place at which a switch touches a LAN, whether open or not. */
const touches = new WeakMap<Map<string, number>, Edges>();

function allEdges(w: World): Edges {
  const lans = lanNumbers(w);
  let edges = touches.get(lans);
  if (!edges) {
    const count = new Set(lans.values()).size;
    // A bundle that one end alone has touches a LAN with each member.
    const list = [...w.nodes.values()].flatMap((node, i) =>
      [...node.ports.values()].flatMap((bp) =>
        [...new Set(bp.active.map((member) => lans.get(member)!))].map((lan) => ({
          bp,
          lan,
          from: count + i,
          to: lan,
        })),
      ),
    );
    touches.set(lans, (edges = { list, vertices: count + w.nodes.size }));
  }
  return edges;
}

/** What is open in a VLAN: switches and LANs, joined by ports. */
const openEdges = (w: World, vlan: number): Edge[] => allEdges(w).list.filter(({ bp }) => passes(w, bp, vlan));

/** Whether what is open in a VLAN holds a ring: joining two that are joined already. Runs whenever a port opens. */
function hasRing(w: World, vlan: number): boolean {
  const edges = allEdges(w);
  const parent = new Int32Array(edges.vertices).fill(-1);
  const find = (x: number): number => {
    let top = x;
    while (parent[top]! >= 0) top = parent[top]!;
    if (top !== x) parent[x] = top;
    return top;
  };
  for (const { bp, from, to } of edges.list) {
    if (!passes(w, bp, vlan)) continue;
    const [a, b] = [find(from), find(to)];
    if (a === b) return true;
    parent[a] = b;
  }
  return false;
}

/** Edges of a graph that lie on a ring: all but those whose loss would part it (by depth first search). */
function onRings(edges: readonly Edge[]): Edge[] {
  const around = new Map<unknown, number[]>();
  edges.forEach(({ bp, lan }, i) => {
    for (const end of [bp.node, lan]) around.set(end, [...(around.get(end) ?? []), i]);
  });
  const order = new Map<unknown, number>();
  const parting = new Set<number>();
  // Gives the earliest vertex that is reached from below a vertex without the edge by which it was come to.
  const visit = (at: unknown, by: number): number => {
    order.set(at, order.size);
    let low = order.get(at)!;
    for (const i of around.get(at)!) {
      if (i === by) continue;
      const { bp, lan } = edges[i]!;
      const to = at === lan ? bp.node : lan;
      const known = order.get(to);
      const reached = known ?? visit(to, i);
      if (known === undefined && reached > order.get(at)!) parting.add(i);
      low = Math.min(low, reached);
    }
    return low;
  };
  for (const at of around.keys()) if (!order.has(at)) visit(at, -1);
  return edges.filter((_, i) => !parting.has(i));
}

/** Rings of a VLAN's data plane, apart from each other where they share no switch and no cable. */
function ringsOf(w: World, vlan: number): Edge[][] {
  if (!hasRing(w, vlan)) return [];
  const groups = new Map<unknown, Edge[]>();
  const parent = new Map<unknown, unknown>();
  const find = (x: unknown): unknown => (parent.has(x) ? find(parent.get(x)) : x);
  const edges = onRings(openEdges(w, vlan));
  for (const { bp, lan } of edges) {
    const [a, b] = [find(bp.node), find(lan)];
    if (a !== b) parent.set(a, b);
  }
  for (const edge of edges) {
    const top = find(edge.lan);
    groups.set(top, [...(groups.get(top) ?? []), edge]);
  }
  return [...groups.values()];
}

type Ring = Pick<LoopSpan, 'ports' | 'rate' | 'around' | 'turns'>;

function ringWords(w: World, edges: readonly Edge[]): Ring {
  const ports = [...new Set(edges.map((e) => e.bp))];
  const switches = new Set(edges.map((e) => e.bp.node)).size;
  const places = switches + new Set(edges.map((e) => e.lan)).size;
  return {
    ports: ports.map((bp) => bp.id),
    rate: Math.min(...ports.map((bp) => speedOf(w, bp))),
    around: switches * (w.linkDelay + w.processingDelay),
    turns: edges.length - places + 1,
  };
}

/** A hub with a loop gives back what it gets, again and again, without any switch. */
const hubRing = (w: World, bp: BridgePort): Ring => ({
  ports: [bp.id],
  rate: speedOf(w, bp),
  around: w.linkDelay,
  turns: 1,
});

/** Finds rings in what is open, tree by tree, and writes down when each began and ended. */
export function lookForLoops(w: World, vlans: ReadonlyMap<string, number>): void {
  if (w.changed.size === 0) return;
  const all = w.changed.has(-1);
  const hubs = [...w.loops].flatMap((id) => w.bridgePorts.get(id) ?? []);
  for (const [tree, vlan] of vlans) {
    if (!all && !w.changed.has(vlan)) continue;
    const rings = [
      ...ringsOf(w, vlan).map((edges) => ringWords(w, edges)),
      ...hubs.filter((bp) => passes(w, bp, vlan)).map((bp) => hubRing(w, bp)),
    ];
    const open = w.record.loopSpans.filter((l) => l.tree === tree && l.to === null);
    const same = (a: Ring, b: Ring) => [...a.ports].sort().join('\n') === [...b.ports].sort().join('\n');
    for (const span of open)
      if (!rings.some((r) => same(r, span))) {
        span.to = w.now;
        w.record.happened({ kind: 'loop-end', at: w.now, tree, ports: span.ports });
      }
    for (const ring of rings)
      if (!open.some((span) => same(ring, span))) {
        w.record.loopSpans.push({ tree, from: Math.max(0, w.now), to: null, ...ring });
        w.record.happened({ kind: 'loop', at: w.now, tree, links: ring.ports });
      }
  }
  w.changed.clear();
  w.looping = w.record.loopSpans.some((l) => l.to === null);
}
