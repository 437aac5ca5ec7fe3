/** What each port is plugged into, and which ports are open in a VLAN: the data plane as a graph of switches and LANs. */
import { linkAt, segmentAt } from '../../design';
import { isForwarding } from '../engines';
import { reaches } from '../carrier';
import { isInconsistent, processOfVlan, treeOfVlan } from '../switch';
import type { BridgePort, Lans, Node, Touch, World } from '../network-state';

/** Number of the LAN of each physical port; both ends of a bundle that forms share one. */
function lanNumbers(w: World): Map<string, number> {
  const names = new Map<string, number>();
  const numbers = new Map<string, number>();
  for (const { id, attached } of w.physical.values()) {
    const far = reaches(w, id);
    const other = far.length === 1 ? w.physical.get(far[0]!)?.attached : null;
    const name = w.loops.has(id)
      ? `hub ${id}`
      : attached && other
        ? [attached.id, other.id].sort().join(' = ')
        : [id, ...far].sort().join(' ');
    if (!names.has(name)) names.set(name, names.size);
    numbers.set(id, names.get(name)!);
  }
  return numbers;
}

/** Whether a port leads to anything at all. */
function isCabled(w: World, bp: BridgePort): boolean {
  const { design } = w.plan;
  const ports = 'members' in bp.element ? bp.element.members : [bp.id];
  return ports.some((id) => linkAt(design, id) !== undefined || segmentAt(design, id) !== undefined);
}

/** Every place at which a switch touches a LAN, whether open or not; worked out once after each change of cables. */
export function lansOf(w: World): Lans {
  if (w.lans) return w.lans;
  const numbers = lanNumbers(w);
  const nodes = [...w.nodes.values()].map((node) => {
    const ports = [...node.ports.values()];
    // A bundle that one end alone has touches a LAN with each member.
    const touches = ports.flatMap((bp) => {
      const lans = [...new Set(bp.active.map((member) => numbers.get(member)!))];
      return lans.map((lan, nth): Touch => ({ bp, lan, nth, of: lans.length }));
    });
    return { node, touches, cabled: ports.filter((bp) => isCabled(w, bp)) };
  });
  const most = Math.max(1, ...nodes.flatMap((n) => n.touches.map((t) => t.of)));
  w.lans = { count: new Set(numbers.values()).size, nodes, most };
  return w.lans;
}

/** Visits every open touch of a VLAN, with the place of its switch among all. Runs whenever a port opens or closes. */
export function eachOpen(w: World, vlan: number, visit: (touch: Touch, node: Node, place: number) => void): void {
  lansOf(w).nodes.forEach(({ node, touches }, place) => {
    if (!node.on) return;
    const process = node.treeOff ? undefined : processOfVlan(w, node, vlan);
    const tree = process ? treeOfVlan(process, vlan) : 0;
    for (const touch of touches) {
      const { bp } = touch;
      if (!bp.up || !bp.vlans[vlan]) continue;
      const open = !process || (isForwarding(process.engine, bp.number, tree) && !isInconsistent(bp, process));
      if (open) visit(touch, node, place);
    }
  });
}

/** Which are joined with which: a forest over switches and LANs. */
class Union {
  private readonly parent: Int32Array;
  constructor(size: number) {
    this.parent = new Int32Array(size).fill(-1);
  }
  find(x: number): number {
    let top = x;
    while (this.parent[top]! >= 0) top = this.parent[top]!;
    if (top !== x) this.parent[x] = top;
    return top;
  }
  /** False when they were joined already. */
  join(a: number, b: number): boolean {
    const [x, y] = [this.find(a), this.find(b)];
    if (x === y) return false;
    this.parent[x] = y;
    return true;
  }
}

/** How far a VLAN reaches. */
export interface Spread {
  /** Whether what is open holds a ring: joins two that are joined already. */
  readonly ring: boolean;
  /** Parts that the largest one does not reach, as switches; none where the VLAN is connected. */
  readonly apart: readonly (readonly string[])[];
}

/**
 * Whether a touch counts in the `n`th look at rings. No switch passes a frame on by the port that it came in by, so that a bundle
 * which touches several LANs is on a ring with one of them at a time.
 */
export const countsIn = (n: number, { nth, of }: Touch): boolean => nth === n % of;

/** The same where bundles touch several LANs. */
function hasRing(w: World, vlan: number): boolean {
  const { count, nodes, most } = lansOf(w);
  for (let n = 0; n < most; n++) {
    const union = new Union(count + nodes.length);
    let ring = false;
    eachOpen(w, vlan, (touch, _, place) => {
      if (countsIn(n, touch) && !union.join(count + place, touch.lan)) ring = true;
    });
    if (ring) return true;
  }
  return false;
}

export function spreadOf(w: World, vlan: number): Spread {
  const { count, nodes, most } = lansOf(w);
  const union = new Union(count + nodes.length);
  let ring = false;
  eachOpen(w, vlan, ({ lan }, _, place) => {
    if (!union.join(count + place, lan)) ring = true;
  });
  if (ring && most > 1) ring = hasRing(w, vlan);
  const parts = new Map<number, string[]>();
  nodes.forEach(({ node, cabled }, place) => {
    if (!node.on || !cabled.some((bp) => bp.vlans[vlan])) return;
    const top = union.find(count + place);
    const part = parts.get(top);
    if (part) part.push(node.plan.id);
    else parts.set(top, [node.plan.id]);
  });
  const sorted = [...parts.values()].sort((a, b) => b.length - a.length);
  return { ring, apart: sorted.slice(1) };
}
