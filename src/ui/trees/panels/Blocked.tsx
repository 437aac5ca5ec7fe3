'use client';
import { useMemo, useState } from 'react';
import { groupBy } from '../../../core/design';
import { blockedPorts, roleAt } from '../../../core/trees';
import { portsOnLan } from '../../../core/network';
import type { SolvedDesign } from '../../../core/trees';
import { RoleMark } from '../../controls/RoleMark';
import { useBench, useSession, useTree } from '../../session/context';
import { farLabel } from './ends';

/** As many are read one by one. */
const FEW = 24;
/** Fewer alike are not worth a line of their own. */
const LEAST = 3;

/** What blocked ports have in common when they are one line: the tier and the port, and the tier at the far end. */
function kindOf({ topology }: SolvedDesign, port: number): string | null {
  const { design, portBridge, portLan, ports } = topology;
  const { tier } = design.switches[portBridge[port]!]!;
  const far = [...portsOnLan(topology, portLan[port]!)].find((p) => p !== port);
  const farTier = far === undefined ? undefined : design.switches[portBridge[far]!]!.tier;
  return tier && farTier ? `${tier} switches, port ${ports[port]!.element.name}, towards ${farTier}` : null;
}

/** The blocked ports of the tree in view; many alike as one line that opens. */
export function Blocked() {
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const [open, setOpen] = useState<ReadonlySet<string>>(() => new Set());
  const { singles, sums } = useMemo(() => {
    const all = blockedPorts(of);
    if (all.length <= FEW) return { singles: all, sums: [] };
    const kinds = [...groupBy(all, (port) => kindOf(solved, port))];
    const isSum = ([kind, ports]: (typeof kinds)[number]) => kind !== null && ports.length >= LEAST;
    return {
      singles: kinds.filter((k) => !isSum(k)).flatMap(([, ports]) => ports),
      sums: kinds.filter(isSum).sort((a, b) => b[1].length - a[1].length) as [string, number[]][],
    };
  }, [solved, of]);
  const toggle = (kind: string) => {
    const next = new Set(open);
    if (!next.delete(kind)) next.add(kind);
    setOpen(next);
  };
  return (
    <table className="rows">
      <caption>Blocked ports of this tree</caption>
      <tbody>
        {sums.flatMap(([kind, ports]) => [
          <tr key={kind}>
            <td className="mono">{ports.length}</td>
            <th scope="row" colSpan={2}>
              <button className="plain" aria-expanded={open.has(kind)} onClick={() => toggle(kind)}>
                {kind}
              </button>
            </th>
          </tr>,
          ...(open.has(kind) ? ports.map((port) => <BlockedRow key={port} port={port} />) : []),
        ])}
        {singles.map((port) => (
          <BlockedRow key={port} port={port} />
        ))}
        {singles.length + sums.length === 0 && (
          <tr>
            <td className="quiet">None: this tree has no redundant path.</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function BlockedRow({ port }: { port: number }) {
  const { select } = useBench();
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const { design, ports, portBridge } = solved.topology;
  const { element, kind } = ports[port]!;
  return (
    <tr>
      <td>
        <RoleMark role={roleAt(of, port)} />
      </td>
      <th scope="row">
        <button
          className="plain"
          onClick={() => select({ kind: kind === 'bundle' ? 'bundle' : 'port', id: element.id })}
        >
          {design.switches[portBridge[port]!]!.name} {element.name}
        </button>
      </th>
      <td className="quiet">towards {farLabel(solved, port)}</td>
    </tr>
  );
}
