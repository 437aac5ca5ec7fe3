'use client';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { ObservedNetwork } from '../../core/design';
import { acceptDifference, acceptDifferences, gatherTrees } from '../../core/observe';
import type { Difference, GatheredDifference } from '../../core/observe';
import { count, grouped } from '../../core/standard';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import type { Ref } from '../session/view';
import styles from './ObservedStage.module.css';

const VERDICT = {
  differs: 'differs',
  missing: 'missing',
  unexpected: 'unexpected',
  'not-observed': 'not observed',
} as const;
/** Rows that are shown before all are asked for. */
const FIRST = 200;

function refOf({ kind, element, switch: s }: Difference): Ref | null {
  if (element !== null && (kind === 'switch' || kind === 'port' || kind === 'bundle' || kind === 'link'))
    return { kind, id: element };
  return s === null ? null : { kind: 'switch', id: s };
}

/** A value as it is shown: lists may break at their commas. */
const shown = (value: string | null): string => value?.replaceAll(',', ', ') ?? '–';

function Row({ row: { of, where, what }, onAccept }: { row: GatheredDifference; onAccept: (() => void) | null }) {
  const { setView } = useBench();
  const [d] = of;
  const ref = refOf(d);
  return (
    <tr>
      <th scope="row">
        <button className="plain" disabled={!ref} onClick={() => ref && setView({ selection: [ref] })}>
          {where}
        </button>
      </th>
      <td>
        <span className={d.verdict === 'not-observed' ? 'quiet' : styles.verdict}>{VERDICT[d.verdict]}</span> {what}
      </td>
      <td className="mono">{shown(d.designed)}</td>
      <td className="mono">{shown(d.observed)}</td>
      <td className="number">
        {onAccept && (
          <button className="tool" onClick={onAccept} title="The design becomes as the network is">
            Accept
          </button>
        )}
      </td>
    </tr>
  );
}

interface Props {
  readonly network: ObservedNetwork;
  readonly differences: readonly Difference[];
}

/** Where the network is otherwise than the design, each to be taken over. */
export function Differences({ network, differences }: Props) {
  const { edit, say } = useBench();
  const design = useSession((s) => s.design);
  const [all, setAll] = useState(false);
  const can = useMemo(
    () => new Set(differences.filter((d) => acceptDifference(design, d, network, newId).length > 0)),
    [differences, design, network],
  );
  const accept = (list: readonly Difference[]) => {
    const { edits } = acceptDifferences(design, network, list, newId);
    if (edits.length === 0)
      return say({ text: 'The design does not take it: see the sentence beside it.', alarm: true });
    const [first, ...more] = gatherTrees(list);
    edit(
      more.length === 0 ? `${first!.where}: ${first!.what} as observed` : `${more.length + 1} differences as observed`,
      edits,
    );
  };
  if (differences.length === 0)
    return <p className={styles.pad}>The network is as designed in everything that was read.</p>;
  const rows = gatherTrees(differences);
  const able = differences.filter((d) => can.has(d));
  const ableRows = rows.filter((row) => row.of.some((d) => can.has(d))).length;
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th>Where</th>
            <th>What</th>
            <th>Designed</th>
            <th>Observed</th>
            <th>{ableRows > 1 && <Button onClick={() => accept(able)}>Accept all {grouped(ableRows)}</Button>}</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, all ? undefined : FIRST).map((row) => {
            const own = row.of.filter((d) => can.has(d));
            return (
              <Row
                key={`${row.where} ${row.what} ${row.of[0].verdict} ${row.of[0].observed}`}
                row={row}
                onAccept={own.length > 0 ? () => accept(own) : null}
              />
            );
          })}
        </tbody>
      </table>
      {!all && rows.length > FIRST && (
        <button className="plain quiet" onClick={() => setAll(true)}>
          show {count(rows.length - FIRST, 'more row')}
        </button>
      )}
    </div>
  );
}
