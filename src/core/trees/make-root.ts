/** Making a switch the root: the legal priority that beats everybody else, and who has to give way when none does. */
import { priorityInForce, setBridgePriority } from '../design';
import type { Edit, Scope, Switch } from '../design';
import { BRIDGE_PRIORITY, macToNumber } from '../standard';
import type { SolvedDesign, SolvedTree } from './state';

/** Switches with a port in the tree, those that are off included, since they come back. */
function inTree({ topology }: SolvedDesign, of: SolvedTree): Switch[] {
  const { design, portBridge } = topology;
  if (of.tree.vlan === null) return [...design.switches];
  const has = new Set<number>();
  of.problem.portTakesPart.forEach((takesPart, port) => takesPart && has.add(portBridge[port]!));
  return design.switches.filter((_, b) => has.has(b));
}

/**
 * Edits that make a switch the root of a tree on purpose, by a priority below everybody else's. Where somebody has 0
 * already, the MAC address decides or those with 0 give way. No edits when it is root on purpose already.
 */
export function makeRootEdits(solved: SolvedDesign, of: SolvedTree, switchId: string): Edit[] {
  const { design } = solved.topology;
  const { vlan } = of.tree;
  const scope: Scope = vlan === null ? 'all' : [vlan];
  const s = design.switches.find((candidate) => candidate.id === switchId)!;
  const own = priorityInForce(design, s, vlan).value;
  const rivals = inTree(solved, of)
    .filter((other) => other.id !== switchId)
    .map((other) => ({ other, priority: priorityInForce(design, other, vlan).value }));
  const below = Math.min(...rivals.map((r) => r.priority), BRIDGE_PRIORITY.max) - BRIDGE_PRIORITY.step;
  if (own <= below || rivals.length === 0) return [];
  if (below >= 0) return setBridgePriority(s, scope, below);
  const inTheWay = rivals.filter(
    ({ other, priority }) => priority === 0 && macToNumber(other.mac) < macToNumber(s.mac),
  );
  return [
    ...(own === 0 ? [] : setBridgePriority(s, scope, 0)),
    ...inTheWay.flatMap(({ other }) => setBridgePriority(other, scope, BRIDGE_PRIORITY.step)),
  ];
}
