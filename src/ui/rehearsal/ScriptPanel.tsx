'use client';
import Button from '@mui/material/Button';
import Divider from '@mui/material/Divider';
import MenuItem from '@mui/material/MenuItem';
import { nanoid } from 'nanoid';
import { memo, useState } from 'react';
import { setField } from '../../core/design';
import type { Probe, Script, ScriptEvent } from '../../core/design';
import { eventWords, missingIn } from '../../core/simulation';
import { Field } from '../controls/Field';
import { treeInView, useBench, useSession } from '../session/context';
import { EventFigures } from './EventFigures';
import { RunSettings } from './RunSettings';
import { suggestedScripts } from './suggested-scripts';
import type { SuggestedScript } from './suggested-scripts';
import { suggestions, timeOfNext } from './suggestions';
import { SECOND } from '../../core/standard';
import { DropMenu } from '../controls/DropMenu';
import styles from './ScriptPanel.module.css';

interface Props {
  script: Script | null;
  /** The moment in view, in microseconds, whenever something is added. */
  moment: () => number;
  /** Pairs that the run probed. */
  probed: readonly Probe[];
  onPick: (id: string) => void;
  onAt: (at: number) => void;
}

/** The script: its events as rows, and what can be done to the thing that is selected on the chart. */
export const ScriptPanel = memo(function ScriptPanel({ script, moment, probed, onPick, onAt }: Props) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const set = (field: keyof Script & string, value: unknown, words: string): boolean =>
    script !== null && edit(`Script ${script.name}: ${words}`, [setField('script', script.id, field, value)]);
  const change = (events: readonly ScriptEvent[], words: string) =>
    set(
      'events',
      [...events].sort((a, b) => a.at - b.at),
      words,
    );
  return (
    <section className="script" aria-label="Script">
      <div className={styles.scriptHead}>
        <ScriptChoice script={script} onPick={onPick} />
        {script && (
          <Button
            onClick={() => edit(`Delete script ${script.name}`, [{ type: 'remove', kind: 'script', id: script.id }])}
          >
            Delete
          </Button>
        )}
      </div>
      {script ? (
        <>
          <div className="bundle-fields">
            <Field
              key={`${script.id} n`}
              label="name"
              width={204}
              value={script.name}
              onSet={(t) => set('name', t, `name ${t}`)}
            />
            <Field
              key={`${script.id} u`}
              label="seconds"
              width={64}
              value={String(script.until)}
              onSet={(t) => set('until', Number.isFinite(Number(t)) ? Number(t) : t, `${t} s long`)}
            />
          </div>
          <EventRows script={script} change={change} onAt={onAt} />
          <Offers script={script} change={change} moment={moment} />
          <RunSettings design={design} script={script} probed={probed} set={set} />
        </>
      ) : (
        <p className="quiet">
          A script is a list of events with their times. Create one, then select a link, a port or a switch on the
          chart.
        </p>
      )}
    </section>
  );
});

type Change = (events: readonly ScriptEvent[], words: string) => boolean;

/** Which script is in view, and a new one. */
function ScriptChoice({ script, onPick }: Pick<Props, 'script' | 'onPick'>) {
  const { edit, view } = useBench();
  const design = useSession((s) => s.design);
  const solved = useSession((s) => s.solved);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const add = (given: SuggestedScript | null) => {
    setAnchor(null);
    const id = nanoid(8);
    const taken = new Set(design.scripts.map((s) => s.name));
    let n = given ? 1 : design.scripts.length + 1;
    const called = () => (given ? (n === 1 ? given.name : `${given.name} ${n}`) : `script ${n}`);
    while (taken.has(called())) n++;
    const value: Script = { until: 30, events: [], ...given, id, name: called() };
    if (edit(`New script ${value.name}`, [{ type: 'add', kind: 'script', value: value }])) onPick(id);
  };
  return (
    <>
      <select aria-label="Script" value={script?.id ?? ''} onChange={(e) => onPick(e.target.value)}>
        {design.scripts.length === 0 && <option value="">no script yet</option>}
        {design.scripts.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
      <Button onClick={(e) => setAnchor(e.currentTarget)} aria-haspopup="menu">
        New
      </Button>
      <DropMenu at={anchor} onClose={() => setAnchor(null)}>
        <MenuItem onClick={() => add(null)}>Empty script</MenuItem>
        <Divider />
        {anchor !== null &&
          suggestedScripts(solved, treeInView({ solved }, view), view.selection).map((s) => (
            <MenuItem key={s.name} onClick={() => add(s)}>
              {s.name[0]!.toUpperCase() + s.name.slice(1)}
            </MenuItem>
          ))}
      </DropMenu>
    </>
  );
}

interface RowsProps {
  readonly script: Script;
  readonly change: Change;
  readonly onAt: (at: number) => void;
}

function EventRows({ script, change, onAt }: RowsProps) {
  return (
    <table className={`rows ${styles.scriptRows}`}>
      <thead>
        <tr>
          <th scope="col">at, s</th>
          <th scope="col">what</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {script.events.map((event) => (
          <EventRow key={event.id} event={event} script={script} change={change} onAt={onAt} />
        ))}
        {script.events.length === 0 && (
          <tr>
            <td colSpan={3} className="quiet">
              No event yet. Select a link, a port or a switch on the chart.
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

interface RowProps extends RowsProps {
  readonly event: ScriptEvent;
}

/** An event: when, what, its figures, and what of it is not there. */
function EventRow({ event, script, change, onAt }: RowProps) {
  const design = useSession((s) => s.design);
  const replace = (next: ScriptEvent, words: string) =>
    change(
      script.events.map((e) => (e.id === event.id ? next : e)),
      words,
    );
  const missing = missingIn(design, event);
  return (
    <tr>
      <td className="bare-label">
        <Field
          key={event.id}
          label={`Time of ${eventWords(design, event)}`}
          width={66}
          value={String(event.at)}
          onSet={(t) => {
            // What is no number goes to the schema, which says so.
            const at = (Number.isFinite(Number(t)) && t.trim() !== '' ? Number(t) : t) as number;
            return replace({ ...event, at }, `event at ${t} s`);
          }}
        />
      </td>
      <td>
        <button className="plain" onClick={() => onAt(event.at * SECOND)}>
          {eventWords(design, event)}
        </button>
        <EventFigures design={design} event={event} onChange={(next) => replace(next, eventWords(design, next))} />
        {missing && <div className="alarm small">{missing}</div>}
      </td>
      <td>
        <button
          className="plain quiet remove"
          aria-label={`Remove: ${eventWords(design, event)}`}
          onClick={() =>
            change(
              script.events.filter((e) => e.id !== event.id),
              'event removed',
            )
          }
        >
          ×
        </button>
      </td>
    </tr>
  );
}

/** What can be done to the thing that is selected on the chart, at the moment in view. */
function Offers({ script, change, moment }: Omit<RowsProps, 'onAt'> & Pick<Props, 'moment'>) {
  const { view, draft } = useBench();
  const design = useSession((s) => s.design);
  const solved = useSession((s) => s.solved);
  const tree = treeInView({ solved }, view)?.tree ?? null;
  const offers = suggestions(design, view.selection, tree, draft);
  if (offers.length === 0) return null;
  return (
    <div className="offers" aria-label="Events for the selection">
      {offers.map(({ name, event }) => (
        <Button
          key={name}
          onClick={() =>
            change(
              [...script.events, { ...event, at: timeOfNext(script, moment()), id: nanoid(8) } as ScriptEvent],
              name,
            )
          }
        >
          {name}
        </Button>
      ))}
    </div>
  );
}
