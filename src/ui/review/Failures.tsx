'use client';
import { Fragment, useMemo, useState } from 'react';
import { switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { outageWords } from '../../core/review';
import type { Failure } from '../../core/review';
import { grouped, more, someNames, vlanTreeId } from '../../core/standard';
import { useBench, useSession } from '../session/context';
import { GROUPINGS, inGroups, names } from './failure-groups';
import type { GroupBy } from './failure-groups';
import { Pairs, Tools } from './FailureTools';
import { failureKey, failureWords, harmOf, kindWords } from './words';
import styles from './ReviewStage.module.css';

/** Rows that are drawn before all are asked for. */
const FIRST = 40;

interface Props {
  readonly picked: string | null;
  readonly onPick: (key: string | null) => void;
}

/** Every failure against what it does, worst first; a row shows it on the chart. */
export function Failures({ picked, onPick }: Props) {
  const { review, setView } = useBench();
  const solved = useSession((s) => s.solved);
  const [all, setAll] = useState(false);
  const [filter, setFilter] = useState('');
  const [by, setBy] = useState<GroupBy>('nothing');
  const { design } = review;
  const rows = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    if (!design) return [];
    return review.failures.filter((f) => wanted === '' || rowText(design, f).includes(wanted));
  }, [review.failures, design, filter]);
  const harmful = rows.filter((f) => harmOf(f) > 0);
  const shown = all ? rows : harmful.slice(0, FIRST);
  const pick = (f: Failure) => {
    onPick(failureKey(f) === picked ? null : failureKey(f));
    const own = f.separates.vlans.map(vlanTreeId).filter((id) => solved.byId.has(id));
    if (own[0] !== undefined) setView({ tree: own[0] });
  };
  if (!design) return <section className={styles.failures} />;
  return (
    <section className={styles.failures} aria-label="Failures">
      <FailureTable {...{ design, picked, by }} failures={shown} onPick={pick} />
      <div className={styles.bar}>
        {rows.length > shown.length && (
          <button className="plain" onClick={() => setAll(true)}>
            show {more(rows.length - shown.length, 'failure')}
            {harmful.length <= FIRST && ' without harm'}
          </button>
        )}
        <input
          type="search"
          placeholder="filter"
          aria-label="Filter failures"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
        />
        <label className="quiet">
          by{' '}
          <select aria-label="Group failures by" value={by} onChange={(e) => setBy(e.target.value as GroupBy)}>
            {GROUPINGS.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <span className="grow" />
        <Tools failure={rows.find((f) => failureKey(f) === picked) ?? null} />
        <Pairs />
      </div>
    </section>
  );
}

function GroupHead({ name, count: of }: { name: string; count: number }) {
  return (
    <tr className={styles.group}>
      <th colSpan={HEADS.length} scope="rowgroup">
        {name} <span className="quiet">{grouped(of)}</span>
      </th>
    </tr>
  );
}

const HEADS = [
  'harm',
  'kind',
  'lost',
  'separates',
  'VLANs partitioned',
  'hosts cut off',
  'root moves',
  'outage',
  'goals broken',
  'fullest link then',
];

function Head() {
  return (
    <thead>
      <tr>
        {HEADS.map((h) => (
          <th key={h} scope="col">
            {h}
          </th>
        ))}
      </tr>
    </thead>
  );
}

interface TableProps {
  readonly design: Design;
  readonly failures: readonly Failure[];
  readonly by: GroupBy;
  readonly picked: string | null;
  readonly onPick: (failure: Failure) => void;
}

function FailureTable({ design, failures, by, picked, onPick }: TableProps) {
  return (
    <table aria-label="What each failure does">
      <Head />
      <tbody>
        {inGroups(design, failures, by).map(({ name, failures: own }) => (
          <Fragment key={name}>
            {name !== '' && <GroupHead name={name} count={own.length} />}
            {own.map((f) => (
              <Row
                key={failureKey(f)}
                {...{ design }}
                failure={f}
                selected={failureKey(f) === picked}
                onPick={() => onPick(f)}
              />
            ))}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

const rowText = (design: Design, f: Failure): string =>
  `${kindWords(f)} ${failureWords(design, f)} ${names(design, f.separates.switches)}`.toLowerCase();

interface RowProps {
  readonly design: Design;
  readonly failure: Failure;
  readonly selected: boolean;
  readonly onPick: () => void;
}

function Row({ design, failure: f, selected, onPick }: RowProps) {
  const { separates, roots, goalsBroken, fullest } = f;
  const hostName = (id: string) => design.hosts.find((h) => h.id === id)?.name ?? id;
  const nameOf = (id: string | null) => (id === null ? 'none' : (switchById(design, id)?.name ?? id));
  const harm = harmOf(f);
  const moves = [...new Set(roots.map((r) => `${nameOf(r.before)} → ${nameOf(r.after)}`))];
  const cell = (text: string, alarm: boolean) => (
    <td className={text === '' ? 'quiet' : alarm ? 'alarm' : undefined}>{text || '–'}</td>
  );
  return (
    <tr aria-selected={selected} onClick={onPick}>
      <td>
        <span className={styles.harm} role="img" aria-label={`harm ${harm} of 5`}>
          {[1, 2, 3, 4, 5].map((n) => (
            <i key={n} className={n > harm ? undefined : harm > 3 ? styles.bad : styles.on} />
          ))}
        </span>
      </td>
      <td className="quiet">{kindWords(f)}</td>
      <td>
        <button className={`plain ${styles.name}`}>{failureWords(design, f)}</button>
      </td>
      {cell(someNames(separates.switches.map((id) => nameOf(id))), true)}
      {cell(separates.vlans.length === 0 ? '' : String(separates.vlans.length), true)}
      {cell(someNames(separates.hosts.map(hostName)), true)}
      {cell(someNames(moves), false)}
      {cell(outageWords(f.outage), f.outage.kind === 'separated')}
      {cell(goalsBroken.length === 0 ? '' : String(goalsBroken.length), true)}
      {cell(fullest === null ? '' : `${Math.round(fullest)} %`, (fullest ?? 0) > 100)}
    </tr>
  );
}
