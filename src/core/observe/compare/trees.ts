/** Roots, roles and costs as devices report them against what the design comes to. */
import type { ObservedNetwork } from '../../design';
import { splitPortId } from '../../standard';
import { ROLES, forwardsRole, rootsOf } from '../../trees';
import type { SolvedDesign, SolvedTree } from '../../trees';
import { elementCalled, switchCalled, treeCalled } from '../draw/names';
import type { Difference } from './difference';

type ObservedTree = ObservedNetwork['trees'][number];

/** A role as a device would report it: one that is disputed is designated. */
function reported(role: string): string | null {
  if (role === 'none') return null;
  return role === 'disputed' ? 'designated' : role;
}

function portsOf(solved: SolvedDesign, tree: SolvedTree, observed: ObservedNetwork, of: ObservedTree): Difference[] {
  const { design, portIndex } = solved.topology;
  const macs = new Map(observed.switches.map((s) => [s.name, s.mac]));
  return of.ports.flatMap((p): Difference[] => {
    const s = switchCalled(design, p.switch, macs.get(p.switch) ?? null);
    const e = s && elementCalled(design, s, p.port);
    const index = e && portIndex.get(e.id);
    if (!s || !e || index === undefined || !tree.problem.portTakesPart[index]) return [];
    // A port that leads nowhere in the design and is up has an end device at it that says nothing of itself: a question, no difference.
    if (solved.topology.portLan[index]! < 0 && p.role === 'designated') return [];
    const at = {
      device: `${s.name} ${e.name}`,
      switch: s.id,
      element: e.id,
      kind: 'tree' as const,
      verdict: 'differs' as const,
    };
    const role = reported(ROLES[tree.outcome.role[index]!]!);
    const found: Difference[] = [];
    // A master port is a root port to the CIST, and devices call it so.
    const same = role === p.role || (role === 'master' && p.role === 'root');
    if (p.role !== null && role !== null && !same)
      found.push({ ...at, field: `role in ${of.id}`, designed: role, observed: p.role });
    if (p.role === 'disabled' || p.state === 'disabled' || role === 'disabled') return found;
    const state = forwardsRole(tree.outcome.role[index]) ? 'forwarding' : 'discarding';
    if (same && p.state !== null && p.state !== state && ROLES[tree.outcome.role[index]!] !== 'disputed')
      found.push({ ...at, field: `state in ${of.id}`, designed: state, observed: p.state });
    const cost = tree.problem.portCost[index]!;
    if (p.cost !== null && p.cost !== cost)
      found.push({ ...at, field: `cost in ${of.id}`, designed: String(cost), observed: String(p.cost) });
    const { priority } = splitPortId(tree.problem.portId[index]!);
    if (p.priority !== undefined && p.priority !== priority)
      found.push({
        ...at,
        field: `port priority in ${of.id}`,
        designed: String(priority),
        observed: String(p.priority),
      });
    return found;
  });
}

/** Roots, then ports, of every tree that the design has too; a tree that it does not have is one difference. */
export function compareTrees(solved: SolvedDesign, observed: ObservedNetwork): Difference[] {
  const { design } = solved.topology;
  const macs = new Map(observed.switches.map((s) => [s.name, s.mac]));
  return observed.trees.flatMap((of): Difference[] => {
    const tree = treeCalled(solved, of.id);
    const none = { switch: null, element: null, kind: 'tree' as const };
    if (!tree)
      return [{ device: of.id, field: 'tree', designed: null, observed: of.root, verdict: 'unexpected', ...none }];
    const roots = rootsOf(tree).map((b) => design.switches[b]!);
    const own = of.root === null ? undefined : switchCalled(design, of.root, macs.get(of.root) ?? null);
    // A switch that has no port in the tree is its own root for whoever asks, and no other's.
    const alone = own !== undefined && tree.problem.bridgeTakesPart[solved.topology.bridgeIndex.get(own.id)!] !== 1;
    const rootDiffers = of.root !== null && !alone && !roots.some((r) => r.id === own?.id);
    return [
      ...(rootDiffers
        ? [
            {
              device: of.id,
              field: 'root',
              designed: roots.map((r) => r.name).join(', '),
              observed: of.root,
              verdict: 'differs' as const,
              switch: own?.id ?? null,
              element: own?.id ?? null,
              kind: 'tree' as const,
            },
          ]
        : []),
      ...portsOf(solved, tree, observed, of),
    ];
  });
}
