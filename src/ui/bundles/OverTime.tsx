'use client';
import { useEffect, useMemo, useState } from 'react';
import { BUNDLE_TIMES, bundleScript, membersOverTime } from '../../core/analysis';
import type { MemberTime } from '../../core/analysis';
import { portWords } from '../../core/trace';
import type { Design } from '../../core/design';
import { SECOND, seconds } from '../../core/standard';
import type { Trace } from '../../core/trace';
import { useSession } from '../session/context';
import { startRehearsing } from '../session/rehearse-job';
import type { BundleGroup } from './groups';
import styles from './OverTime.module.css';

/** Drawing units a second, and a row. */
const [WIDE, HIGH, TOP] = [22, 26, 34];
const MARKS = [
  [BUNDLE_TIMES.out, 'all out'],
  [BUNDLE_TIMES.plugged, 'plugged in'],
  [BUNDLE_TIMES.lost, 'first lost'],
  [BUNDLE_TIMES.back, 'back'],
] as const;

type Outcome = { readonly trace: Trace } | { readonly failed: string } | null;

/** The run of a bundle's cables, once more whenever the design changes; null while it runs. */
function useBundleRun(design: Design, group: BundleGroup): { readonly outcome: Outcome; readonly runs: boolean } {
  const script = useMemo(() => bundleScript(design, group.near), [design, group.near]);
  const [outcome, setOutcome] = useState<Outcome>(null);
  useEffect(() => {
    if (!script) return;
    setOutcome(null);
    const job = startRehearsing(design, script, () => undefined);
    job.done.then(
      (trace) => trace && setOutcome({ trace }),
      (error: Error) => setOutcome({ failed: error.message }),
    );
    return () => job.drop();
  }, [design, script]);
  return { outcome, runs: script !== null };
}

/** When each member joins, leaves and comes back, as the protocol machines have it. */
export function OverTime({ group }: { group: BundleGroup }) {
  const design = useSession((s) => s.design);
  const { outcome, runs } = useBundleRun(design, group);
  if (!runs) return <p className="quiet">No member has a cable, so none can join.</p>;
  if (!outcome)
    return (
      <p className="quiet" role="status">
        Rehearsing {BUNDLE_TIMES.end} s…
      </p>
    );
  if ('failed' in outcome) return <p className="alarm">{outcome.failed}</p>;
  const times = membersOverTime(group.near, outcome.trace);
  return (
    <>
      <p className="quiet small">
        Rehearsed: all cables are taken out at {BUNDLE_TIMES.out} s and plugged in at {BUNDLE_TIMES.plugged} s; the
        first one is lost at {BUNDLE_TIMES.lost} s and is back at {BUNDLE_TIMES.back} s.
      </p>
      <Bars design={design} times={times} />
      <ul className="small">
        {times.map((m) => (
          <li key={m.port}>
            <b>{portWords(design, m.port)}</b> {memberSentence(m)}
          </li>
        ))}
      </ul>
    </>
  );
}

/** What became of a member after the cables were plugged in. */
function memberSentence({ carried }: MemberTime): string {
  const after = carried.filter(([from]) => from >= BUNDLE_TIMES.plugged * SECOND);
  if (after.length === 0) return 'never joins.';
  return `${after
    .map(([from, to]) => {
      const joins = `joins at ${seconds(from)}`;
      return to < BUNDLE_TIMES.end * SECOND ? `${joins} and leaves at ${seconds(to)}` : joins;
    })
    .join(', ')}.`;
}

function Bars({ design, times }: { design: Design; times: readonly MemberTime[] }) {
  const [left, right] = [120, BUNDLE_TIMES.end * WIDE];
  const height = TOP + times.length * HIGH;
  const x = (at: number) => left + (at / SECOND) * WIDE;
  return (
    <svg
      className={styles.bars}
      viewBox={`0 0 ${left + right + 10} ${height + 6}`}
      role="img"
      aria-label="When each member carries"
    >
      {MARKS.map(([at, words]) => (
        <g key={words}>
          <path d={`M${x(at * SECOND)} 18V${height}`} />
          <text x={x(at * SECOND)} y={12} textAnchor={at === BUNDLE_TIMES.out ? 'end' : 'start'}>
            {words}
          </text>
        </g>
      ))}
      {times.map(({ port, carried }, i) => (
        <g key={port} transform={`translate(0 ${TOP + i * HIGH})`}>
          <text x={0} y={12}>
            {portWords(design, port)}
          </text>
          <path className={styles.base} d={`M${left} 8H${left + right}`} />
          {carried.map(([from, to]) => (
            <rect key={from} x={x(from)} y={2} width={Math.max(1, x(to) - x(from))} height={12} />
          ))}
        </g>
      ))}
    </svg>
  );
}
