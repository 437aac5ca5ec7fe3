/** Which switches and hosts frames of each VLAN join: parts of the network, VLAN by VLAN. */
import { linksOfHost, portById, vlansAt } from '../design';
import type { Design, PlaceRef } from '../design';
import { isMixed, mixtureOf } from '../network';
import { remembered } from '../remembered';
import { vlanMembership, vlanTreeId } from '../standard';
import { forwardsRole, treeOnSwitch } from '../trees';
import type { Element } from './elements';
import { Parts } from './parts';
import type { SolvedDesign, SolvedTree } from '../trees';

/** Parts of one VLAN, or of several that cannot differ. */
export interface VlanParts {
  readonly vlans: readonly number[];
  /** Part of each switch of the design; −1 where it does not carry the VLAN or is off. */
  readonly partOf: Int32Array;
  /** Parts that the cards of each host of the VLAN lead to, by its index in the design; none while it reaches no switch. */
  readonly hosts: ReadonlyMap<number, readonly number[]>;
  /** The largest: most switches, then most hosts; −1 where there is no switch. */
  readonly largest: number;
  /** 1 for each switch that carries the VLAN on some port with a cable. */
  readonly carriers: Uint8Array;
}

/** VLAN of each host: its own, else what is untagged at its port; null without a port. */
export const hostVlans = remembered((design: Design): readonly (number | null)[] =>
  design.hosts.map((host) => {
    const end = linksOfHost(design, host.id)
      .flatMap((l) => [l.a, l.b])
      .find((e) => 'port' in e);
    if (!end || !('port' in end)) return null;
    return host.vlan ?? vlansAt(design, end.port).native ?? 1;
  }),
);

const hasSeveralTrees = (design: Design): boolean => {
  const mixture = mixtureOf(design);
  return mixture.mst || isMixed(mixture);
};

/** The tree that a VLAN's frames follow at each bridge: one for all, unless instances are mapped unlike or modes are mixed. */
function treesAt(solved: SolvedDesign, vlan: number): SolvedTree | readonly SolvedTree[] {
  const { design } = solved.topology;
  if (!hasSeveralTrees(design)) return solved.byId.get(vlanTreeId(vlan)) ?? solved.trees[0]!;
  return design.switches.map((_, bridge) => treeOnSwitch(solved, bridge, vlan));
}

/** Switches of the design that carry a VLAN on some port with a cable; members count for their bundle. */
function carriersOf(solved: SolvedDesign, member: (set: number) => boolean): Uint8Array {
  const { design, ports, portVlans, portIndex } = solved.topology;
  const own = new Map(design.switches.map((s, i) => [s.id, i]));
  const carries = new Uint8Array(design.switches.length);
  const note = (port: string) => {
    const index = portIndex.get(port);
    const element = design.ports[portPlace(design).get(port)!];
    if (index === undefined || !element || element.down) return;
    if (ports[index] && member(portVlans[index]!)) carries[own.get(element.switch)!] = 1;
  };
  for (const l of design.links) for (const end of [l.a, l.b]) if ('port' in end) note(end.port);
  for (const s of design.segments) s.ports.forEach(note);
  return carries;
}
const portPlace = remembered((design: Design) => new Map(design.ports.map((p, i) => [p.id, i])));

/**
 * Parts that forwarding ports make of the switches that carry a VLAN. `like`: the same without a failure: which switches carry
 * it, and which hosts are in it, stays.
 */
export function partsOfVlan(solved: SolvedDesign, vlans: readonly number[], like?: VlanParts): VlanParts {
  const [vlan] = vlans as [number];
  const { topology } = solved;
  const { design, actsAs, portBridge, portVlans, vlanSets } = topology;
  const trees = treesAt(solved, vlan);
  const one = 'tree' in trees ? trees : null;
  const own = one?.topology ?? topology;
  const carried = vlanSets.map((set) => vlanMembership(set)[vlan] === 1);
  const roleIn = one?.outcome.role;
  const roleAt = (port: number) =>
    roleIn ? roleIn[port] : (trees as readonly SolvedTree[])[portBridge[port]!]!.outcome.role[port];
  const passes = (port: number): boolean => carried[portVlans[port]!]! && forwardsRole(roleAt(port));
  const bridges = design.switches.length;
  const sets = new Parts(bridges);
  const { lanCount, lanStart, lanPorts } = own;
  // Written out: this runs for every VLAN of every failure.
  for (let lan = 0; lan < lanCount; lan++) {
    let first = -1;
    for (let i = lanStart[lan]!; i < lanStart[lan + 1]!; i++) {
      const port = lanPorts[i]!;
      if (!passes(port)) continue;
      if (first < 0) first = portBridge[port]!;
      else sets.join(first, portBridge[port]!);
    }
  }
  const carriers = like?.carriers ?? carriersOf(solved, (set) => carried[set]!);
  const hosts = like ? [...like.hosts.keys()] : hostsIn(design, vlans);
  const partOfPort = (port: number) => (passes(port) ? sets.top(portBridge[port]!) : -1);
  const partOf = Int32Array.from(design.switches, (s, b) => (carriers[b] && !s.off ? sets.top(actsAs[b]!) : -1));
  return {
    vlans,
    partOf,
    carriers,
    ...withHosts(solved, hosts, partOf, partOfPort),
  };
}

/** Hosts of some VLANs, by index. */
const hostsIn = (design: Design, vlans: readonly number[]): number[] =>
  [...hostVlans(design).entries()].flatMap(([i, vlan]) => (vlan !== null && vlans.includes(vlan) ? [i] : []));

/** Hosts by the parts that they are in, and which part is the largest. */
function withHosts(
  { topology: { design, portIndex } }: SolvedDesign,
  all: readonly number[],
  partOf: Int32Array,
  partOfPort: (port: number) => number,
): Pick<VlanParts, 'hosts' | 'largest'> {
  const hosts = new Map<number, readonly number[]>();
  for (const i of all) {
    const parts = linksOfHost(design, design.hosts[i]!.id).flatMap((link) => {
      const end = 'port' in link.a ? link.a : link.b;
      if (!('port' in end) || link.down) return [];
      const part = partOfPort(portIndex.get(end.port)!);
      return part < 0 ? [] : [part];
    });
    hosts.set(i, [...new Set(parts)]);
  }
  const size = new Map<number, number>();
  for (const part of partOf) if (part >= 0) size.set(part, (size.get(part) ?? 0) + 1e6);
  for (const parts of hosts.values()) for (const part of parts) if (size.has(part)) size.set(part, size.get(part)! + 1);
  let largest = -1;
  for (const [part, count] of size) if (largest < 0 || count > size.get(largest)!) largest = part;
  return { hosts, largest };
}

/** VLANs that cannot differ: the same trees, carried by the same ports; those with hosts stand alone. */
function classesOf(solved: SolvedDesign): number[][] {
  const { design, vlanSets } = solved.topology;
  const ids = new Map<object, number>();
  const idOf = (of: SolvedTree) => {
    if (!ids.has(of.outcome)) ids.set(of.outcome, ids.size);
    return ids.get(of.outcome)!;
  };
  const withHost = new Set(hostVlans(design));
  const classes = new Map<string, number[]>();
  for (const { number } of design.vlans) {
    const trees = treesAt(solved, number);
    const tree = 'tree' in trees ? idOf(trees) : trees.map(idOf).join();
    const sets = vlanSets.map((set) => vlanMembership(set)[number]).join('');
    const key = `${tree} ${sets} ${withHost.has(number) ? number : ''}`;
    const list = classes.get(key);
    if (list) list.push(number);
    else classes.set(key, [number]);
  }
  return [...classes.values()];
}

/** Parts of every VLAN of a solved design. */
export const reachOf = (solved: SolvedDesign): VlanParts[] =>
  solved.trees.length === 0 ? [] : classesOf(solved).map((vlans) => partsOfVlan(solved, vlans));

/**
 * Whether the tree of some VLANs joins all switches that carry them, by ports that all carry them, and all their hosts: whatever
 * keeps its root in the tree is then joined.
 */
export function isWhole(solved: SolvedDesign, parts: VlanParts): boolean {
  let known = wholes.get(solved);
  if (!known) wholes.set(solved, (known = new Map()));
  let whole = known.get(parts);
  if (whole === undefined) known.set(parts, (whole = findWhole(solved, parts)));
  return whole;
}
const wholes = new WeakMap<SolvedDesign, Map<VlanParts, boolean>>();

function findWhole(solved: SolvedDesign, { vlans, partOf, hosts, largest }: VlanParts): boolean {
  const trees = treesAt(solved, vlans[0]!);
  if (!('tree' in trees) || trees.topology !== solved.topology) return false;
  const { portVlans, vlanSets, actsAs, portLan } = solved.topology;
  const { problem, outcome } = trees;
  const carried = vlanSets.map((set) => vlans.every((vlan) => vlanMembership(set)[vlan] === 1));
  const root = partOf.findIndex((part) => part >= 0);
  return (
    partOf.every((part, b) => part < 0 || (part === largest && outcome.root[actsAs[b]!] === outcome.root[root])) &&
    [...hosts.values()].every((own) => own.includes(largest)) &&
    portLan.every((lan, p) => lan < 0 || problem.portTakesPart[p] === 0 || carried[portVlans[p]!]!)
  );
}

/** Parts of the same VLANs with a failure. */
export const reachAfter = (before: readonly VlanParts[], after: SolvedDesign): VlanParts[] =>
  before.map((parts) => partsOfVlan(after, parts.vlans, parts));

/** VLANs of hosts by the cables and the switches that they hang on. */
const hostVlansBy = remembered((design: Design): ReadonlyMap<string, readonly number[]> => {
  const found = new Map<string, number[]>();
  const note = (key: string, vlan: number) => found.set(key, [...(found.get(key) ?? []), vlan]);
  hostVlans(design).forEach((vlan, i) => {
    if (vlan === null) return;
    for (const link of linksOfHost(design, design.hosts[i]!.id)) {
      const end = 'port' in link.a ? link.a : link.b;
      note(`link ${link.id}`, vlan);
      const at = 'port' in end ? portById(design, end.port)?.switch : undefined;
      if (at !== undefined) note(`switch ${at}`, vlan);
    }
  });
  return found;
});

/** VLANs of hosts whose cables or switches fail. */
export function hostVlansHit(design: Design, elements: readonly Element[]): ReadonlySet<number> {
  const by = hostVlansBy(design);
  if (by.size === 0) return new Set();
  return new Set(
    elements.flatMap(({ links, switches }) => [
      ...links.flatMap((id) => by.get(`link ${id}`) ?? []),
      ...switches.flatMap((id) => by.get(`switch ${id}`) ?? []),
    ]),
  );
}

/** The parts that a place is in, in a VLAN; none where it has no part in it. */
export function partsOfPlace(design: Design, parts: VlanParts, place: PlaceRef): readonly number[] {
  if ('host' in place) return parts.hosts.get(design.hosts.findIndex((h) => h.id === place.host)) ?? [];
  const part = parts.partOf[design.switches.findIndex((s) => s.id === place.switch)] ?? -1;
  return part < 0 ? [] : [part];
}
