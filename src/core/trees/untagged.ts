/**
 * Cables whose ends differ in the VLAN that travels untagged. Switches with a tree per VLAN notice it, since each VLAN's
 * BPDUs name their VLAN: what names another VLAN than the one it came in holds the port inconsistent in both.
 */
import { isFiltered, isPerVlan, modeOf, segmentAt } from '../design';
import { lansOf, peersOf, portsOnLan } from '../network';
import { formatVlanRanges, vlanMembership } from '../standard';
import { ROLE } from './outcome';
import type { TreeOutcome } from './outcome';
import type { Topology } from './topology';

/** VLANs in which each of some logical ports is held. */
type Held = ReadonlyMap<number, readonly number[]>;

/** VLAN that travels untagged at a logical port; 0 for none. */
const untaggedAt = ({ ports }: Topology, port: number): number => ports[port]!.element.native ?? 0;
const carries = ({ vlanSets, portVlans }: Topology, port: number, vlan: number): boolean =>
  vlanMembership(vlanSets[portVlans[port]!]!)[vlan] === 1;

/**
 * VLANs in which a port is held by what it hears from the other: what the other sends untagged is of another VLAN here,
 * and what is untagged here comes tagged. An access port of VLAN 1 sends its BPDUs in the plain form alone, which names no
 * VLAN.
 */
function heldBy(topology: Topology, port: number, other: number, trees: ReadonlySet<number>): number[] {
  const [own, far] = [untaggedAt(topology, port), untaggedAt(topology, other)];
  const says = far > 1 || (far === 1 && topology.ports[other]!.element.vlans !== '1');
  const named = says && trees.has(far) ? [own, far] : [];
  const tagged = own > 0 && trees.has(own) && carries(topology, other, own) ? [own] : [];
  return [...new Set([...named, ...tagged])].filter((v) => v > 0 && trees.has(v) && carries(topology, port, v));
}

const known = new WeakMap<Topology, Held>();

/** Logical ports that are inconsistent, and in which VLANs. Shared segments are not looked at. */
export function heldPorts(topology: Topology): Held {
  const before = known.get(topology);
  if (before) return before;
  const { design, ports, portBridge, lanCount } = topology;
  const perVlan = design.switches.map((s) => isPerVlan(modeOf(design, s)));
  const trees = new Set(design.vlans.map((v) => v.number));
  const held = new Map<number, readonly number[]>();
  const named = ports.some(({ element }) => element.native !== undefined) && perVlan.some(Boolean);
  for (let lan = 0; named && lan < lanCount; lan++) {
    const [a, b, ...others] = portsOnLan(topology, lan);
    if (a === undefined || b === undefined || others.length > 0) continue;
    if (untaggedAt(topology, a) === untaggedAt(topology, b)) continue;
    if (!perVlan[portBridge[a]!] || !perVlan[portBridge[b]!]) continue;
    // Without BPDUs neither end detects anything.
    if (isFiltered(design, ports[a]!.element) || isFiltered(design, ports[b]!.element)) continue;
    if (segmentAt(design, ports[a]!.element.id)) continue;
    for (const [port, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const vlans = heldBy(topology, port, other, trees);
      if (vlans.length > 0) held.set(port, vlans);
    }
  }
  known.set(topology, held);
  return held;
}

/** Ports that are held in a VLAN. */
export function heldIn(topology: Topology, vlan: number | null): readonly number[] {
  const held = heldPorts(topology);
  if (vlan === null || held.size === 0) return NONE;
  return [...held].flatMap(([port, vlans]) => (vlans.includes(vlan) ? [port] : []));
}
const NONE: readonly number[] = [];

/**
 * Ports that are held in a VLAN while the other end is not, although it carries the VLAN: an access port of VLAN 1, whose
 * plain BPDUs the other end takes for those of a trunk. They are heard, and take nothing in.
 */
export function heldAlone(topology: Topology, vlan: number | null): readonly number[] {
  const held = heldIn(topology, vlan);
  return held.filter((port) =>
    peersOf(topology, port).some((other) => !held.includes(other) && carries(topology, other, vlan!)),
  );
}

/** Held ports that reach no LAN in a tree: those of which the other end receives no BPDU. */
export const apartOf = (held: readonly number[], heard: readonly number[]): readonly number[] =>
  heard.length === 0 ? held : held.filter((port) => !heard.includes(port));

const without = new WeakMap<Topology, Map<string, Topology>>();

/** The topology in which some held ports reach no LAN; the same object for the same ports. */
export function withoutHeld(topology: Topology, held: readonly number[]): Topology {
  if (held.length === 0) return topology;
  let made = without.get(topology);
  if (!made) without.set(topology, (made = new Map()));
  const key = held.join();
  let found = made.get(key);
  if (!found) {
    const apart = new Set(held);
    const portLan = topology.portLan.map((lan, port) => (apart.has(port) ? -1 : lan));
    found = { ...topology, ...lansOf(topology.lanCount, portLan) };
    made.set(key, found);
  }
  return found;
}

/** The outcome with held ports in it: they are cut. */
export function holding(outcome: TreeOutcome, held: readonly number[]): TreeOutcome {
  if (held.every((port) => outcome.role[port] === ROLE.alternate)) return outcome;
  const role = outcome.role.slice();
  for (const port of held) role[port] = ROLE.alternate;
  return { ...outcome, role };
}

/**
 * VLAN whose tree becomes one with that of other switches at a LAN: a port of a switch with trees per VLAN carries it alone,
 * untagged, and so speaks plainly to switches without; 0 for none. The solver keeps the two trees apart.
 */
export function joinedAt(topology: Topology, port: number): number {
  const { design, ports, portLan, portBridge } = topology;
  const around = [...portsOnLan(topology, portLan[port]!)];
  const perVlan = (p: number) => isPerVlan(modeOf(design, design.switches[portBridge[p]!]!));
  if (around.every(perVlan)) return 0;
  for (const p of around) {
    const { native, vlans } = ports[p]!.element;
    if (perVlan(p) && native !== undefined && native !== 1 && vlans === String(native)) return native;
  }
  return 0;
}

/** `VLAN 10`, `VLANs 10, 20`: those in which a port is held. */
export function heldVlanWords(topology: Topology, port: number): string {
  const vlans = heldPorts(topology).get(port) ?? [];
  return `${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${formatVlanRanges(vlans).replaceAll(',', ', ')}`;
}
