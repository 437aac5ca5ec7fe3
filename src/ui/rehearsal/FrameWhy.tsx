'use client';
import { useMemo } from 'react';
import { modeOf, portById, switchById } from '../../core/design';
import type { Design } from '../../core/design';
import { consequencesOf, portWords, whyReceived } from '../../core/trace';
import type { FrameRecord, FrameWhy as Why, Reception, Trace } from '../../core/trace';
import { LedgerTable } from '../controls/LedgerTable';
import { lasting } from '../../core/standard';
import styles from './FrameWhy.module.css';

interface Props {
  design: Design;
  trace: Trace;
  frame: FrameRecord;
  /** What one receiver made of it, tree by tree. */
  receptions: readonly Reception[];
  onGo: (index: number) => void;
}

/** What a receiver did with a frame and why: the message against what it held, and the result. */
export function FrameWhy({ design, trace, frame, receptions, onGo }: Props) {
  const [first] = receptions as [Reception];
  const at = switchById(design, portById(design, first.port)?.switch ?? '');
  const regional = at !== undefined && modeOf(design, at) === 'mstp';
  const whys = useMemo(
    () => receptions.flatMap((h) => whyReceived(trace, frame, h, regional) ?? []),
    [trace, frame, receptions, regional],
  );
  const came = useMemo(() => consequencesOf(design, trace, frame, first), [design, trace, frame, first]);
  return (
    <section className={styles.frameWhy} aria-label={`What ${portWords(design, first.port)} did with it`}>
      <h3>
        {portWords(design, first.port)} <span className="quiet">received it {lasting(first.at - frame.at)} later</span>
      </h3>
      {whys.map((why) => (
        <div key={why.about}>
          {why.rows.length > 0 && <WhyTable why={why} />}
          <p className="sentence">
            {why.about && <b>{why.about}: </b>}
            {why.sentence}
          </p>
        </div>
      ))}
      {came.length > 0 && (
        <ul className={styles.cameOf} aria-label="Result at that moment">
          {came.map((c) => (
            <li key={`${c.text} ${c.frame}`}>
              {c.frame === undefined ? (
                c.text
              ) : (
                <button className="plain" onClick={() => onGo(c.frame!)}>
                  {c.text}
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function WhyTable({ why }: { why: Why }) {
  // Of two that should be the same, neither loses.
  const losing = why.rows.some((r) => !r.wins);
  return (
    <LedgerTable
      heads={['', ...why.heads]}
      wide={why.heads.length > 4}
      rows={why.rows.map((row) => ({
        key: row.who,
        label: row.who,
        wins: row.wins,
        cells: row.cells.map((cell, i) => ({
          ...cell,
          mark: i !== why.decided ? null : row.wins || !losing ? 'decided' : 'struck',
        })),
      }))}
    />
  );
}
