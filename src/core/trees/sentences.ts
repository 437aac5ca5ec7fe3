/** The one plain sentence of each ledger. Costs are written with thin groups of three digits, as on the chart. */
import { isPeerPort, peersOf, verdictOf } from '../network';
import { bundleAt, farEnd, linkAt, portById, segmentAt, switchById, untaggedWords } from '../design';
import type { Port } from '../design';
import { grouped, numberToMac } from '../standard';
import type { PriorityVector } from '../standard';
import type { Candidate, Contest, TreeReader } from './candidates';
import type { Role } from './outcome';
import type { SolvedTree } from './solved';
import type { Topology } from './topology';
import { heldVlanWords, joinedAt } from './untagged';

const priorityOf = (reader: TreeReader, bridge: number) => reader.of.problem.bridgePriority[bridge]!;

function electionWords(reader: TreeReader, contest: Contest): string {
  const [first, second] = contest.candidates as [Candidate, Candidate?];
  const name = reader.bridgeName(first.bridge);
  if (!second) return `${name} is root: no other switch is in this part of the tree`;
  const next = reader.bridgeName(second.bridge);
  if (contest.decidedBy === 'priority')
    return `${name} is root: its priority ${priorityOf(reader, first.bridge)} is the lowest, ${next} comes next with ${priorityOf(reader, second.bridge)}`;
  return `${name} is root by MAC address only: it has the same priority ${priorityOf(reader, first.bridge)} as ${next}, and its MAC address ${numberToMac(first.vector.root.mac)} is lower`;
}

export function treeSentence(reader: TreeReader, contests: readonly Contest[]): string {
  if (contests.length === 0) return 'No switch that is powered on carries this tree.';
  const first = electionWords(reader, contests[0]!);
  if (contests.length === 1) return `${first}.`;
  const regions = reader.regionCount();
  if (regions >= contests.length)
    return `The instance has its own root in each of ${contests.length} regions. In the largest, ${first}.`;
  return `The tree is partitioned into ${contests.length} parts, each with its own root. In the largest, ${first}.`;
}

export const rootSentence = (reader: TreeReader, contest: Contest): string => `${electionWords(reader, contest)}.`;

export function noTreeSentence(reader: TreeReader, bridge: number): string {
  const name = reader.bridgeName(bridge);
  return reader.topology.design.switches[bridge]!.off
    ? `${name} is switched off.`
    : reader.of.tree.vlan === null
      ? `${name} does not run this tree: ${reader.of.tree.instance ? `no VLAN is in instance ${reader.of.tree.instance} there, or it does not run MSTP` : 'none of its ports takes part'}.`
      : `${name} has no port in this tree: none of its ports carries the VLAN.`;
}

/** What a vector costs: in the CIST the parts outside and inside the region where both count. */
function costWords({ rootPathCost, internalCost }: PriorityVector): string {
  if (internalCost === undefined || internalCost === 0) return grouped(rootPathCost);
  if (rootPathCost === 0) return `${grouped(internalCost)} inside the region`;
  return `${grouped(rootPathCost)} outside and ${grouped(internalCost)} inside the region`;
}

const isRoot = (reader: TreeReader, bridge: number) => reader.of.outcome.root[bridge] === bridge;

/** Why a port has the role that another tree gives it. */
export function followsSentence(
  reader: TreeReader,
  port: number,
  follows: SolvedTree,
  role: Role,
  sentence: string,
): string {
  const name = reader.bridgeName(reader.topology.portBridge[port]!);
  if (reader.of.tree.vlan !== null)
    return `${name} has no tree for VLAN ${reader.of.tree.vlan} alone; its frames follow ${follows.tree.name} there. ${sentence}`;
  if (role === 'master') return `Master: here the CIST leaves the region, and every instance with it. ${sentence}`;
  return `Boundary of the region: the instances follow the CIST here. ${sentence}`;
}

/** How the winner of a comparison of received vectors beat the next. */
export function rootPortSentence(reader: TreeReader, bridge: number, contest: Contest): string {
  const winner = contest.candidates.find((c) => c.wins)!;
  const second = contest.candidates.find((c) => c.lostBy !== null && !c.own);
  const from = reader.bridgeName(winner.bridge);
  const port = reader.portName(winner.port!);
  const base = `${reader.bridgeName(bridge)} reaches the root through port ${port}, by ${from}, at ${costWords(winner.vector)}`;
  if (!second) return `${base}; no other port receives a path to the root.`;
  const other = `port ${reader.portName(second.port!)} by ${reader.bridgeName(second.bridge)}`;
  switch (second.lostBy) {
    case 'rootPathCost':
    case 'internalCost':
      return `${base}; ${other} would cost ${costWords(second.vector)}.`;
    case 'regionalRoot':
      return `${base}; ${other} costs the same outside, but through a worse regional root.`;
    case 'designatedBridge':
      return `${base}; ${other} costs the same, but ${from} has the lower bridge identifier.`;
    case 'designatedPort':
      return `${base}; ${other} costs the same, but the far end's port identifier is lower on port ${port}.`;
    default:
      return `${base}; ${other} receives the same vector, and its own port identifier is higher.`;
  }
}

/** `this end`, and what stands at the other. */
const offerOf = (contest: Contest, port: number) => contest.candidates.find((c) => c.port === port)!;

export function designatedSentence(reader: TreeReader, port: number, contest: Contest): string {
  const mine = offerOf(contest, port);
  const second = contest.candidates.find((c) => c.lostBy !== null);
  if (!second) return aloneSentence(reader, port);
  const far = reader.bridgeName(second.bridge);
  if (isRoot(reader, mine.bridge) && second.bridge !== mine.bridge)
    return 'Designated: every port of the root is designated.';
  switch (second.lostBy) {
    case 'rootPathCost':
    case 'internalCost':
      return `Designated: this end reaches the root at ${costWords(mine.vector)}, ${far} at ${costWords(second.vector)}.`;
    case 'regionalRoot':
      return `Designated: both ends reach the root at ${grouped(mine.vector.rootPathCost)} outside, and this end has the better regional root.`;
    case 'designatedBridge':
      return `Designated: both ends reach the root at ${costWords(mine.vector)}, and this end has the lower bridge identifier.`;
    default:
      return 'Designated: of this switch’s ports on the same LAN it has the lowest port identifier.';
  }
}

export function cutSentence(reader: TreeReader, port: number, role: 'alternate' | 'backup', contest: Contest): string {
  const mine = offerOf(contest, port);
  const winner = contest.candidates.find((c) => c.wins)!;
  if (role === 'backup')
    return `Blocked: port ${reader.portName(winner.port!)} of the same switch is on this LAN too and has the lower port identifier.`;
  const far = peersOf(reader.topology, port).length > 1 ? reader.bridgeName(winner.bridge) : 'the far end';
  if (mine.lostBy === 'rootPathCost' || mine.lostBy === 'internalCost') {
    const at = isRoot(reader, winner.bridge) ? 'is the root itself' : `reaches the root at ${costWords(winner.vector)}`;
    return `Blocked: ${far} ${at}, this end at ${costWords(mine.vector)}.`;
  }
  if (mine.lostBy === 'regionalRoot')
    return `Blocked: both ends reach the root at ${grouped(mine.vector.rootPathCost)} outside, and ${reader.bridgeName(winner.bridge)} has the better regional root.`;
  if (mine.lostBy === 'designatedBridge')
    return `Blocked: both ends reach the root at ${costWords(mine.vector)}, and ${reader.bridgeName(winner.bridge)} has the lower bridge identifier.`;
  return 'Blocked: another port of the same LAN has the lower port identifier.';
}

/** Why a port without a peer is designated: a host behind it, or a far end that lacks the VLAN. */
function aloneSentence(reader: TreeReader, port: number): string {
  const { design, portIndex } = reader.topology;
  const { element } = reader.topology.ports[port]!;
  const link = linkAt(design, element.id);
  const far = link && farEnd(link, element.id);
  if (far && 'host' in far) return 'Designated: no other switch is on this LAN.';
  if (far && reader.of.tree.vlan !== null && !reader.of.problem.portTakesPart[portIndex.get(far.port)!])
    return `Designated, without a peer: the far end does not carry VLAN ${reader.of.tree.vlan}, so its frames are lost on this link.`;
  return 'Designated: no other switch offers a path to the root on this LAN.';
}

/** Why a port is held inconsistent. */
export const heldSentence = (topology: Topology, port: number): string =>
  `Inconsistent in ${heldVlanWords(topology, port)}: ${untaggedWords(topology.design, topology.ports[port]!.element.id)}. BPDUs carry the number of their VLAN, so both switches detect it and block until the ends agree.`;

/** What is not modelled at a port where trees per VLAN and others become one. */
export const joinedSentence = (topology: Topology, port: number): string => {
  const vlan = joinedAt(topology, port);
  return vlan === 0
    ? ''
    : ` VLAN ${vlan} is untagged here, between a switch with a tree per VLAN and one with a common tree: the protocol joins the two trees. The solver does not cover that: rehearse it.`;
};

export function outsideSentence(reader: TreeReader, port: number): string {
  const { element } = reader.topology.ports[port]!;
  return reader.of.tree.vlan === null
    ? `Not in this tree: the switch does not run ${reader.of.tree.name}.`
    : `Not in this tree: port ${element.name} does not carry VLAN ${reader.of.tree.vlan}.`;
}

/** Why a port is down: the first cause that is found, nearest first. */
export function downSentence(reader: TreeReader, port: number): string {
  const { design } = reader.topology;
  const { element, kind } = reader.topology.ports[port]!;
  const off = (id: string) => switchById(design, id)?.off === true;
  if (isPeerPort(design, element.id))
    return 'Peer link of a multi-chassis pair: it always forwards, and spanning tree never blocks it.';
  if (off(element.switch)) return 'Down: the switch is off.';
  if (kind === 'port' && (element as Port).down) return 'Down: the port is administratively down.';
  const member = kind === 'port' ? bundleAt(design, element.id) : undefined;
  const held = member && verdictOf(design, member.id)?.members.find((m) => m.port === element.id);
  if (held && (held.state === 'standby' || held.state === 'suspended'))
    return `Waits for bundle ${member.name}. ${held.sentence}`;
  const segment = segmentAt(design, element.id);
  if (segment) return `Down: segment ${segment.name} has failed.`;
  const link = linkAt(design, element.id);
  if (!link) return 'Down: nothing is plugged in.';
  if (link.down) return 'Down: the link has failed.';
  const far = farEnd(link, element.id);
  const farPort = 'port' in far ? portById(design, far.port) : undefined;
  if (farPort && off(farPort.switch)) return `Down: ${switchById(design, farPort.switch)?.name} at the far end is off.`;
  if (farPort?.down) return 'Down: the far end is administratively down.';
  return 'Down: the link has no working far end.';
}
