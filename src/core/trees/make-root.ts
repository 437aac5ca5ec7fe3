/** Making a switch the root: the legal priority that beats all others, and who has to give way when none does. */
import { applyEdits, priorityInForce, scopeAt, setBridgePriority } from '../design';
import type { Edit, Scope, Switch } from '../design';
import { BRIDGE_PRIORITY, macToNumber } from '../standard';
import type { SolvedDesign, SolvedTree } from './solved';

/** Trees that settings of a scope are for; those that have no settings of their own are meant by `all` alone. */
export function treesInScope({ trees }: SolvedDesign, scope: Scope): SolvedTree[] {
  if (scope === 'all') return [...trees];
  if ('instances' in scope)
    return trees.filter(({ tree }) => tree.vlan === null && scope.instances.includes(tree.instance ?? -1));
  return trees.filter(({ tree }) => tree.vlan !== null && scope.includes(tree.vlan));
}

/**
 * Edits that make a switch the root of several trees, those left out in which it has no part. One value for all trees where
 * that is meant and one is low enough.
 */
export function makeRootOfEdits(solved: SolvedDesign, scope: Scope, switchId: string): Edit[] {
  const trees = treesInScope(solved, scope).filter((of) => inTree(solved, of).some((s) => s.id === switchId));
  const { design } = solved.topology;
  const s = design.switches.find((candidate) => candidate.id === switchId)!;
  if (scope === 'all' && trees.length > 1) {
    if (trees.every((of) => makeRootEdits(solved, of, switchId).length === 0)) return [];
    const others = trees.flatMap((of) =>
      inTree(solved, of).flatMap((other) =>
        other.id === switchId ? [] : [priorityInForce(design, other, of.tree).value],
      ),
    );
    const below = Math.min(...others, BRIDGE_PRIORITY.max) - BRIDGE_PRIORITY.step;
    if (below >= 0) return setBridgePriority(s, 'all', below);
  }
  // One after another, since a switch without settings for single trees has one value for several of them.
  let now = solved;
  return trees.flatMap((of) => {
    const edits = makeRootEdits(now, of, switchId);
    const applied = applyEdits(now.topology.design, edits);
    if (applied.ok) now = { ...now, topology: { ...now.topology, design: applied.design } };
    return edits;
  });
}

/** Switches with a port in the tree, those that are off included, since they come back. */
export function inTree({ topology }: SolvedDesign, of: SolvedTree): Switch[] {
  const { design, portBridge } = topology;
  if (of.tree.vlan === null && of.tree.instance === null) return [...design.switches];
  const has = new Set<number>();
  of.problem.portTakesPart.forEach((takesPart, port) => takesPart && has.add(portBridge[port]!));
  return design.switches.filter((_, b) => has.has(b) || of.problem.bridgeTakesPart[b]);
}

/**
 * Edits that make a switch the root of a tree on purpose, by a priority below those of all others. Where another switch has 0
 * already, the MAC address decides or those with 0 give way. No edits when it is root on purpose already.
 */
export function makeRootEdits(solved: SolvedDesign, of: SolvedTree, switchId: string): Edit[] {
  const { design } = solved.topology;
  const s = design.switches.find((candidate) => candidate.id === switchId)!;
  const own = priorityInForce(design, s, of.tree).value;
  const rivals = inTree(solved, of)
    .filter((other) => other.id !== switchId)
    .map((other) => ({ other, priority: priorityInForce(design, other, of.tree).value }));
  const below = Math.min(...rivals.map((r) => r.priority), BRIDGE_PRIORITY.max) - BRIDGE_PRIORITY.step;
  if (own <= below || rivals.length === 0) return [];
  if (below >= 0) return setBridgePriority(s, scopeAt(design, s, of.tree), below);
  const inTheWay = rivals.filter(
    ({ other, priority }) => priority === 0 && macToNumber(other.mac) < macToNumber(s.mac),
  );
  return [
    ...(own === 0 ? [] : setBridgePriority(s, scopeAt(design, s, of.tree), 0)),
    ...inTheWay.flatMap(({ other }) => setBridgePriority(other, scopeAt(design, other, of.tree), BRIDGE_PRIORITY.step)),
  ];
}
