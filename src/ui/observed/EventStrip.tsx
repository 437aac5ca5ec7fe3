'use client';
/** A network over time, like a rehearsal: what happens, and what each port says. */
import { useMemo } from 'react';
import type { KeyboardEvent } from 'react';
import type { CaptureLaneWords } from '../../core/observe';
import type { PortSpan } from '../../core/trace';
import { SECOND, more } from '../../core/standard';
import { LEFT, LaneName, Patterns, ROW, Span, ticksIn, timeLabel, useWidth } from '../chart/time-lanes';
import styles from './EventStrip.module.css';

const RULER = 20;
const TICK_ROW = 14;
const HEADING = 16;

/** Something that happens, in a row of its kind. */
export interface StripEvent {
  /** Seconds from the beginning. */
  readonly at: number;
  readonly alarm: boolean;
  readonly row: string;
  readonly text: string;
}

function rowsOf(events: readonly StripEvent[]): { name: string; own: StripEvent[] }[] {
  const rows = new Map<string, StripEvent[]>();
  for (const e of events) rows.set(e.row, [...(rows.get(e.row) ?? []), e]);
  return [...rows].map(([name, own]) => ({ name, own }));
}

/** What a port said, as the lane of a rehearsal has it; a silence is a line of dots, a state that is not said an outline. */
const asSpan = ({ from, role, state }: CaptureLaneWords['spans'][number]): PortSpan => ({
  at: from * SECOND,
  role: role === null || role === 'master' ? 'disabled' : role,
  state: role === null ? 'disabled' : (state ?? 'listening'),
});

interface Props {
  readonly events: readonly StripEvent[];
  readonly seconds: number;
  readonly lanes?: readonly CaptureLaneWords[];
  /** Ports beyond those that have a lane. */
  readonly lanesLeft?: number;
  /** Index of the event that is looked at. */
  readonly chosen: number | null;
  readonly onChoose: (index: number) => void;
}

/** Rows of events and lanes of ports; a click goes to the nearest event, arrows to the next one. */
export function EventStrip({ events, seconds, lanes = [], lanesLeft = 0, chosen, onChoose }: Props) {
  const { box, width } = useWidth(640);
  const room = Math.max(100, width - LEFT - 12);
  const span = Math.max(seconds, 1e-6);
  const x = (at: number) => LEFT + (at / span) * room;
  const rows = useMemo(() => rowsOf(events), [events]);
  const rowsBottom = RULER + (rows.length > 0 ? HEADING + rows.length * TICK_ROW + 4 : 0);
  const lanesTop = rowsBottom + (lanes.length > 0 ? HEADING : 0);
  const bottom = lanesTop + lanes.length * ROW + (lanesLeft > 0 ? ROW : 0);
  const nearest = (clientX: number) => {
    const at = ((clientX - box.current!.getBoundingClientRect().left - LEFT) / room) * span;
    const best = events.reduce((a, e, i) => (Math.abs(e.at - at) < Math.abs(events[a]!.at - at) ? i : a), 0);
    if (events.length > 0) onChoose(best);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0 || events.length === 0) return;
    e.preventDefault();
    onChoose(Math.min(events.length - 1, Math.max(0, (chosen ?? -by) + by)));
  };
  const now = chosen === null ? null : events[chosen];
  return (
    <div
      ref={box}
      className={`time-strip ${styles.strip}`}
      role="slider"
      tabIndex={0}
      aria-label="Events over time"
      aria-valuemin={0}
      aria-valuemax={events.length}
      aria-valuenow={chosen ?? 0}
      aria-valuetext={now ? `${now.at.toFixed(3)} s: ${now.text}` : 'no event chosen'}
      onClick={(e) => nearest(e.clientX)}
      onKeyDown={onKeyDown}
    >
      <svg width={width} height={bottom + 6} aria-hidden="true">
        <Patterns />
        <Ruler {...{ span, x, bottom }} />
        <EventRows rows={rows} x={x} />
        {lanes.length > 0 && (
          <text className="lane-head" x={14} y={lanesTop - 4}>
            what ports say
          </text>
        )}
        {lanes.map((lane, i) => (
          <Lane key={`${lane.name} ${lane.trees}`} lane={lane} top={lanesTop + i * ROW} x={x} />
        ))}
        {lanesLeft > 0 && (
          <text className="lane-name" x={26} y={bottom - 6}>
            {more(lanesLeft, 'port')}
          </text>
        )}
        {now && <line className={styles.now} x1={x(now.at)} x2={x(now.at)} y1={RULER} y2={bottom} />}
      </svg>
    </div>
  );
}

/** Seconds as a place on the strip. */
type Scale = (at: number) => number;

function Ruler({ span, x, bottom }: { span: number; x: Scale; bottom: number }) {
  const { step, ticks } = ticksIn({ from: 0, to: span * SECOND });
  return ticks.map((t) => (
    <g key={t}>
      <text x={x(t / SECOND)} y={13} textAnchor="middle">
        {timeLabel(t, step)}
      </text>
      <line className="tick" x1={x(t / SECOND)} x2={x(t / SECOND)} y1={RULER} y2={bottom} />
    </g>
  ));
}

/** A row of strokes for each kind of event that there is. */
function EventRows({ rows, x }: { rows: ReturnType<typeof rowsOf>; x: Scale }) {
  if (rows.length === 0) return null;
  return (
    <>
      <text className="lane-head" x={14} y={RULER + 12}>
        what happens
      </text>
      {rows.map(({ name, own }, row) => {
        const top = RULER + HEADING + row * TICK_ROW;
        return (
          <g key={name}>
            <text className="lane-name" x={26} y={top + 11}>
              {name}
            </text>
            {[true, false].map((alarm) => (
              <path
                key={String(alarm)}
                className={alarm ? styles.alarm : 'ticks'}
                d={own.flatMap((e) => (e.alarm === alarm ? `M${x(e.at).toFixed(1)} ${top + 2}v11` : [])).join('')}
              />
            ))}
          </g>
        );
      })}
    </>
  );
}

function Lane({ lane, top, x }: { lane: CaptureLaneWords; top: number; x: Scale }) {
  return (
    <g>
      <title>{`${lane.name}, ${lane.trees}`}</title>
      <LaneName top={top} text={`${lane.name}, ${lane.trees}`} />
      {lane.spans.map((s) => (
        <Span key={s.from} span={asSpan(s)} from={x(s.from)} to={x(s.to)} top={top} begins />
      ))}
    </g>
  );
}
