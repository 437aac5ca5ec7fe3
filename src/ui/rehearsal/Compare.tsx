'use client';
import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { TOOLTIP } from '../controls/chart-style';
import { applyEdits, hostById, isPerVlan, timersFit } from '../../core/design';
import { documentMessages as say } from '../../core/messages';
import type { Design, Edit, Script, TimersInForce } from '../../core/design';
import { gapsOf } from '../../core/trace';
import type { Trace } from '../../core/trace';
import { SECOND, TIMERS, lasting } from '../../core/standard';
import { useBench, useSession } from '../session/context';
import { startRehearsing } from '../session/rehearse-job';
import type { RehearseJob } from '../session/rehearse-job';
import { Label } from '../controls/Term';
import styles from './Compare.module.css';

interface Other {
  readonly name: string;
  readonly trace: Trace;
}

/** Seconds unreachable of every pair, in all. */
const lostOf = (trace: Trace): number[] =>
  trace.contacts.map((lane) => gapsOf(lane).reduce((sum, g) => sum + ((g.to ?? trace.until) - g.from), 0) / SECOND);

const withTimers = (design: Design, timers: { helloTime: number; maxAge: number; forwardDelay: number }): Design => ({
  ...design,
  switches: design.switches.map((s) => ({ ...s, ...timers })),
});

const inMode = (design: Design, rapid: boolean): Design => ({
  ...design,
  mode: isPerVlan(design.mode) ? (rapid ? 'per-vlan-rstp' : 'per-vlan-stp') : rapid ? 'rstp' : 'stp',
  switches: design.switches.map(({ protocol: _, ...s }) => s),
});

/** As drawn, with a change that is tried out; as it is where that cannot be made any more. */
const withEdits = (design: Design, edits: readonly Edit[]): Design => {
  const applied = applyEdits(design, edits);
  return applied.ok ? applied.design : design;
};

/** Runs of the same script on changed designs, one at a time. */
function useOtherRuns(script: Script) {
  const [others, setOthers] = useState<readonly Other[]>([]);
  const [running, setRunning] = useState<{ name: string; seconds: number } | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<RehearseJob | null>(null);
  const run = (name: string, changed: Design) => {
    setRunning({ name, seconds: 0 });
    setFailed(null);
    job.current = startRehearsing(changed, script, (seconds) => setRunning({ name, seconds }));
    job.current.done.then(
      (found) => {
        setRunning(null);
        if (found) setOthers((list) => [...list.filter((o) => o.name !== name), { name, trace: found }]);
      },
      (error: Error) => {
        setRunning(null);
        setFailed(`${name}: ${error.message}`);
      },
    );
  };
  return { others, running, failed, run, cancel: () => job.current?.drop() };
}

interface Row {
  /** The pair. */
  readonly name: string;
  /** Seconds unreachable in each run. */
  readonly lost: readonly number[];
}

/** The same script under another protocol, with other timers, or with the change that is tried out: gaps side by side. */
export function Compare({ script, trace }: { script: Script; trace: Trace }) {
  const { draft } = useBench();
  const design = useSession((s) => s.design);
  const { others, running, failed, run, cancel } = useOtherRuns(script);
  const all: Other[] = [{ name: 'as it is', trace }, ...others];
  const lost = all.map((o) => lostOf(o.trace));
  const rows = trace.contacts.map((lane, i): Row => ({
    name: `${hostById(design, lane.from)?.name ?? lane.from} – ${hostById(design, lane.to)?.name ?? lane.to}`,
    lost: lost.map((run) => Math.max(0, run[i] ?? 0)),
  }));
  return (
    <section aria-label="Compare runs">
      <h2>Compare runs</h2>
      <p className="offers">
        <Button disabled={running !== null} onClick={() => run('classic', inMode(design, false))}>
          Under classic spanning tree
        </Button>
        <Button disabled={running !== null} onClick={() => run('rapid', inMode(design, true))}>
          Under rapid spanning tree
        </Button>
        {draft && (
          <Button disabled={running !== null} onClick={() => run(draft.label, withEdits(design, draft.edits))}>
            With the previewed change
          </Button>
        )}
      </p>
      <OtherTimers
        disabled={running !== null}
        onRun={(t) => run(`timers ${t.helloTime}, ${t.maxAge}, ${t.forwardDelay} s`, withTimers(design, t))}
      />
      {running && (
        <p className="quiet">
          {running.name}: {Math.max(0, running.seconds).toFixed(0)} of {script.until} s{' '}
          <Button onClick={cancel}>Cancel</Button>
        </p>
      )}
      {failed && <p className="alarm">{failed}</p>}
      <GapTable names={all.map((o) => o.name)} rows={rows} />
      {others.length > 0 && <GapChart names={all.map((o) => o.name)} rows={rows} />}
    </section>
  );
}

interface GapsProps {
  readonly names: readonly string[];
  readonly rows: readonly Row[];
}

function GapTable({ names, rows }: GapsProps) {
  return (
    <table className="rows">
      <thead>
        <tr>
          <th scope="col">unreachable</th>
          {names.map((name) => (
            <th key={name} scope="col">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name}>
            <th scope="row">{row.name}</th>
            {row.lost.map((seconds, i) => (
              <td key={names[i]} className="mono">
                {seconds > 0 ? lasting(Math.round(seconds * SECOND)) : 'never'}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const FILLS = ['var(--accent)', 'var(--ink-2)', 'var(--hue-2)', 'var(--hue-3)', 'var(--hue-1)'];

function GapChart({ names, rows }: GapsProps) {
  const bars = rows.map((row) => ({
    name: row.name,
    ...Object.fromEntries(names.map((name, i) => [name, row.lost[i] ?? 0])),
  }));
  return (
    <figure className={`load-chart ${styles.gapChart}`} aria-label="Seconds unreachable, run by run">
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={bars} margin={{ top: 6, right: 8, bottom: 0, left: 0 }}>
          <CartesianGrid vertical={false} stroke="var(--rule)" />
          <XAxis dataKey="name" tick={{ fill: 'var(--ink-2)', fontSize: 10 }} stroke="var(--rule)" />
          <YAxis
            width={52}
            tickFormatter={(s: number) => (s === 0 ? '0' : lasting(Math.round(s * SECOND)))}
            tick={{ fill: 'var(--ink-2)', fontSize: 11 }}
            stroke="var(--rule)"
          />
          <Tooltip {...TOOLTIP} formatter={(value) => lasting(Math.round(Number(value) * SECOND))} />
          <Legend formatter={(text: string) => <span className="ink">{text}</span>} />
          {names.map((name, i) => (
            <Bar key={name} dataKey={name} fill={FILLS[i % FILLS.length]} isAnimationActive={false} maxBarSize={34} />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

const TIMER_FIELDS = [
  ['helloTime', 'hello, s'],
  ['maxAge', 'max age, s'],
  ['forwardDelay', 'forward delay, s'],
] as const;

/** Timers to compare with: the shortest legal ones to begin with. */
function OtherTimers({ disabled, onRun }: { disabled: boolean; onRun: (timers: TimersInForce) => void }) {
  const [timers, setTimers] = useState<TimersInForce>({
    helloTime: TIMERS.helloTime.min,
    maxAge: TIMERS.maxAge.min,
    forwardDelay: TIMERS.forwardDelay.min,
  });
  const wrong = TIMER_FIELDS.find(([f]) => {
    const { min, max } = TIMERS[f];
    return !Number.isInteger(timers[f]) || timers[f] < min || timers[f] > max;
  });
  const fault = wrong
    ? `${wrong[1].split(',')[0]} ${timers[wrong[0]]} s is out of range: ${TIMERS[wrong[0]].min} to ${TIMERS[wrong[0]].max} whole seconds.`
    : timersFit(timers)
      ? null
      : say.timersTogether('A switch', timers.helloTime, timers.maxAge, timers.forwardDelay);
  return (
    <div className={`bundle-fields ${styles.otherTimers}`}>
      {TIMER_FIELDS.map(([field, label]) => (
        <label key={field} className="field">
          <span className="quiet">
            <Label text={label} />
          </span>
          <input
            type="number"
            className="mono small-number"
            value={Number.isNaN(timers[field]) ? '' : timers[field]}
            onChange={(e) => setTimers({ ...timers, [field]: e.target.value === '' ? NaN : Number(e.target.value) })}
          />
        </label>
      ))}
      <Button disabled={disabled || fault !== null} onClick={() => onRun(timers)}>
        With these timers
      </Button>
      {fault && <p className="alarm small">{fault}</p>}
    </div>
  );
}
