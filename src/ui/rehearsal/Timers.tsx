'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { setField, timersFit, timersOf } from '../../core/design';
import { documentMessages as say } from '../../core/messages';
import { TIMERS, timersForDiameter } from '../../core/standard';
import { Field } from '../controls/Field';
import { useBench, useSession } from '../session/context';
import { Term } from '../controls/Term';
import styles from './Timers.module.css';

/** Which timers a network of some diameter needs, what they give, and setting them everywhere in one step. */
export function Timers() {
  const [diameter, setDiameter] = useState(7);
  const rows = [1, 2, 3, 4].map((hello) => timersForDiameter(diameter, hello));
  return (
    <section aria-label="Timer worksheet">
      <h2>Timer worksheet</h2>
      <label>
        <input
          type="number"
          className="mono small-number"
          min={2}
          max={18}
          value={diameter}
          onChange={(e) => setDiameter(Math.min(18, Math.max(2, Math.round(Number(e.target.value)) || 2)))}
        />{' '}
        switches on the longest path between two hosts
      </label>
      <table className="rows">
        <thead>
          <tr>
            <th scope="col">hello</th>
            <th scope="col">
              <Term id="maxAge">max age</Term>
            </th>
            <th scope="col">
              <Term id="forwardDelay">forward delay</Term>
            </th>
            <th scope="col">classic: direct, indirect loss</th>
            <th scope="col">rapid: silent neighbour</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {rows.map((t) => (
            <TimerRow key={t.helloTime} timers={t} />
          ))}
        </tbody>
      </table>
      <Own />
      <p className="quiet small">
        The maximum age covers one lost hello and the delay that each switch on the path adds. The forward delay lets
        the change reach every switch, and the last frames of the old path leave the network, before a port forwards.
      </p>
    </section>
  );
}

const OWN = [
  { field: 'helloTime', label: 'hello, s', otherwise: TIMERS.helloTime.default },
  { field: 'maxAge', label: 'max age, s', otherwise: TIMERS.maxAge.default },
  { field: 'forwardDelay', label: 'forward delay, s', otherwise: TIMERS.forwardDelay.default },
  { field: 'holdCount', label: 'hold count', otherwise: TIMERS.holdCount.default },
  { field: 'ageingTime', label: 'ageing time, s', otherwise: TIMERS.ageingTime.default },
] as const;

/** Timers of the switches that are selected. */
function Own() {
  const { edit, view } = useBench();
  const switches = useSession((s) => s.design.switches);
  const chosen = switches.filter((s) => view.selection.some((r) => r.kind === 'switch' && r.id === s.id));
  if (chosen.length === 0)
    return <p className="quiet">Select switches on the chart to give them timers of their own.</p>;
  const names = chosen.length === 1 ? chosen[0]!.name : `${chosen.length} switches`;
  return (
    <section aria-label={`Timers of ${names}`}>
      <h3>{names}</h3>
      <div className="bundle-fields">
        {OWN.map(({ field, label, otherwise }) => {
          const values = new Set(chosen.map((s) => s[field] ?? otherwise));
          const value = values.size === 1 ? String([...values][0]) : '';
          return (
            <Field
              key={`${names} ${field}`}
              label={label}
              width={90}
              value={value}
              onSet={(t) =>
                edit(
                  `${label} of ${names}: ${t}`,
                  chosen.map((s) =>
                    setField(
                      'switch',
                      s.id,
                      field,
                      t.trim() === '' ? null : Number.isFinite(Number(t)) ? Number(t) : t,
                    ),
                  ),
                )
              }
            />
          );
        })}
      </div>
      {chosen
        .filter((s) => !timersFit(timersOf(s)))
        .slice(0, 1)
        .map((s) => {
          const { helloTime, maxAge, forwardDelay } = timersOf(s);
          return (
            <p key={s.id} role="alert" className="alarm small">
              {say.timersTogether(s.name, helloTime, maxAge, forwardDelay)}
            </p>
          );
        })}
      <p className="quiet small">
        A tree uses the timers of its root. Hold count and ageing time apply to each switch.
      </p>
    </section>
  );
}

function TimerRow({ timers: t }: { timers: ReturnType<typeof timersForDiameter> }) {
  const { edit } = useBench();
  const switches = useSession((s) => s.design.switches);
  return (
    <tr>
      <td className={`mono ${styles.figure}`}>{t.helloTime} s</td>
      <td className={`mono ${styles.figure}`}>{t.maxAge} s</td>
      <td className={`mono ${styles.figure}`}>{t.forwardDelay} s</td>
      {timersFit(t) && t.legal ? (
        <>
          <td className={`mono ${styles.figure}`}>
            {2 * t.forwardDelay} s, {2 * t.forwardDelay + t.maxAge} s
          </td>
          <td className={`mono ${styles.figure}`}>{3 * t.helloTime} s</td>
          <td>
            <Button
              onClick={() =>
                edit(
                  `Timers ${t.helloTime}, ${t.maxAge}, ${t.forwardDelay} s`,
                  switches.flatMap((s) => [
                    setField('switch', s.id, 'helloTime', t.helloTime),
                    setField('switch', s.id, 'maxAge', t.maxAge),
                    setField('switch', s.id, 'forwardDelay', t.forwardDelay),
                  ]),
                )
              }
            >
              Set on all
            </Button>
          </td>
        </>
      ) : (
        <td colSpan={3} className="alarm">
          out of range: hello 1 to 10, max age 6 to 40, delay 4 to 30, and 2 × (delay − 1) ≥ age ≥ 2 × (hello + 1)
        </td>
      )}
    </tr>
  );
}
