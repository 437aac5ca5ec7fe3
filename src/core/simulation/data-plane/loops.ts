/** Rings in what is open: frames that loop, over which ports, for how long, and what that does. */
import { countsIn, eachOpen, lansOf, spreadOf } from './lans';
import { passes, speedOf } from '../switch';
import { awaitStorm, limitOf } from '../storms';
import type { LoopSpan } from '../../trace';
import type { BridgePort, Part, Touch, World } from '../network-state';

type Edge = Touch;

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

/** Rings of a VLAN's data plane in a part, apart from each other where they share no switch and no cable. */
function ringsOf(w: World, part: Part, vlan: number): Edge[][] {
  const open: Edge[] = [];
  eachOpen(w, part, vlan, (touch) => void open.push(touch));
  const groups = new Map<unknown, Edge[]>();
  const parent = new Map<unknown, unknown>();
  const find = (x: unknown): unknown => (parent.has(x) ? find(parent.get(x)) : x);
  const { most } = lansOf(w);
  const looks = Array.from({ length: most }, (_, n) => onRings(most === 1 ? open : open.filter((e) => countsIn(n, e))));
  const edges = [...new Set(looks.flat())];
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

type Ring = Pick<LoopSpan, 'ports' | 'rate' | 'limited' | 'around' | 'turns'>;

function ringWords(w: World, edges: readonly Edge[]): Ring {
  const ports = [...new Set(edges.map((e) => e.bp))];
  const switches = new Set(edges.map((e) => e.bp.node)).size;
  const places = switches + new Set(edges.map((e) => e.lan)).size;
  return {
    ports: ports.map((bp) => bp.id),
    rate: Math.min(...ports.map((bp) => speedOf(w, bp))),
    limited: limitOf(w, ports),
    around: switches * (w.linkDelay + w.processingDelay),
    turns: edges.length - places + 1,
  };
}

/** A hub with a loop gives back what it gets, again and again, without any switch. */
const hubRing = (w: World, bp: BridgePort): Ring => ({
  ports: [bp.id],
  rate: speedOf(w, bp),
  limited: limitOf(w, [bp]),
  around: w.linkDelay,
  turns: 1,
});

const sameRing = (a: Ring, b: Ring): boolean => [...a.ports].sort().join('\n') === [...b.ports].sort().join('\n');

/** Writes down which rings of a VLAN began and which ended. */
function noteRings(w: World, vlan: number, rings: readonly Ring[]): void {
  const open = w.record.loopSpans.filter((l) => l.vlan === vlan && l.to === null);
  for (const span of open) if (!rings.some((r) => sameRing(r, span))) span.to = w.now;
  for (const ring of rings)
    if (!open.some((span) => sameRing(ring, span)))
      w.record.loopSpans.push({ vlan, from: Math.max(0, w.now), to: null, ...ring });
  for (const ring of rings) awaitStorm(w, ring.ports);
}

/**
 * Probes every VLAN whose trees changed: whether it is connected, and whether something of it loops. Of VLANs
 * whose frames go alike, one is looked at.
 */
export function probeVlans(w: World): void {
  if (w.changed.size === 0) return;
  const all = w.changed.has(-1);
  const hubs = [...w.loops].flatMap((id) => w.bridgePorts.get(id) ?? []);
  for (const vlan of new Set(w.plan.representative.values())) {
    if (!all && !w.changed.has(vlan)) continue;
    const { rings: ringed, apart } = spreadOf(w, vlan);
    w.record.apart(w.now, vlan, apart);
    const rings = ringed.flatMap((part) => ringsOf(w, part, vlan)).map((edges) => ringWords(w, edges));
    noteRings(w, vlan, [...rings, ...hubs.filter((bp) => passes(w, bp, vlan)).map((bp) => hubRing(w, bp))]);
  }
  w.changed.clear();
  w.looping = w.record.loopSpans.some((l) => l.to === null);
}
