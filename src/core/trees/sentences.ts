/** Which sentence each ledger has, and with which values; the words are in messages. */
import { isPeerPort, peersOf, verdictOf } from '../network';
import { bundleAt, farEnd, isFiltered, linkAt, portById, segmentAt, switchById, untaggedWords } from '../design';
import { ledgerMessages as say } from '../messages';
import type { RootWords } from '../messages';
import type { Port } from '../design';
import { vlanTreeId } from '../standard';
import { comparePriorityVector, numberToMac } from '../standard';
import type { Candidate, Contest, TreeReader } from './candidates';
import { tooDeepSentences } from './depth-sentences';
import { loopingPorts } from './loops';
import type { Role } from './outcome';
import type { SolvedDesign, SolvedTree } from './solved';
import type { Topology } from './topology';
import { heldVlanWords, joinedAt } from './untagged';

const priorityOf = (reader: TreeReader, bridge: number) => reader.of.problem.bridgePriority[bridge]!;

function electionWords(reader: TreeReader, contest: Contest): RootWords {
  const [first, second] = contest.candidates as [Candidate, Candidate?];
  const name = reader.bridgeName(first.bridge);
  if (!second) return { name };
  const next = reader.bridgeName(second.bridge);
  const priority = priorityOf(reader, first.bridge);
  return contest.decidedBy === 'priority'
    ? { name, next, priority, nextPriority: priorityOf(reader, second.bridge) }
    : { name, next, priority, mac: numberToMac(first.vector.root.mac) };
}

export function treeSentence(reader: TreeReader, contests: readonly Contest[]): string {
  return [rootsSentence(reader, contests), ...tooDeepSentences(reader)].join(' ');
}

function rootsSentence(reader: TreeReader, contests: readonly Contest[]): string {
  const [largest] = contests;
  if (!largest) return say['no-switch']();
  const root = electionWords(reader, largest);
  const count = contests.length;
  if (count === 1) return say.root({ root });
  return reader.regionCount() >= count ? say['regional-roots']({ count, root }) : say['several-roots']({ count, root });
}

export const rootSentence = (reader: TreeReader, contest: Contest): string =>
  say.root({ root: electionWords(reader, contest) });

export function noTreeSentence(reader: TreeReader, bridge: number): string {
  const name = reader.bridgeName(bridge);
  const { vlan, instance } = reader.of.tree;
  if (reader.topology.design.switches[bridge]!.off) return say['switch-off']({ name });
  if (vlan !== null) return say['no-vlan-on-switch']({ name });
  return instance ? say['no-instance-on-switch']({ name, instance }) : say['no-port-on-switch']({ name });
}

const isRoot = (reader: TreeReader, bridge: number) => reader.of.outcome.root[bridge] === bridge;

/** Why a port has the role that another tree gives it: `sentence` is that tree's own. */
export function followsSentence(
  reader: TreeReader,
  port: number,
  follows: SolvedTree,
  role: Role,
  sentence: string,
): string {
  const name = reader.bridgeName(reader.topology.portBridge[port]!);
  const { vlan } = reader.of.tree;
  const why =
    vlan !== null
      ? say['follows-vlan']({ name, vlan, tree: follows.tree.name })
      : role === 'master'
        ? say.master()
        : say.boundary();
  return `${why} ${sentence}`;
}

/** How the winner of a comparison of received vectors beat the next. */
export function rootPortSentence(reader: TreeReader, bridge: number, contest: Contest): string {
  const winner = contest.candidates.find((c) => c.wins)!;
  const second = contest.candidates.find((c) => c.lostBy !== null && !c.own);
  const received = ({ port, bridge: sender, vector }: Candidate) => ({
    port: reader.portName(port!),
    from: reader.bridgeName(sender),
    costs: vector,
  });
  const best = { name: reader.bridgeName(bridge), ...received(winner) };
  if (!second) return say['root-port-alone'](best);
  const values = { ...best, other: received(second) };
  switch (second.lostBy) {
    case 'rootPathCost':
    case 'internalCost':
      return say['root-port-by-cost'](values);
    case 'regionalRoot':
      return say['root-port-by-regional-root'](values);
    case 'designatedBridge':
      return say['root-port-by-bridge'](values);
    case 'designatedPort':
      return say['root-port-by-far-port'](values);
    default:
      return say['root-port-by-own-port'](values);
  }
}

/** What a port itself offers in a contest. */
const offerOf = (contest: Contest, port: number) => contest.candidates.find((c) => c.port === port)!;

export function designatedSentence(reader: TreeReader, port: number, contest: Contest): string {
  const mine = offerOf(contest, port);
  const second = contest.candidates.find((c) => c.lostBy !== null);
  if (!second) return aloneSentence(reader, port);
  if (isRoot(reader, mine.bridge) && second.bridge !== mine.bridge) return say['designated-of-root']();
  const own = mine.vector;
  switch (second.lostBy) {
    case 'rootPathCost':
    case 'internalCost':
      return say['designated-by-cost']({ own, name: reader.bridgeName(second.bridge), far: second.vector });
    case 'regionalRoot':
      return say['designated-by-regional-root']({ cost: own.rootPathCost });
    case 'designatedBridge':
      return say['designated-by-bridge']({ own });
    default:
      return say['designated-by-port']();
  }
}

export function blockedSentence(
  reader: TreeReader,
  port: number,
  role: 'alternate' | 'backup',
  contest: Contest,
): string {
  const { vector: own, lostBy } = offerOf(contest, port);
  const winner = contest.candidates.find((c) => c.wins)!;
  if (role === 'backup') return say.backup({ port: reader.portName(winner.port!) });
  const name = reader.bridgeName(winner.bridge);
  switch (lostBy) {
    case 'rootPathCost':
    case 'internalCost': {
      const far = peersOf(reader.topology, port).length > 1 ? name : 'the far end';
      return isRoot(reader, winner.bridge)
        ? say['blocked-by-root']({ far, own })
        : say['blocked-by-cost']({ far, costs: winner.vector, own });
    }
    case 'regionalRoot':
      return say['blocked-by-regional-root']({ name, cost: own.rootPathCost });
    case 'designatedBridge':
      return say['blocked-by-bridge']({ name, own });
    default:
      return say['blocked-by-port']();
  }
}

/** Why a port without a peer is designated: a host behind it, or a far end that lacks the VLAN. */
function aloneSentence(reader: TreeReader, port: number): string {
  const { design, portIndex } = reader.topology;
  const { element } = reader.topology.ports[port]!;
  const link = linkAt(design, element.id);
  const far = link && farEnd(link, element.id);
  const { vlan } = reader.of.tree;
  if (far && 'host' in far) return say['designated-at-hosts']();
  if (far && vlan !== null && !reader.of.problem.portTakesPart[portIndex.get(far.port)!])
    return say['designated-without-peer']({ vlan });
  return say['designated-alone']();
}

/** Why a port is held inconsistent. */
export const heldSentence = (topology: Topology, port: number): string =>
  say.inconsistent({
    vlans: heldVlanWords(topology, port),
    difference: untaggedWords(topology.design, topology.ports[port]!.element.id),
  });

/** Whether the tree of a VLAN and the common tree were solved as one. */
const isJoined = ({ byId }: SolvedDesign, vlan: number): boolean =>
  byId.get(vlanTreeId(vlan))?.outcome.joined !== undefined;

/** What a port is at which the tree in question and another are one; null elsewhere. */
export function joinedRoleSentence({ solved, of: { tree } }: TreeReader, port: number, role: Role): string | null {
  const vlan = joinedAt(solved.topology, port);
  const concerned = tree.vlan === vlan || (tree.vlan === null && !tree.instance);
  return vlan > 0 && concerned && isJoined(solved, vlan) ? say['joined-role']({ vlan, role }) : null;
}

/** How a bridge reaches a root that lies in the tree that its own is joined with; null where it does not. */
export function joinedRootSentence(
  reader: TreeReader,
  bridge: number,
  code: 'joined-root' | 'joined-tree',
): string | null {
  const port = reader.of.outcome.joined?.get(bridge);
  return port === undefined ? null : say[code]({ name: reader.bridgeName(bridge), port: reader.portName(port) });
}

/** What is not modelled at a port where trees per VLAN and others become one; null where they do not. */
export function joinedSentence(solved: SolvedDesign, port: number): string | null {
  const vlan = joinedAt(solved.topology, port);
  return vlan === 0 || isJoined(solved, vlan) ? null : say.joined({ vlan });
}

export function outsideSentence(reader: TreeReader, port: number): string {
  const { vlan, name } = reader.of.tree;
  return vlan === null
    ? say['not-in-tree']({ tree: name })
    : say['vlan-not-carried']({ port: reader.portName(port), vlan });
}

/** Why a port that spanning tree would choose is blocked all the same; null where root guard has no part in it. */
export function rootGuardSentence(reader: TreeReader, port: number): string | null {
  const { problem, outcome } = reader.of;
  const offer = reader.received(port);
  if (!offer || problem.portRestricted?.[port] !== 1) return null;
  const bridge = reader.topology.portBridge[port]!;
  const rootPort = outcome.rootPort[bridge]!;
  const chosen = rootPort < 0 ? reader.own(bridge) : reader.received(rootPort)!;
  if (comparePriorityVector(offer, chosen) >= 0) return null;
  const from = reader.topology.portBridge[outcome.designatedPort[reader.topology.portLan[port]!]!]!;
  const [mine, theirs] = [outcome.root[bridge]!, outcome.root[from]!];
  const name = reader.bridgeName(from);
  return mine === theirs
    ? say['root-guard-path']({ name })
    : say['root-guard-root']({ name, root: reader.bridgeName(theirs) });
}

const portWords = ({ design, ports, portBridge }: Topology, port: number): string =>
  `${design.switches[portBridge[port]!]!.name} ${ports[port]!.element.name}`;

/** Why a port that meets others is designated without having compared anything: a BPDU filter at either end. */
export function filterSentence(all: Topology, port: number): string | null {
  const peers = peersOf(all, port);
  if (peers.length === 0) return null;
  if (isFiltered(all.design, all.ports[port]!.element)) return say.filter();
  const silent = peers.every((p) => isFiltered(all.design, all.ports[p]!.element));
  return silent ? say['far-filter']({ port: portWords(all, peers[0]!) }) : null;
}

/** Why a port hears nothing that leads to a static bundle which has no partner here; null for any other. */
export function deafSentence(all: Topology, port: number): string | null {
  const { kind, element } = all.ports[port]!;
  const link = kind === 'port' ? linkAt(all.design, element.id) : undefined;
  const end = link && farEnd(link, element.id);
  const far = end && 'port' in end ? all.portIndex.get(end.port)! : -1;
  if (far < 0 || all.ports[far]!.kind !== 'bundle' || all.portLan[far] === all.portLan[port]) return null;
  return say['deaf-port']({ bundle: portWords(all, far) });
}

/** Whether frames loop through a port; null where they do not. */
export const loopingSentence = (all: Topology, of: SolvedTree, port: number): string | null =>
  loopingPorts(all, of).has(port) ? say.looping() : null;

/** What a BPDU guard has done to a port, or to the far end of its cable. */
function guardSentence({ shut, unguarded }: Topology, port: number): string | null {
  if (!shut || !unguarded) return null;
  const [far] = peersOf(unguarded, port);
  if (far === undefined) return null;
  const name = unguarded.design.switches[unguarded.portBridge[far]!]!.name;
  if (shut.has(port)) return say['shut-by-guard']({ name });
  return shut.has(far) ? say['far-shut']({ name }) : null;
}

/** Why a port is down: the first cause that is found, nearest first. */
export function downSentence(reader: TreeReader, port: number): string {
  const { design } = reader.topology;
  const { element, kind } = reader.topology.ports[port]!;
  const off = (id: string) => switchById(design, id)?.off === true;
  if (isPeerPort(design, element.id)) return say['peer-link']();
  if (off(element.switch)) return say['down-switch-off']();
  if (kind === 'port' && (element as Port).down) return say['down-by-setting']();
  const guard = guardSentence(reader.solved.topology, port);
  if (guard) return guard;
  const bundle = kind === 'port' ? bundleAt(design, element.id) : undefined;
  const member = bundle && verdictOf(design, bundle.id)?.members.find((m) => m.port === element.id);
  if (member && (member.state === 'standby' || member.state === 'suspended'))
    return `${say['waits-for-bundle']({ bundle: bundle.name })} ${member.sentence}`;
  const segment = segmentAt(design, element.id);
  if (segment) return say['down-segment']({ segment: segment.name });
  const link = linkAt(design, element.id);
  if (!link) return say['down-unplugged']();
  if (link.down) return say['down-link']();
  const far = farEnd(link, element.id);
  const farPort = 'port' in far ? portById(design, far.port) : undefined;
  if (farPort && off(farPort.switch))
    return say['down-far-off']({ name: switchById(design, farPort.switch)?.name ?? farPort.switch });
  return farPort?.down ? say['down-far-by-setting']() : say['down-far']();
}
