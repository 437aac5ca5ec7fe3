/** What an edit moved: roots and port roles before and after, tree by tree. */
import { ROLES } from './solve';
import type { Role } from './solve';
import { rootsOf } from './state';
import type { SolvedDesign, SolvedTree } from './state';

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

function rootId(solved: SolvedDesign, of: SolvedTree): string | null {
  const root = rootsOf(of)[0];
  return root === undefined ? null : solved.topology.design.switches[root]!.id;
}

function costsById(solved: SolvedDesign, of: SolvedTree): Map<string, number> {
  return new Map(solved.topology.design.switches.map((s, b) => [s.id, of.outcome.rootPathCost[b]!]));
}

/** Trees of both solutions that differ in a root, a role or a root path cost. Trees that only one of them has are left out. */
export function movedBetween(before: SolvedDesign, after: SolvedDesign): MovedTree[] {
  return after.trees.flatMap((now) => {
    const was = before.byId.get(now.tree.id);
    if (!was || was.outcome === now.outcome) return [];
    const ports: MovedPort[] = [];
    after.topology.ports.forEach(({ element }, p) => {
      const old = before.topology.portIndex.get(element.id);
      if (old === undefined || before.topology.ports[old]!.element.id !== element.id) return;
      const [from, to] = [was.outcome.role[old]!, now.outcome.role[p]!];
      if (from !== to) ports.push({ id: element.id, switch: element.switch, before: ROLES[from]!, after: ROLES[to]! });
    });
    const [rootBefore, rootAfter] = [rootId(before, was), rootId(after, now)];
    const [costsBefore, costsAfter] = [costsById(before, was), costsById(after, now)];
    const costs = [...costsAfter].some(([id, cost]) => costsBefore.get(id) !== cost);
    return ports.length > 0 || rootBefore !== rootAfter || costs
      ? [{ tree: now.tree.id, rootBefore, rootAfter, ports, costs }]
      : [];
  });
}
