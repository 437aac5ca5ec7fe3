/** What an edit moved: roots and port roles before and after, tree by tree. */
import { bundleById, portById, switchById } from '../design';
import type { Design } from '../design';
import { ROLE, ROLES, forwardsRole } from './outcome';
import type { Role, TreeOutcome } from './outcome';
import { rootsOf } from './state';
import type { SolvedDesign, SolvedTree } from './solved';
import type { Topology } from './topology';

/** What became of a port in a tree. */
export interface PortChange {
  /** Id of the port or bundle. */
  readonly id: string;
  readonly switch: string;
  readonly before: Role;
  readonly after: Role;
}
export interface MovedPort extends PortChange {
  /** Switch and port as they are called. */
  readonly name: string;
}
/** What a change of a tree must say for its outage to be known. */
export interface TreeChange {
  readonly tree: string;
  readonly rootAfter: string | null;
  readonly ports: readonly PortChange[];
}

export interface MovedTree {
  readonly tree: string;
  /** Ids of the switches that are root of the largest part; null without one. */
  readonly rootBefore: string | null;
  readonly rootAfter: string | null;
  /** Ports and bundles whose role changed, and those that came to have one or have none any more. */
  readonly ports: readonly MovedPort[];
  /** Ids of switches that are on and that frames no longer reach from the largest part, and of those that they reach again. */
  readonly cutOff: readonly string[];
  readonly rejoined: readonly string[];
  /** Whether a root path cost changed anywhere. */
  readonly costs: boolean;
}

type Difference = Omit<MovedTree, 'tree'>;

const rootId = ({ topology }: SolvedDesign, of: SolvedTree): string | null => {
  const root = rootsOf(of)[0];
  return root === undefined ? null : topology.design.switches[root]!.id;
};

/** Whether ports and switches stand at the same places in both topologies, as they do unless some came or went. */
function aligned(before: Topology, after: Topology): boolean {
  if (before.portIndex === after.portIndex) return true;
  const sameIds = (a: readonly { id: string }[], b: readonly { id: string }[]) =>
    a.length === b.length && a.every((item, i) => item.id === b[i]!.id);
  return (
    sameIds(before.design.switches, after.design.switches) &&
    before.ports.length === after.ports.length &&
    before.ports.every(({ element }, i) => element.id === after.ports[i]!.element.id)
  );
}

interface Earlier {
  /** Whether everything stands at the same places. */
  readonly alike: boolean;
  readonly port: (p: number) => number;
  readonly bridge: (b: number) => number;
}

/** Index of a logical port or a switch in the earlier topology; −1 when it was not there. */
function earlier(before: Topology, after: Topology): Earlier {
  if (aligned(before, after)) return { alike: true, port: (p) => p, bridge: (b) => b };
  return {
    alike: false,
    port: (p) => {
      const { id } = after.ports[p]!.element;
      const old = before.portIndex.get(id) ?? -1;
      return old >= 0 && before.ports[old]!.element.id === id ? old : -1;
    },
    bridge: (b) => before.bridgeIndex.get(after.design.switches[b]!.id) ?? -1,
  };
}

const isUp = (role: number) => role !== ROLE.none && role !== ROLE.disabled;

/** A port whose role goes from one to another, as it is called in the topology that has it. */
function movedPort({ design, ports }: Topology, p: number, from: number, to: number): MovedPort {
  const { element } = ports[p]!;
  const name = `${switchById(design, element.switch)!.name} ${element.name}`;
  return { id: element.id, switch: element.switch, name, before: ROLES[from]!, after: ROLES[to]! };
}

/** Ports that one topology has alone: a bundle that no longer forms, members that stand by themselves, what was removed. */
function comeAndGone(
  [before, was]: readonly [Topology, SolvedTree],
  [after, now]: readonly [Topology, SolvedTree],
): MovedPort[] {
  const has = (topology: Topology, id: string) => topology.ports[topology.portIndex.get(id) ?? -1]?.element.id === id;
  const only = (own: Topology, of: SolvedTree, other: Topology, carried: boolean) =>
    own.ports.flatMap(({ element: { id } }, p) =>
      has(other, id) || !isUp(of.outcome.role[p]!) || other.portIndex.has(id) !== carried ? [] : [p],
    );
  // A port that is now carried by a bundle stands as the bundle; one that was not there before is no change.
  const bundles = (own: Topology) => (p: number) => own.ports[p]!.kind === 'bundle';
  const gone = only(before, was, after, false).map((p) =>
    movedPort(before, p, was.outcome.role[p]!, stillThere(after.design, before.ports[p]!.element.id)),
  );
  const parted = only(after, now, before, true);
  const formed = only(after, now, before, false).filter(bundles(after));
  const come = [...parted, ...formed].map((p) =>
    movedPort(after, p, stillThere(before.design, after.ports[p]!.element.id), now.outcome.role[p]!),
  );
  return [...gone, ...come];
}

const stillThere = (design: Design, id: string) =>
  portById(design, id) || bundleById(design, id) ? ROLE.disabled : ROLE.none;

interface Parts {
  /** Part of each switch, by a number of its own; −1 where it is off or has no port in the tree. */
  readonly of: Int32Array;
  /** Switches of the largest part, the first of those that are equal; −1 without one. */
  readonly largest: number;
}

const knownParts = new WeakMap<SolvedTree, { readonly topology: Topology; readonly parts: Parts }>();

/** Remembered by tree: what an edit leads to is what the next one begins with. */
function partsOf({ topology }: SolvedDesign, tree: SolvedTree): Parts {
  const known = knownParts.get(tree);
  if (known?.topology === topology) return known.parts;
  const parts = findParts(topology, tree);
  knownParts.set(tree, { topology, parts });
  return parts;
}

/**
 * Switches that frames of a tree join, part by part. Not by roots: frames pass where a filter stops BPDUs, and none passes a port
 * that is held back although the root behind it is known.
 */
function findParts(topology: Topology, { outcome: { role } }: SolvedTree): Parts {
  const { design, actsAs, portBridge, portLan, lanCount } = topology;
  const bridges = design.switches.length;
  const parent = new Int32Array(bridges + lanCount);
  for (let i = 0; i < parent.length; i++) parent[i] = i;
  const top = (x: number): number => {
    while (parent[x] !== x) x = parent[x] = parent[parent[x]!]!;
    return x;
  };
  const has = new Uint8Array(bridges);
  for (let p = 0; p < portLan.length; p++) {
    if (role[p] !== ROLE.none) has[portBridge[p]!] = 1;
    if (portLan[p]! >= 0 && forwardsRole(role[p])) parent[top(portBridge[p]!)] = top(bridges + portLan[p]!);
  }
  const of = new Int32Array(bridges).fill(-1);
  const size = new Int32Array(bridges + lanCount);
  const order: number[] = [];
  for (let b = 0; b < bridges; b++) {
    if (design.switches[b]!.off || !has[actsAs[b]!]) continue;
    const part = top(actsAs[b]!);
    of[b] = part;
    if (size[part]! === 0) order.push(part);
    size[part]!++;
  }
  return { of, largest: order.reduce((a, part) => (a < 0 || size[part]! > size[a]! ? part : a), -1) };
}

/** Switches that have the tree and are on, before and after, and that the change parted from the largest part, or joined to it. */
function parted(before: SolvedDesign, was: SolvedTree, after: SolvedDesign, now: SolvedTree, earlierOf: Earlier) {
  const [old, fresh] = [partsOf(before, was), partsOf(after, now)];
  const { switches } = after.topology.design;
  const oldPart = switches.map((_, b) => old.of[earlierOf.bridge(b)] ?? -1);
  const stays = (b: number) => old.largest >= 0 && oldPart[b] === old.largest;
  // What is left of the largest part: of two of one size the one that it has become.
  const left = new Map<number, number>();
  for (let b = 0; b < switches.length; b++) {
    const part = fresh.of[b]!;
    if (part >= 0) left.set(part, (left.get(part) ?? 0) + Number(stays(b)));
  }
  const become = [...left].reduce((a, [part, count]) => (count > (left.get(a) ?? 0) ? part : a), -1);
  const cutOff: string[] = [];
  const rejoined: string[] = [];
  for (let b = 0; b < switches.length; b++) {
    const part = fresh.of[b]!;
    if (part < 0) continue;
    if (part !== become) {
      if (stays(b)) cutOff.push(switches[b]!.id);
    } else if (oldPart[b]! >= 0 && !stays(b)) rejoined.push(switches[b]!.id);
  }
  return { cutOff, rejoined };
}

function difference(
  before: SolvedDesign,
  was: SolvedTree,
  after: SolvedDesign,
  now: SolvedTree,
  old: Earlier,
  withParts: boolean,
): Difference | null {
  const ports: MovedPort[] = [];
  const [roles, roleWas] = [now.outcome.role, was.outcome.role];
  for (let p = 0; p < roles.length; p++) {
    const index = old.port(p);
    if (index >= 0 && roleWas[index] !== roles[p]) ports.push(movedPort(after.topology, p, roleWas[index]!, roles[p]!));
  }
  if (!old.alike) ports.push(...comeAndGone([before.topology, was], [after.topology, now]));
  const [rootBefore, rootAfter] = [rootId(before, was), rootId(after, now)];
  const together = old.alike && ports.length === 0;
  const parts = together || !withParts ? { cutOff: [], rejoined: [] } : parted(before, was, after, now, old);
  const costs = now.outcome.rootPathCost.some((cost, b) => {
    const index = old.bridge(b);
    return index >= 0 && was.outcome.rootPathCost[index] !== cost;
  });
  const moves = ports.length > 0 || parts.cutOff.length > 0 || rootBefore !== rootAfter || costs;
  return moves ? { rootBefore, rootAfter, ports, ...parts, costs } : null;
}

/**
 * Trees of both solutions that differ in a root, a role or a root path cost. Trees that only one of them has are left out.
 * `withParts`: whether those that are cut off are named.
 */
export function movedBetween(before: SolvedDesign, after: SolvedDesign, withParts = true): MovedTree[] {
  const old = earlier(before.topology, after.topology);
  // Trees share outcomes: each pair of outcomes is compared once.
  const known = new Map<TreeOutcome, Map<TreeOutcome, Difference | null>>();
  return after.trees.flatMap((now) => {
    const was = before.byId.get(now.tree.id);
    if (!was || was.outcome === now.outcome) return [];
    const pairs = known.get(was.outcome) ?? new Map<TreeOutcome, Difference | null>();
    known.set(was.outcome, pairs);
    if (!pairs.has(now.outcome)) pairs.set(now.outcome, difference(before, was, after, now, old, withParts));
    const found = pairs.get(now.outcome);
    return found ? [{ tree: now.tree.id, ...found }] : [];
  });
}
