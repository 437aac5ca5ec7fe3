/** The way frames take between two places in one tree: along forwarding ports only, so there is at most one. */
import { analysisMessages as say } from '../messages';
import { hostById, switchById } from '../design';
import { vlanMembership } from '../standard';
import { forwardsRole, ROLE, stepCost, treeOnSwitch } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { walkFrom } from '../network';
import type { Step } from '../network';

/** A switch or a host, by id. */
export type Place = { readonly switch: string } | { readonly host: string };

export interface Hop {
  readonly bridge: number;
  /** Logical port in by which frames come; null at the first switch of a path that starts there. */
  readonly inPort: number | null;
  readonly outPort: number | null;
  /** What the step into this switch costs in the tree: the cost of the end that is nearer to the leaves. */
  readonly cost: number;
}

export type PathFault =
  | { readonly kind: 'same-place' }
  | { readonly kind: 'host-unplugged'; readonly host: string }
  | { readonly kind: 'not-in-tree'; readonly bridge: number; readonly why: 'off' | 'no-vlan' | 'not-run' }
  | { readonly kind: 'apart'; readonly from: number; readonly to: number }
  | { readonly kind: 'vlan-missing'; readonly vlan: number; readonly port: number };

export interface Path {
  readonly hops: readonly Hop[];
  readonly cost: number;
  /** Logical ports in the order in which frames pass them. */
  readonly ports: readonly number[];
  /** The first place where a frame of the VLAN asked about is lost although the tree is open. */
  readonly lostAt: PathFault | null;
}

export type PathAnswer = { ok: true; path: Path } | { ok: false; fault: PathFault };

type RoleOfPort = (port: number) => number;

/** The role of a port in the tree that a VLAN's frames follow on its switch; without a VLAN, in the tree asked about. */
function rolesFor(solved: SolvedDesign, of: SolvedTree, vlan: number | null): RoleOfPort {
  if (vlan === null || of.tree.instance === null) return (port) => of.outcome.role[port]!;
  const { portBridge } = solved.topology;
  return (port) => treeOnSwitch(solved, portBridge[port]!, vlan).outcome.role[port]!;
}

/** Where a place meets the network: its bridge, and for a host the switch port it is plugged into. */
function attach(
  solved: SolvedDesign,
  roleOf: RoleOfPort,
  place: Place,
): { bridge: number; port: number | null } | PathFault {
  const { design, bridgeIndex, portIndex, portBridge } = solved.topology;
  if ('switch' in place) return { bridge: bridgeIndex.get(place.switch)!, port: null };
  for (const link of design.links) {
    const [host, port] =
      'host' in link.a ? [link.a.host, link.b] : 'host' in link.b ? [link.b.host, link.a] : [null, null];
    if (host !== place.host || !port || !('port' in port)) continue;
    const index = portIndex.get(port.port)!;
    if (forwardsRole(roleOf(index))) return { bridge: portBridge[index]!, port: index };
  }
  return { kind: 'host-unplugged', host: place.host };
}

const leadsUp = (role: number): boolean => role === ROLE.root || role === ROLE.master;

/** Whether a switch has the tree, or for a VLAN the one its frames follow there. */
function takesPart(solved: SolvedDesign, of: SolvedTree, bridge: number, vlan: number | null): boolean {
  const on = vlan === null ? of : treeOnSwitch(solved, bridge, vlan);
  return on.outcome.root[bridge]! >= 0;
}

/** Why a switch has no part in a tree. */
function whyApart(solved: SolvedDesign, of: SolvedTree, bridge: number): PathFault {
  const why = solved.topology.design.switches[bridge]!.off ? 'off' : of.tree.vlan === null ? 'not-run' : 'no-vlan';
  return { kind: 'not-in-tree', bridge, why };
}

/** First port on the way that does not carry the VLAN; a tree for all VLANs stays open where a VLAN was pruned. */
function firstLoss(solved: SolvedDesign, ports: readonly number[], vlan: number | null): PathFault | null {
  if (vlan === null) return null;
  const { portVlans, vlanSets } = solved.topology;
  const port = ports.find((p) => !vlanMembership(vlanSets[portVlans[p]!]!)[vlan]);
  return port === undefined ? null : { kind: 'vlan-missing', vlan, port };
}

/**
 * The path between two places in a solved tree, with its cost. For a tree of all VLANs, `asked` tells which VLAN's
 * frames to follow; a link that the tree keeps open but the VLAN does not pass is reported in `lostAt`.
 */
export function findPath(
  solved: SolvedDesign,
  of: SolvedTree,
  from: Place,
  to: Place,
  asked: number | null,
): PathAnswer {
  // In a mixed network a VLAN's frames follow another tree on switches that do not run its own.
  const vlan = asked ?? of.tree.vlan;
  const roleOf = rolesFor(solved, of, vlan);
  const [start, end] = [attach(solved, roleOf, from), attach(solved, roleOf, to)];
  if ('kind' in start) return { ok: false, fault: start };
  if ('kind' in end) return { ok: false, fault: end };
  if (JSON.stringify(from) === JSON.stringify(to)) return { ok: false, fault: { kind: 'same-place' } };
  for (const place of [start, end])
    if (!takesPart(solved, of, place.bridge, vlan)) return { ok: false, fault: whyApart(solved, of, place.bridge) };
  const reached = walkFrom(solved.topology, start.bridge, (port) => forwardsRole(roleOf(port)));
  if (!reached.has(end.bridge)) return { ok: false, fault: { kind: 'apart', from: start.bridge, to: end.bridge } };

  const hops: Hop[] = [];
  let outPort = end.port;
  for (let bridge = end.bridge; bridge >= 0;) {
    const step = reached.get(bridge)!;
    const counted = step.in < 0 ? -1 : leadsUp(roleOf(step.in)) ? step.in : step.out;
    const inPort = step.in < 0 ? start.port : step.in;
    // Between two designated ends no cost arises; on a shared segment both may be, with the root port a third one.
    const cost = counted < 0 || !leadsUp(roleOf(counted)) ? 0 : stepCost(of, counted);
    hops.unshift({ bridge, inPort, outPort, cost: segmentCost(of, roleOf, step, cost) });
    outPort = step.out < 0 ? null : step.out;
    bridge = step.via;
  }
  const ports = hops.flatMap((h) => [h.inPort, h.outPort].filter((p): p is number => p !== null));
  return {
    ok: true,
    path: {
      hops,
      cost: hops.reduce((sum, h) => sum + h.cost, 0),
      ports,
      lostAt: firstLoss(solved, ports, vlan),
    },
  };
}

/** Over a shared segment frames may pass from one root port to another without touching the designated bridge. */
function segmentCost(of: SolvedTree, roleOf: RoleOfPort, step: Step, cost: number): number {
  if (step.in < 0 || !leadsUp(roleOf(step.in)) || !leadsUp(roleOf(step.out))) return cost;
  return stepCost(of, step.in) + stepCost(of, step.out);
}

/** One sentence about a path that does not exist or loses its frames. */
export function pathFaultSentence(solved: SolvedDesign, fault: PathFault): string {
  const { design } = solved.topology;
  const name = (bridge: number) => design.switches[bridge]!.name;
  switch (fault.kind) {
    case 'same-place':
      return say['same-place']();
    case 'host-unplugged':
      return say['host-without-port']({ name: hostById(design, fault.host)?.name ?? fault.host });
    case 'not-in-tree':
      return say['switch-not-in-tree']({ name: name(fault.bridge), why: fault.why });
    case 'apart':
      return say['no-path']({ from: name(fault.from), to: name(fault.to) });
    case 'vlan-missing': {
      const { element } = solved.topology.ports[fault.port]!;
      return say['vlan-missing']({
        vlan: fault.vlan,
        port: element.name,
        name: switchById(design, element.switch)?.name ?? element.switch,
      });
    }
  }
}
