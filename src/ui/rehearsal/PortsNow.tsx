'use client';
import { useMemo, useState } from 'react';
import type { Design } from '../../core/design';
import { bundleById, switchById } from '../../core/design';
import { more, seconds } from '../../core/standard';
import { portWords, portsAt } from '../../core/trace';
import type { Trace } from '../../core/trace';
import { useBench } from '../session/context';
import { laneTree } from './moment';

/** Rows that are drawn before all are asked for. */
const FIRST = 60;

interface Props {
  readonly design: Design;
  readonly trace: Trace;
  readonly tree: string;
  readonly at: number;
  readonly onAt: (at: number) => void;
}

/** The state of every port of the tree in view at the moment, in words; of the switches that are selected alone, where any is. */
export function PortsNow({ design, trace, tree, at, onAt }: Props) {
  const { view } = useBench();
  const [all, setAll] = useState(false);
  const chosen = useMemo(
    () => new Set(view.selection.flatMap((r) => (r.kind === 'switch' ? [r.id] : []))),
    [view.selection],
  );
  const rows = useMemo(
    () => portsAt(design, trace, laneTree(trace, tree), at, chosen),
    [design, trace, tree, at, chosen],
  );
  const names = [...chosen].map((id) => switchById(design, id)?.name).join(', ');
  const shown = all ? rows : rows.slice(0, FIRST);
  return (
    <table className="rows">
      <caption>
        {names === '' ? 'Ports of the tree in view' : `Ports of ${names}`} at {seconds(at)}
      </caption>
      <thead>
        <tr>
          <th scope="col">port</th>
          <th scope="col">role</th>
          <th scope="col">state</th>
          <th scope="col">until</th>
        </tr>
      </thead>
      <tbody>
        {shown.map((row) => (
          <PortRow key={row.port} {...{ design, row, onAt }} />
        ))}
        {rows.length === 0 && (
          <tr>
            <td className="quiet" colSpan={4}>
              No port of the tree in view is there at this moment.
            </td>
          </tr>
        )}
        {shown.length < rows.length && (
          <tr>
            <td colSpan={4}>
              <button className="plain quiet" onClick={() => setAll(true)}>
                {more(rows.length - shown.length, 'port', 'ports')}
              </button>
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function PortRow({ design, row, onAt }: Pick<Props, 'design' | 'onAt'> & { row: ReturnType<typeof portsAt>[number] }) {
  const { select } = useBench();
  const { port, role, state, until } = row;
  return (
    <tr>
      <th scope="row">
        <button
          className="plain"
          onClick={() => select({ kind: bundleById(design, port) ? 'bundle' : 'port', id: port })}
        >
          {portWords(design, port)}
        </button>
      </th>
      <td>{role}</td>
      <td className={state === 'guarded' || state === 'inconsistent' ? 'alarm' : undefined}>{state}</td>
      <td className="mono">
        {until !== null && (
          <button className="plain" onClick={() => onAt(until)}>
            {seconds(until)}
          </button>
        )}
      </td>
    </tr>
  );
}
