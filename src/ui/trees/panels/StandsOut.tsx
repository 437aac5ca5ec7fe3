'use client';
import { useEffect, useMemo, useState } from 'react';
import { foldedCells } from '../../chart/folded';
import { groupsOf } from '../../chart/groups';
import { useBench, useSession, useTree } from '../../session/context';

const MOST = 12;
/** Changes come faster than this while a value is tried out: what stands out can wait until they rest. */
const REST_MS = 250;

/** A value once it has rested. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), REST_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

/** Switches and groups that differ in the tree in view from others that are alike. */
export function StandsOut() {
  const { select, setView, view } = useBench();
  const solved = useSettled(useSession((s) => s.solved));
  const of = useTree();
  const { design } = solved.topology;
  const rows = useMemo(() => {
    const tree = of && solved.byId.get(of.tree.id);
    if (!tree) return [];
    const groups = groupsOf(design);
    const found = (by: 'alike' | 'groups-alike') =>
      foldedCells({ solved, of: tree, groups, by }).filter((c) => c.unlike !== null);
    return [...found('alike'), ...found('groups-alike').filter((c) => c.kind === 'group')];
  }, [solved, of, design]);
  if (rows.length === 0) return null;
  return (
    <table className="rows">
      <caption>Stands out in this tree</caption>
      <tbody>
        {rows.slice(0, MOST).map((cell) => (
          <tr key={cell.id}>
            <th scope="row">
              <button
                className="plain"
                onClick={() =>
                  cell.kind === 'switch'
                    ? select({ kind: 'switch', id: cell.id })
                    : setView({ open: [...view.open, cell.id, cell.id.replace(/^group /, 'groups ')] })
                }
              >
                {cell.name}
              </button>
            </th>
            <td className="alarm">{cell.unlike}</td>
          </tr>
        ))}
        {rows.length > MOST && (
          <tr>
            <td className="quiet" colSpan={2}>
              and {rows.length - MOST} more
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
