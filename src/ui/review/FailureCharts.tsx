'use client';
import { lazy, useMemo } from 'react';
import { OUTAGE_KINDS } from '../../core/review';
import type { Failure, OutageKind } from '../../core/review';
import type { Design } from '../../core/design';
import { useBench } from '../session/context';
import { failureKey, failureWords, kindWords } from './words';
import styles from './ReviewStage.module.css';

// The charts are large, and most reviews never open them.
const Bars = lazy(() => import('./Bars').then((m) => ({ default: m.Bars })));

const WORDS: Record<OutageKind, string> = {
  none: 'none',
  immediate: 'at once',
  milliseconds: 'milliseconds',
  hellos: 'three hellos',
  'forward-delay': 'forward delays',
  separated: 'for good',
};

/** Bars of capacity at most: the failures that leave least. */
const MOST_BARS = 60;

/** Failures by how long they interrupt. */
function outageBars(failures: readonly Failure[]) {
  return OUTAGE_KINDS.map((kind) => {
    const own = failures.filter((f) => f.outage.kind === kind);
    return { key: kind, name: WORDS[kind], value: own.length, alarm: kind === 'separated', note: '' };
  });
}

/** What the fullest link has left with each failure, least first. */
function capacityBars(design: Design, failures: readonly Failure[]) {
  const loaded = failures.filter((f) => f.fullest !== null);
  return [...loaded]
    .sort((a, b) => b.fullest! - a.fullest!)
    .slice(0, MOST_BARS)
    .map((f) => {
      const value = Math.round(100 - f.fullest!);
      const note = f.outage.kind === 'separated' ? ' (what is separated sends no longer)' : '';
      return { key: failureKey(f), name: `${kindWords(f)} ${failureWords(design, f)}`, value, alarm: value < 0, note };
    });
}

interface Props {
  readonly onPick: (key: string) => void;
}

/** How long failures interrupt, and what they leave free, as charts. */
export function FailureCharts({ onPick }: Props) {
  const { review } = useBench();
  const { design } = review;
  // Of pairs those without a consequence are counted only: what is drawn would not be all of them.
  const failures = useMemo(() => review.failures.filter((f) => f.elements.length === 1), [review.failures]);
  const outages = useMemo(() => outageBars(failures), [failures]);
  const capacity = useMemo(() => (design ? capacityBars(design, failures) : []), [design, failures]);
  if (failures.length === 0)
    return (
      <div className={styles.scroll}>
        <p className="quiet">No failure has been looked at yet.</p>
      </div>
    );
  return (
    <div className={styles.scroll}>
      <figure className={styles.bars} aria-label={outages.map((o) => `${o.name} ${o.value}`).join(', ')}>
        <figcaption>Single failures by how long they interrupt</figcaption>
        <Bars bars={outages} labels words={(v) => `${v} ${v === 1 ? 'failure' : 'failures'}`} />
      </figure>
      {capacity.length > 0 ? (
        <figure className={styles.bars} aria-label="Rate that the fullest link has left with each failure">
          <figcaption>
            Left free on the fullest link, with each single failure, in percent of its rate
            {failures.length > capacity.length && ` (the ${capacity.length} that leave least)`}
          </figcaption>
          <Bars bars={capacity} unit=" %" words={(v) => `${v} % left`} onPick={onPick} />
        </figure>
      ) : (
        <p className="quiet">
          What failures leave free on links is drawn once traffic is set: Trees, board <em>Link use</em>.
        </p>
      )}
    </div>
  );
}
