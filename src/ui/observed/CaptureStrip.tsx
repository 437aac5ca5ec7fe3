'use client';
/** A capture over time, like a rehearsal: what each port says, and the frames at which something happens. */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent } from 'react';
import type { CaptureLine, CaptureLaneWords } from '../../core/observe';
import type { PortSpan } from '../../core/trace';
import { SECOND, more } from '../../core/standard';
import { LEFT, LaneName, Patterns, ROW, Span, ticksIn, timeLabel } from '../chart/time-lanes';
import type { CaptureRead } from '../../workers/observe';
import styles from './CaptureStrip.module.css';

const RULER = 20;
const TICK_ROW = 14;
const HEADING = 16;

/** Events by what they are, each a row of strokes. */
const ROWS = [
  { kinds: ['root'], name: 'root' },
  { kinds: ['role'], name: 'role' },
  { kinds: ['change', 'notified'], name: 'topology change' },
  { kinds: ['silent'], name: 'silence' },
  { kinds: ['lacp'], name: 'LACP' },
] as const;

const rowsOf = (lines: readonly CaptureLine[]) =>
  ROWS.flatMap(({ kinds, name }) => {
    const own = lines.flatMap((l, i) => ((kinds as readonly string[]).includes(l.kind) ? [{ l, i }] : []));
    return own.length > 0 ? [{ name, own }] : [];
  });

/** What a port said, as the lane of a rehearsal has it; a silence is a line of dots, a state that is not said an outline. */
const asSpan = ({ from, role, state }: CaptureLaneWords['spans'][number]): PortSpan => ({
  at: from * SECOND,
  role: role === null || role === 'master' ? 'disabled' : role,
  state: role === null ? 'disabled' : (state ?? 'listening'),
});

function useWidth() {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(640);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return { box, width };
}

interface Props {
  readonly capture: CaptureRead;
  /** Index of the event that is looked at. */
  readonly chosen: number | null;
  readonly onChoose: (index: number) => void;
}

/** Lanes of ports and rows of events; a click goes to the nearest event, arrows to the next one. */
export function CaptureStrip({ capture: { lines, lanes, lanesLeft, seconds }, chosen, onChoose }: Props) {
  const { box, width } = useWidth();
  const room = Math.max(100, width - LEFT - 12);
  const span = Math.max(seconds, 1e-6);
  const x = (at: number) => LEFT + (at / span) * room;
  const rows = useMemo(() => rowsOf(lines), [lines]);
  const lanesTop = RULER + (rows.length > 0 ? HEADING + rows.length * TICK_ROW + 4 : 0) + HEADING;
  const bottom = lanesTop + lanes.length * ROW + (lanesLeft > 0 ? ROW : 0);
  const nearest = (clientX: number) => {
    const at = ((clientX - box.current!.getBoundingClientRect().left - LEFT) / room) * span;
    const best = lines.reduce((a, l, i) => (Math.abs(l.at - at) < Math.abs(lines[a]!.at - at) ? i : a), 0);
    if (lines.length > 0) onChoose(best);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0 || lines.length === 0) return;
    e.preventDefault();
    onChoose(Math.min(lines.length - 1, Math.max(0, (chosen ?? -by) + by)));
  };
  const now = chosen === null ? null : lines[chosen];
  return (
    <div
      ref={box}
      className={`time-strip ${styles.strip}`}
      role="slider"
      tabIndex={0}
      aria-label="Events over time"
      aria-valuemin={0}
      aria-valuemax={lines.length}
      aria-valuenow={chosen ?? 0}
      aria-valuetext={now ? `${now.at.toFixed(3)} s: ${now.text}` : 'no event chosen'}
      onClick={(e) => nearest(e.clientX)}
      onKeyDown={onKeyDown}
    >
      <svg width={width} height={bottom + 6} aria-hidden="true">
        <Patterns />
        <Ruler {...{ span, x, bottom }} />
        <EventRows rows={rows} x={x} />
        <text className="lane-head" x={14} y={lanesTop - 4}>
          what ports say
        </text>
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
            <path
              className={own[0]!.l.alarm ? styles.alarm : 'ticks'}
              d={own.map(({ l }) => `M${x(l.at).toFixed(1)} ${top + 2}v11`).join('')}
            />
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
