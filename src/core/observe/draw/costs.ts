/** Costs and priorities that differ from what a drawing would have without them. */
import { applyEdits, scopeAt, setPortCost, setPortPriority, switchById } from '../../design';
import type { Bundle, Design, Edit, ObservedNetwork, Port } from '../../design';
import { splitPortId } from '../../standard';
import { solveDesign } from '../../trees';
import type { SolvedDesign, SolvedTree } from '../../trees';
import { elementCalled, switchCalled, treeCalled } from './names';

interface Told {
  readonly element: Port | Bundle;
  readonly index: number;
  readonly cost: number | null;
  readonly priority: number | undefined;
}

/** Ports of an observed tree that the drawing has, and that run. */
function toldIn(
  solved: SolvedDesign,
  tree: SolvedTree,
  ports: ObservedNetwork['trees'][number]['ports'],
  observed: ObservedNetwork,
): Told[] {
  const { design } = solved.topology;
  const macs = new Map(observed.switches.map((s) => [s.name, s.mac]));
  return ports.flatMap((p): Told[] => {
    const s = switchCalled(design, p.switch, macs.get(p.switch) ?? null);
    const element = s && elementCalled(design, s, p.port);
    const index = element && solved.topology.portIndex.get(element.id);
    if (!element || index === undefined || !tree.problem.portTakesPart[index]) return [];
    return [{ element, index, cost: p.state === 'disabled' ? null : p.cost, priority: p.priority }];
  });
}

const kindOf = (e: Port | Bundle): 'port' | 'bundle' => ('members' in e ? 'bundle' : 'port');

const applied = (design: Design, edits: readonly Edit[]): Design => {
  const result = applyEdits(design, edits);
  return result.ok ? result.design : design;
};

/** The drawing with the costs and port priorities that were observed in force. */
export function drawCosts(drawn: Design, observed: ObservedNetwork): Design {
  return observed.trees.reduce((design, { id, ports }, nth) => {
    const solved = solveDesign(design);
    const tree = treeCalled(solved, id);
    if (!tree) return design;
    const edits = toldIn(solved, tree, ports, observed).flatMap(({ element, index, cost, priority }): Edit[] => {
      // What the first tree says is taken for all, unless the device tells what is set for all; what others say otherwise, for them alone.
      const whole = nth === 0 && element.cost === undefined;
      const scope = whole ? 'all' : scopeAt(design, switchById(design, element.switch)!, tree.tree);
      const costs = cost !== null && cost > 0 && tree.problem.portCost[index] !== cost;
      const differs = priority !== undefined && splitPortId(tree.problem.portId[index]!).priority !== priority;
      return [
        ...(costs ? setPortCost(kindOf(element), element, scope, cost) : []),
        ...(differs ? setPortPriority(kindOf(element), element, scope, priority) : []),
      ];
    });
    return edits.length === 0 ? design : edits.reduce((d, e) => applied(d, [e]), design);
  }, drawn);
}
