/** What an edit moved: roots and port roles before and after, tree by tree. */
import { ROLES } from './outcome';
import type { Role, TreeOutcome } from './outcome';
import { rootsOf } from './state';
import type { SolvedDesign, SolvedTree } from './solved';
import type { Topology } from './topology';

export interface MovedPort {
  /** Id of the port or bundle. */
  readonly id: string;
  readonly switch: string;
  readonly before: Role;
  readonly after: Role;
}

export interface MovedTree {
  readonly tree: string;
  /** Ids of the switches that are root of the largest part; null without one. */
  readonly rootBefore: string | null;
  readonly rootAfter: string | null;
  readonly ports: readonly MovedPort[];
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

/** Index of a logical port or a switch in the earlier topology; −1 when it was not there. */
function earlier(before: Topology, after: Topology): { port: (p: number) => number; bridge: (b: number) => number } {
  if (aligned(before, after)) return { port: (p) => p, bridge: (b) => b };
  return {
    port: (p) => {
      const { id } = after.ports[p]!.element;
      const old = before.portIndex.get(id) ?? -1;
      return old >= 0 && before.ports[old]!.element.id === id ? old : -1;
    },
    bridge: (b) => before.bridgeIndex.get(after.design.switches[b]!.id) ?? -1,
  };
}

function difference(
  before: SolvedDesign,
  was: SolvedTree,
  after: SolvedDesign,
  now: SolvedTree,
  old: ReturnType<typeof earlier>,
): Difference | null {
  const ports: MovedPort[] = [];
  now.outcome.role.forEach((to, p) => {
    const index = old.port(p);
    const from = index < 0 ? to : was.outcome.role[index]!;
    if (from === to) return;
    const { element } = after.topology.ports[p]!;
    ports.push({ id: element.id, switch: element.switch, before: ROLES[from]!, after: ROLES[to]! });
  });
  const [rootBefore, rootAfter] = [rootId(before, was), rootId(after, now)];
  const costs = now.outcome.rootPathCost.some((cost, b) => {
    const index = old.bridge(b);
    return index >= 0 && was.outcome.rootPathCost[index] !== cost;
  });
  return ports.length > 0 || rootBefore !== rootAfter || costs ? { rootBefore, rootAfter, ports, costs } : null;
}

/** Trees of both solutions that differ in a root, a role or a root path cost. Trees that only one of them has are left out. */
export function movedBetween(before: SolvedDesign, after: SolvedDesign): MovedTree[] {
  const old = earlier(before.topology, after.topology);
  // Trees share outcomes: each pair of outcomes is compared once.
  const known = new Map<TreeOutcome, Map<TreeOutcome, Difference | null>>();
  return after.trees.flatMap((now) => {
    const was = before.byId.get(now.tree.id);
    if (!was || was.outcome === now.outcome) return [];
    const pairs = known.get(was.outcome) ?? new Map<TreeOutcome, Difference | null>();
    known.set(was.outcome, pairs);
    if (!pairs.has(now.outcome)) pairs.set(now.outcome, difference(before, was, after, now, old));
    const found = pairs.get(now.outcome);
    return found ? [{ tree: now.tree.id, ...found }] : [];
  });
}
