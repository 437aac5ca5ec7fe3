/** The running network at this moment, switch by switch, in the words in which devices tell of themselves. */
import { bundleById, portById } from '../design';
import type { Mode } from '../design';
import { actingThrough } from '../network';
import type { LacpInfo } from '../protocols/frames';
import type { MstBridge, TreePort } from '../protocols/mst';
import type { StpBridge } from '../protocols/stp';
import type { PortState, RunRole } from '../trace';
import { vlanMembership, vlanTreeId } from '../standard';
import type { BridgeId } from '../standard';
import { standingOf } from './engines';
import { isInconsistent } from './switch';
import type { BridgePort, Node, Process, World } from './network-state';

/** What a port holds about the designated port of its LAN. */
export interface DesignatedAt {
  readonly root: BridgeId;
  readonly cost: number;
  readonly bridge: BridgeId;
  readonly port: number;
  /** In the CIST of an MST bridge the regional root, and the cost to it. */
  readonly regionalRoot: BridgeId;
  readonly internalCost: number;
}

export interface TreePortSnapshot {
  /** Id of the port or bundle. */
  readonly id: string;
  readonly number: number;
  readonly portId: number;
  readonly role: RunRole;
  readonly state: PortState;
  /** Outside of a region, and inside. */
  readonly cost: number;
  readonly internalCost: number;
  readonly designated: DesignatedAt;
}

export interface TreeSnapshot {
  readonly id: string;
  readonly vlan: number | null;
  /** MSTID; 0 for the CIST and for any tree that is no instance. */
  readonly instance: number;
  readonly bridge: BridgeId;
  readonly root: BridgeId;
  readonly cost: number;
  readonly regionalRoot: BridgeId;
  readonly internalCost: number;
  /** Id of its root port; null at the root. */
  readonly rootPort: string | null;
  /** Seconds, as they hold in the tree. */
  readonly times: { readonly helloTime: number; readonly maxAge: number; readonly forwardDelay: number };
  readonly ports: readonly TreePortSnapshot[];
}

export interface ElementSnapshot {
  readonly id: string;
  readonly number: number;
  readonly up: boolean;
  readonly edge: boolean;
  readonly pointToPoint: boolean;
  /** Of a bundle: ids of the members that carry. */
  readonly active: readonly string[];
}

export interface MemberSnapshot {
  readonly id: string;
  readonly actor: LacpInfo;
  readonly partner: LacpInfo;
}

export interface SwitchSnapshot {
  readonly id: string;
  readonly on: boolean;
  readonly mode: Mode;
  readonly trees: readonly TreeSnapshot[];
  /** Ports and bundles as spanning tree sees them, by number. */
  readonly elements: readonly ElementSnapshot[];
  /** LACP ports by the id of their bundle. */
  readonly members: ReadonlyMap<string, readonly MemberSnapshot[]>;
  /** Ids of ports that have a carrier. */
  readonly lit: ReadonlySet<string>;
}

const vectorAt = (tp: TreePort): DesignatedAt => {
  const held = tp.role === 'Designated' || tp.role === 'Disabled' ? tp.designatedPriority : tp.portPriority;
  const instance = tp.tree > 0;
  return {
    root: instance
      ? { priority: held.regionalPriority, mac: held.regionalMac }
      : { priority: held.rootPriority, mac: held.rootMac },
    cost: instance ? held.internalCost : held.externalCost,
    bridge: { priority: held.bridgePriority, mac: held.bridgeMac },
    port: held.port,
    regionalRoot: { priority: held.regionalPriority, mac: held.regionalMac },
    internalCost: held.internalCost,
  };
};

function treePort(
  process: Process,
  bp: BridgePort,
  tree: number,
): Omit<TreePortSnapshot, 'portId' | 'cost' | 'internalCost' | 'designated'> {
  const found = standingOf(process.engine, bp.number, tree)!;
  const inconsistent = isInconsistent(bp, process);
  return {
    id: bp.id,
    number: bp.number,
    role: inconsistent ? 'alternate' : found.role,
    state: inconsistent ? 'inconsistent' : found.state,
  };
}

const portsIn = (node: Node, process: Process): BridgePort[] =>
  [...node.ports.values()]
    .filter((bp) => process.plan.ports.includes(bp.id) && process.engine.bridge.byNumber[bp.number] !== undefined)
    .sort((a, b) => a.number - b.number);

function rapidTrees(node: Node, process: Process, bridge: MstBridge): TreeSnapshot[] {
  const ports = portsIn(node, process);
  return bridge.trees.map((t, i): TreeSnapshot => {
    const root = t.rootPriority;
    const byId = ports.find((bp) => bridge.byNumber[bp.number]!.trees[i] === t.rootPort)?.id ?? null;
    const own = { priority: t.bridgePriority, mac: bridge.settings.mac };
    return {
      id: process.plan.trees[i]!,
      vlan: process.plan.vlan,
      instance: t.instance,
      bridge: own,
      root:
        i > 0
          ? { priority: root.regionalPriority, mac: root.regionalMac }
          : { priority: root.rootPriority, mac: root.rootMac },
      // Inside a region the cost outside is that of the region, and a single tree counts outside all the way.
      cost: i > 0 ? root.internalCost : root.externalCost,
      regionalRoot: { priority: root.regionalPriority, mac: root.regionalMac },
      internalCost: root.internalCost,
      rootPort: byId,
      times: t.rootTimes,
      ports: ports.map((bp) => {
        const tp = bridge.byNumber[bp.number]!.trees[i]!;
        return {
          ...treePort(process, bp, i),
          portId: tp.portId,
          cost: tp.externalPathCost,
          internalCost: tp.internalPathCost,
          designated: vectorAt(tp),
        };
      }),
    };
  });
}

function classicTree(node: Node, process: Process, bridge: StpBridge): TreeSnapshot {
  const ports = portsIn(node, process);
  const root = { priority: bridge.designatedRootPriority, mac: bridge.designatedRootMac };
  const own = { priority: bridge.settings.priority, mac: bridge.settings.mac };
  return {
    id: process.plan.trees[0]!,
    vlan: process.plan.vlan,
    instance: 0,
    bridge: own,
    root,
    cost: bridge.rootPathCost,
    regionalRoot: own,
    internalCost: 0,
    rootPort: ports.find((bp) => bridge.byNumber[bp.number] === bridge.rootPort)?.id ?? null,
    times: bridge,
    ports: ports.map((bp) => {
      const p = bridge.byNumber[bp.number]!;
      const designated = { priority: p.designatedBridgePriority, mac: p.designatedBridgeMac };
      return {
        ...treePort(process, bp, 0),
        portId: p.portId,
        cost: p.pathCost,
        internalCost: p.pathCost,
        designated: {
          root: { priority: p.designatedRootPriority, mac: p.designatedRootMac },
          cost: p.designatedCost,
          bridge: designated,
          port: p.designatedPort,
          regionalRoot: designated,
          internalCost: 0,
        },
      };
    }),
  };
}

const treesOfNode = (node: Node): TreeSnapshot[] =>
  node.processes.flatMap((process) =>
    process.engine.kind === 'mst'
      ? rapidTrees(node, process, process.engine.bridge)
      : [classicTree(node, process, process.engine.bridge)],
  );

function elementOf(node: Node, bp: BridgePort): ElementSnapshot {
  const rapid = node.processes.flatMap((p) =>
    p.engine.kind === 'mst' ? (p.engine.bridge.byNumber[bp.number] ?? []) : [],
  )[0];
  return {
    id: bp.id,
    number: bp.number,
    up: bp.up,
    edge: rapid?.operEdge ?? bp.element.edge === true,
    pointToPoint: rapid?.operPointToPointMAC ?? true,
    active: bp.active,
  };
}

function membersOf(w: World, bundle: string): MemberSnapshot[] {
  const end = w.bundleEnds.get(bundle)?.end;
  const ids = w.bundleEnds.get(bundle)?.members ?? [];
  return (end?.ports ?? []).flatMap((p) => {
    const id = ids.find((m) => portById(w.plan.design, m)?.number === p.number);
    if (id === undefined) return [];
    return { id, actor: p.actor, partner: p.partner };
  });
}

/** One tree is run for all VLANs that cannot differ; a switch tells of one for each of them that it carries. */
function asCarried(w: World, node: Node, tree: TreeSnapshot): TreeSnapshot[] {
  const { vlan } = tree;
  if (vlan === null) return [tree];
  const ports = [...node.ports.values()].map((bp) => vlanMembership(bp.element.vlans ?? 'all'));
  const alike = [...w.plan.representative].flatMap(([v, run]) => (run === vlan ? [v] : [])).sort((a, b) => a - b);
  const carried = alike.filter((v) => ports.some((membership) => membership[v] === 1));
  return carried.length === 0 ? [tree] : carried.map((v) => treeOfVlan(w, tree, v));
}

/** What a tree is in one of the VLANs that it is run for: the same but for the VLAN in the identifiers, and the ports. */
function treeOfVlan(w: World, tree: TreeSnapshot, vlan: number): TreeSnapshot {
  const has = (id: string) => vlanMembership(w.bridgePorts.get(id)?.element.vlans ?? 'all')[vlan] === 1;
  const of = ({ priority, mac }: BridgeId): BridgeId => ({ priority: (priority & 0xf000) | vlan, mac });
  return {
    ...tree,
    id: vlanTreeId(vlan),
    vlan,
    bridge: of(tree.bridge),
    root: of(tree.root),
    regionalRoot: of(tree.regionalRoot),
    ports: tree.ports
      .filter((p) => has(p.id))
      .map((p) => ({
        ...p,
        designated: {
          ...p.designated,
          root: of(p.designated.root),
          bridge: of(p.designated.bridge),
          regionalRoot: of(p.designated.regionalRoot),
        },
      })),
  };
}

/** Every switch of the network as it stands, in the order of the design; a pair that acts as one is one. */
export function snapshotOf(w: World): SwitchSnapshot[] {
  const inside = actingThrough(w.drawn);
  const nodes = [...w.nodes.values()].filter((node) => !inside.has(node.plan.id));
  return nodes.map((node): SwitchSnapshot => ({
    id: node.plan.id,
    on: node.on,
    mode: node.plan.mode,
    trees: node.treeOff ? [] : treesOfNode(node).flatMap((t) => asCarried(w, node, t)),
    elements: [...node.ports.values()].sort((a, b) => a.number - b.number).map((bp) => elementOf(node, bp)),
    members: new Map(
      [...node.ports.keys()].length === 0
        ? []
        : node.plan.elements.flatMap(({ id }) =>
            bundleById(w.plan.design, id) ? [[id, membersOf(w, id)] as const] : [],
          ),
    ),
    lit: new Set([...w.physical.values()].filter((p) => p.node === node && p.carrier).map((p) => p.id)),
  }));
}
