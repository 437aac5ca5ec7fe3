/** The solution of a design as plain rows with names, for the command line and the API. */
import { roleAt, rootsOf, settledState, stepCost, TreeReader } from '../trees';
import type { PortState, Role, SolvedDesign, SolvedTree } from '../trees';
import { formatBridgeId } from '../standard';

export interface SolutionTree {
  id: string;
  vlans: readonly number[];
  /** Name of the root; of the largest part, when the tree is partitioned; null when no switch has the tree. */
  root: string | null;
  switches: {
    switch: string;
    rootPathCost: number;
    rootPort: string | null;
    bridgeId: string;
    /** In the CIST of a network with MST regions only. */
    externalCost?: number;
    internalCost?: number;
    regionalRoot?: string;
  }[];
  ports: {
    switch: string;
    port: string;
    role: Exclude<Role, 'disputed'>;
    state: PortState;
    cost: number;
    designatedSwitch: string | null;
    designatedPort: string | null;
  }[];
}

/** One tree with every switch and port that has a part in it. */
export function solutionOf(solved: SolvedDesign, of: SolvedTree): SolutionTree {
  const reader = new TreeReader(solved, of);
  const { topology } = solved;
  const { outcome } = of;
  const root = rootsOf(of)[0];
  const portName = (port: number) => (port < 0 ? null : reader.portName(port));
  return {
    id: of.tree.id,
    vlans: of.tree.vlans,
    root: root === undefined ? null : reader.bridgeName(root),
    switches: topology.design.switches.flatMap((s, b) =>
      outcome.root[b]! < 0
        ? []
        : [
            {
              switch: s.name,
              rootPathCost: outcome.rootPathCost[b]!,
              rootPort: portName(outcome.rootPort[b]!),
              bridgeId: formatBridgeId(reader.bridgeId(b)),
              ...(outcome.cist && {
                externalCost: outcome.cist.external[b]!,
                internalCost: outcome.cist.internal[b]!,
                regionalRoot: reader.bridgeName(outcome.cist.regionalRoot[b]!),
              }),
            },
          ],
    ),
    ports: topology.ports.flatMap((_, p) => {
      const role = roleAt(of, p);
      if (role === 'none') return [];
      const lan = of.topology.portLan[p]!;
      const from = role === 'disabled' || lan < 0 ? -1 : outcome.designatedPort[lan]!;
      return [
        {
          switch: reader.bridgeName(topology.portBridge[p]!),
          port: reader.portName(p),
          role: role === 'disputed' ? 'designated' : role,
          state: settledState(role),
          cost: stepCost(of, p),
          designatedSwitch: from < 0 ? null : reader.bridgeName(topology.portBridge[from]!),
          designatedPort: portName(from),
        },
      ];
    }),
  };
}
