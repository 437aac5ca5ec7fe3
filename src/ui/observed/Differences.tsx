'use client';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { applyEdits } from '../../core/design';
import type { Design, Edit, ObservedNetwork } from '../../core/design';
import { acceptDifference, compareWithDesign, treeWordsOf } from '../../core/observe';
import type { Difference } from '../../core/observe';
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

/** `cost in vlan-110` with the tree in words. */
const fieldWords = (field: string): string =>
  field.replace(/ in (\S+)$/, (_, tree: string) => ` in ${treeWordsOf([tree])}`);

function refOf({ kind, element, switch: s }: Difference): Ref | null {
  if (element !== null && (kind === 'switch' || kind === 'port' || kind === 'bundle' || kind === 'link'))
    return { kind, id: element };
  return s === null ? null : { kind: 'switch', id: s };
}

/** Edits that take differences over, one after another: an earlier one can settle a later one. */
function accepting(design: Design, network: ObservedNetwork, list: readonly Difference[]): Edit[] {
  const edits: Edit[] = [];
  let now = design;
  for (const wanted of list) {
    const same = compareWithDesign(now, network).find((d) => d.device === wanted.device && d.field === wanted.field);
    const own = same ? acceptDifference(now, same, network, newId) : [];
    const applied = own.length > 0 ? applyEdits(now, own) : null;
    if (!applied?.ok) continue;
    now = applied.design;
    edits.push(...own);
  }
  return edits;
}

function Row({ of: d, onAccept }: { of: Difference; onAccept: (() => void) | null }) {
  const { setView } = useBench();
  const ref = refOf(d);
  return (
    <tr>
      <th scope="row">
        <button className="plain" disabled={!ref} onClick={() => ref && setView({ selection: [ref] })}>
          {d.device}
        </button>
      </th>
      <td>
        <span className={d.verdict === 'not-observed' ? 'quiet' : styles.verdict}>{VERDICT[d.verdict]}</span>{' '}
        {fieldWords(d.field)}
      </td>
      <td className="mono">{d.designed ?? '–'}</td>
      <td className="mono">{d.observed ?? '–'}</td>
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
    const edits = accepting(design, network, list);
    if (edits.length === 0)
      return say({ text: 'The design does not take it: see the sentence beside it.', alarm: true });
    const what =
      list.length === 1
        ? `${list[0]!.device}: ${list[0]!.field} as observed`
        : `${list.length} differences as observed`;
    edit(what, edits);
  };
  if (differences.length === 0)
    return <p className={styles.pad}>The network is as designed in everything that was read.</p>;
  const able = differences.filter((d) => can.has(d));
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th>Where</th>
            <th>What</th>
            <th>Designed</th>
            <th>Observed</th>
            <th>
              {able.length > 1 && <Button onClick={() => accept(able)}>Accept all {grouped(able.length)}</Button>}
            </th>
          </tr>
        </thead>
        <tbody>
          {differences.slice(0, all ? undefined : FIRST).map((d) => (
            <Row key={`${d.device} ${d.field} ${d.verdict}`} of={d} onAccept={can.has(d) ? () => accept([d]) : null} />
          ))}
        </tbody>
      </table>
      {!all && differences.length > FIRST && (
        <button className="plain quiet" onClick={() => setAll(true)}>
          show {count(differences.length - FIRST, 'more row')}
        </button>
      )}
    </div>
  );
}
