/** What each port is plugged into, and which ports are open in a VLAN: the data plane as a graph of switches and LANs. */
import { groupBy, linkAt, segmentAt } from '../../design';
import { isForwarding } from '../engines';
import { reaches } from '../carrier';
import { isInconsistent, processOfVlan, treeOfVlan } from '../switch';
import type {
  BridgePort,
  Lans,
  Node,
  Part,
  PartSpread,
  PhysicalPort,
  Place,
  Spread,
  Touch,
  World,
} from '../network-state';

/** What the LAN of a physical port is called; both ends of a bundle that forms share one. */
function lanName(w: World, { id, attached }: PhysicalPort): string {
  if (w.loops.has(id)) return `hub ${id}`;
  const far = reaches(w, id);
  const [only] = far;
  if (only === undefined) return id;
  if (far.length > 1) return [id, ...far].sort().join(' ');
  const other = w.physical.get(only)?.attached;
  const [a, b, by] = attached && other ? [attached.id, other.id, ' = '] : [id, only, ' '];
  return a < b ? `${a}${by}${b}` : `${b}${by}${a}`;
}

/** Works the LANs of ports out again; the switches that they are ports of. */
function renumber(w: World, ports: Iterable<string>): Set<Node> {
  const nodes = new Set<Node>();
  for (const id of ports) {
    const physical = w.physical.get(id);
    if (!physical) continue;
    const name = lanName(w, physical);
    let lan = w.lanIds.get(name);
    if (lan === undefined) w.lanIds.set(name, (lan = w.lanIds.size));
    physical.lan = lan;
    nodes.add(physical.node);
  }
  return nodes;
}

/** Whether a port leads to anything at all. */
function isCabled(w: World, bp: BridgePort): boolean {
  const { design } = w.plan;
  const ports = 'members' in bp.element ? bp.element.members : [bp.id];
  return ports.some((id) => linkAt(design, id) !== undefined || segmentAt(design, id) !== undefined);
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

/** Where a switch touches LANs. */
function placeOf(w: World, node: Node, place: number): Place {
  const ports = [...node.ports.values()];
  const lanOf = (member: string) => w.physical.get(member)!.lan;
  // A bundle that one end alone has touches a LAN with each member.
  const touches = ports.flatMap((bp) => {
    const [first] = bp.active;
    if (bp.active.length === 1) return { bp, lan: lanOf(first!), nth: 0, of: 1 };
    const lans = [...new Set(bp.active.map(lanOf))];
    return lans.map((lan, nth): Touch => ({ bp, lan, nth, of: lans.length }));
  });
  return {
    node,
    place,
    touches,
    cabled: ports.filter((bp) => isCabled(w, bp)),
    most: touches.reduce((most, { of }) => Math.max(most, of), 1),
  };
}

/**
 * Every place at which a switch touches a LAN, whether open or not; worked out once after each change of cables, for the switches
 * around it.
 */
export function lansOf(w: World): Lans {
  if (w.lans) return w.lans;
  const changed = renumber(w, w.stalePorts ?? w.physical.keys());
  const known = w.stalePorts ? w.places : new Map<Node, Place>();
  w.stalePorts = new Set();
  const places = [...w.nodes.values()].map((node, place): Place => {
    const before = changed.has(node) ? undefined : known.get(node);
    return before?.place === place ? before : placeOf(w, node, place);
  });
  w.places = new Map(places.map((p) => [p.node, p]));
  const most = places.reduce((found, p) => Math.max(found, p.most), 1);
  const count = w.lanIds.size;
  const parts = partsOf(count, places);
  const partOf = new Map(parts.flatMap((part) => part.map(({ node }) => [node, part] as const)));
  w.lans = { count, parts, partOf, most };
  return w.lans;
}

/** Switches by what joins them; a LAN with one switch joins none. */
function partsOf(count: number, places: readonly Place[]): Part[] {
  const union = new Union(count + places.length);
  for (const { place, touches } of places) for (const { lan } of touches) union.join(count + place, lan);
  return [...groupBy(places, ({ place }) => union.find(count + place)).values()];
}

/** Whether something changed in a part since it was looked at. */
export const isStirred = (w: World, part: Part): boolean =>
  w.stirred === null || part.some(({ node }) => w.stirred!.has(node));

/** Visits every open touch of a VLAN in a part, with the place of its switch among all. Runs whenever a port opens or closes. */
export function eachOpen(
  w: World,
  part: Part,
  vlan: number,
  visit: (touch: Touch, node: Node, place: number) => void,
): void {
  for (const { node, place, touches } of part) {
    if (!node.on) continue;
    const process = node.treeOff ? undefined : processOfVlan(w, node, vlan);
    const tree = process ? treeOfVlan(process, vlan) : 0;
    for (const touch of touches) {
      const { bp } = touch;
      if (!bp.up || !bp.vlans[vlan]) continue;
      const open = !process || (isForwarding(process.engine, bp.number, tree) && !isInconsistent(bp, process));
      if (open) visit(touch, node, place);
    }
  }
}

/**
 * Whether a touch counts in the `n`th look at rings. No switch passes a frame on by the port that it came in by, so that a bundle
 * which touches several LANs is on a ring with one of them at a time.
 */
export const countsIn = (n: number, { nth, of }: Touch): boolean => nth === n % of;

/** The same where bundles touch several LANs. */
function hasRing(w: World, part: Part, vlan: number): boolean {
  const { count, most } = lansOf(w);
  for (let n = 0; n < most; n++) {
    const union = new Union(count + w.nodes.size);
    let ring = false;
    eachOpen(w, part, vlan, (touch, _, place) => {
      if (countsIn(n, touch) && !union.join(count + place, touch.lan)) ring = true;
    });
    if (ring) return true;
  }
  return false;
}

function lookAt(w: World, part: Part, vlan: number): PartSpread {
  const { count, most } = lansOf(w);
  const union = new Union(count + w.nodes.size);
  let ring = false;
  eachOpen(w, part, vlan, ({ lan }, _, place) => {
    if (!union.join(count + place, lan)) ring = true;
  });
  if (ring && most > 1) ring = hasRing(w, part, vlan);
  const carrying = part.filter(({ node, cabled }) => node.on && cabled.some((bp) => bp.vlans[vlan]));
  const groups = [...groupBy(carrying, ({ place }) => union.find(count + place)).values()].map((group) => ({
    first: group[0]!.place,
    switches: group.map(({ node }) => node.plan.id),
  }));
  return { size: part.length, ring, groups };
}

const sameSpread = (a: PartSpread | undefined, b: PartSpread): boolean =>
  a !== undefined &&
  a.ring === b.ring &&
  a.groups.length === b.groups.length &&
  a.groups.every(({ switches }, i) => switches.join('\n') === b.groups[i]!.switches.join('\n'));

const keyOf = (part: Part): string => part[0]!.node.plan.id;

/** Looks at the parts again in which something changed, where cables are as they were; whether any is another than before. */
function lookAgain(w: World, vlan: number, parts: Map<string, PartSpread>, stirred: ReadonlySet<Node>): boolean {
  const { partOf } = lansOf(w);
  let moved = false;
  for (const part of new Set([...stirred].flatMap((node) => (partOf.has(node) ? [partOf.get(node)!] : [])))) {
    const now = lookAt(w, part, vlan);
    if (!sameSpread(parts.get(keyOf(part)), now)) moved = true;
    parts.set(keyOf(part), now);
  }
  return moved;
}

/** Looks at all parts; one in which nothing changed is as it was. */
function lookAtAll(
  w: World,
  vlan: number,
  before: ReadonlyMap<string, PartSpread> | undefined,
): Map<string, PartSpread> {
  return new Map(
    lansOf(w).parts.map((part) => {
      const known = isStirred(w, part) ? undefined : before?.get(keyOf(part));
      return [keyOf(part), known?.size === part.length ? known : lookAt(w, part, vlan)] as const;
    }),
  );
}

/** How far a VLAN reaches now: networks side by side cost little more than apart. */
export function spreadOf(w: World, vlan: number): Spread {
  const lans = lansOf(w);
  const before = w.spreads.get(vlan);
  if (before?.lans === lans && w.stirred && !lookAgain(w, vlan, before.parts, w.stirred)) return before.spread;
  const parts = before?.lans === lans && w.stirred ? before.parts : lookAtAll(w, vlan, before?.parts);
  const groups = [...parts.values()].flatMap((s) => s.groups);
  groups.sort((a, b) => b.switches.length - a.switches.length || a.first - b.first);
  const rings = lans.parts.filter((part) => parts.get(keyOf(part))!.ring);
  const spread = { rings, apart: groups.slice(1).map((g) => g.switches) };
  w.spreads.set(vlan, { lans, parts, spread });
  return spread;
}
