'use client';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { linkById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { goalSentence } from '../../core/goals';
import { failureScript, goalOfFailure, outageWords } from '../../core/review';
import type { Failure } from '../../core/review';
import { grouped, more, vlanTreeId } from '../../core/standard';
import { NameDialog } from '../controls/NameDialog';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import { useFailureCommands } from './useFailureCommands';
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
      <table aria-label="What each failure does">
        <Head />
        <tbody>
          {shown.map((f) => (
            <Row
              key={failureKey(f)}
              {...{ design }}
              failure={f}
              selected={failureKey(f) === picked}
              onPick={() => pick(f)}
            />
          ))}
        </tbody>
      </table>
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
        <span className="grow" />
        <Tools failure={rows.find((f) => failureKey(f) === picked) ?? null} />
        <Pairs />
      </div>
    </section>
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

const names = (design: Design, ids: readonly string[]): string =>
  ids.map((id) => switchById(design, id)?.name ?? id).join(', ');

const rowText = (design: Design, f: Failure): string =>
  `${kindWords(f)} ${failureWords(design, f)} ${names(design, f.separates.switches)}`.toLowerCase();

const MOST_NAMES = 3;
const some = (list: readonly string[]): string =>
  list.length <= MOST_NAMES
    ? list.join(', ')
    : `${list.slice(0, 2).join(', ')} and ${more(list.length - 2, '', '').trim()}`;

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
      {cell(some(separates.switches.map((id) => nameOf(id))), true)}
      {cell(separates.vlans.length === 0 ? '' : String(separates.vlans.length), true)}
      {cell(some(separates.hosts.map(hostName)), true)}
      {cell(some(moves), false)}
      {cell(outageWords(f.outage), f.outage.kind === 'separated')}
      {cell(goalsBroken.length === 0 ? '' : String(goalsBroken.length), true)}
      {cell(fullest === null ? '' : `${Math.round(fullest)} %`, (fullest ?? 0) > 100)}
    </tr>
  );
}

/** Asks for pairs as well, and says first how many there are and how long they take by what single ones took. */
function Pairs() {
  const { review, pairs, setPairs } = useBench();
  if (pairs) return <Button onClick={() => setPairs(false)}>Single failures only</Button>;
  const { swept, took } = review;
  if (took === null || swept < 2) return null;
  const many = (swept * (swept - 1)) / 2;
  const seconds = ((took / swept) * many) / 1000;
  const time = seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : `${grouped(Math.round(seconds / 60))} min`;
  return (
    <Button onClick={() => setPairs(true)}>
      Sweep {grouped(many)} pairs too, about {time}
    </Button>
  );
}

/** What is selected, named as what fails together. */
function RiskGroup() {
  const { edit, view } = useBench();
  const design = useSession((s) => s.design);
  const [naming, setNaming] = useState(false);
  const links = view.selection.flatMap((r) => (r.kind === 'link' && linkById(design, r.id) ? [r.id] : []));
  const switches = view.selection.flatMap((r) => (r.kind === 'switch' ? [r.id] : []));
  const addGroup = (name: string) => {
    const made = edit(`Risk group ${name}`, [
      { type: 'add', kind: 'risk', value: { id: newId('risk'), name, links, switches } },
    ]);
    return made
      ? Promise.resolve()
      : Promise.reject(new Error('The design does not take it: a name has 1 to 64 characters.'));
  };
  return (
    <>
      <Button
        disabled={links.length + switches.length === 0}
        title="Select links and switches on the chart that one cause takes out together: a duct, a rack, a power feed"
        onClick={() => setNaming(true)}
      >
        Risk group of the selection…
      </Button>
      {naming && (
        <NameDialog
          title="What fails together"
          label="Name of the risk group"
          initial="duct"
          action="Add"
          onSubmit={addGroup}
          onClose={() => setNaming(false)}
        />
      )}
    </>
  );
}

/** What can be done with a failure: rehearsed, made a goal. */
function Tools({ failure }: { failure: Failure | null }) {
  const { edit, go, say } = useBench();
  const design = useSession((s) => s.design);
  const rehearse = () => {
    const name = `${failureWords(design, failure!)} lost`.slice(0, 60);
    const script = { ...failureScript(design, failure!.elements, name), id: newId('script') };
    if (edit(`Script ${name}`, [{ type: 'add', kind: 'script', value: script, at: 0 }])) go('rehearsal');
  };
  const goal = failure && goalOfFailure(design, failure, newId('goal'));
  const wants = () => {
    if (goal && edit(`Goal: ${goalSentence(design, goal)}`, [{ type: 'add', kind: 'goal', value: goal }]))
      say({ text: `Goal set: ${goalSentence(design, goal)}` });
  };
  useFailureCommands(failure ? rehearse : null, goal ? wants : null);
  const [risk] = failure?.elements.filter((e) => e.kind === 'group') ?? [];
  return (
    <>
      {failure && (
        <Button title="Y" onClick={rehearse}>
          Rehearse it
        </Button>
      )}
      {goal && (
        <Button title={`A: ${goalSentence(design, goal)}`} onClick={wants}>
          Make a goal of it
        </Button>
      )}
      {risk && (
        <Button onClick={() => edit('Remove a risk group', [{ type: 'remove', kind: 'risk', id: risk.id }])}>
          Remove the risk group
        </Button>
      )}
      <RiskGroup />
    </>
  );
}
