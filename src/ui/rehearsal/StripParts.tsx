'use client';
import { memo, useMemo } from 'react';
import { markOf } from '../../core/rehearsal';
import type { Mark, PortSpan, Trace } from '../../core/rehearsal';
import type { Role } from '../../core/trees';
import { RoleSign } from '../chart/Peg';

/** Room for the names of lanes, and the height of one. */
export const LEFT = 190;
export const ROW = 19;
/** Height of a row of ticks. */
export const TICK_ROW = 14;

/** What of the time is shown, in microseconds. */
export interface Window {
  readonly from: number;
  readonly to: number;
}

export const MARKS: readonly { mark: Mark; name: string }[] = [
  { mark: 'proposal', name: 'proposal' },
  { mark: 'agreement', name: 'agreement' },
  { mark: 'change', name: 'topology change' },
  { mark: 'hello', name: 'hello' },
  { mark: 'lacp', name: 'LACP' },
];

/** One state of a port: solid forwards, hatched learns, outlined listens, dashed is cut, alarm dots mean down. */
export function Span({
  span,
  from,
  to,
  top,
  begins,
}: {
  span: PortSpan;
  from: number;
  to: number;
  top: number;
  begins: boolean;
}) {
  const width = Math.max(0.5, to - from);
  const middle = top + 10;
  const line =
    span.state === 'forwarding' ? (
      <rect className="forwards" x={from} y={middle - 5} width={width} height={10} />
    ) : span.state === 'learning' ? (
      <rect fill="url(#learns)" x={from} y={middle - 5} width={width} height={10} />
    ) : span.state === 'listening' ? (
      <rect className="listens" x={from} y={middle - 4.5} width={width} height={9} />
    ) : (
      <line className={span.state === 'discarding' ? 'is-cut' : 'is-down'} x1={from} x2={to} y1={middle} y2={middle} />
    );
  return (
    <g>
      {line}
      {begins && width > 18 && span.role !== 'disabled' && (
        <g transform={`translate(${from + 8} ${middle}) scale(0.78)`} className={`peg peg-${span.role}`}>
          <RoleSign role={span.role as Role} />
        </g>
      )}
      {span.state === 'guarded' && width > 50 && (
        <text className="guarded" x={from + 6} y={middle - 2}>
          guarded
        </text>
      )}
    </g>
  );
}

interface TicksProps {
  trace: Trace;
  own: string;
  shown: Window;
  room: number;
  top: number;
  onFrame: (index: number) => void;
}

/** Control frames by kind, one stroke a pixel; a click opens the one that is nearest. */
export const Ticks = memo(function Ticks({ trace, own, shown, room, top, onFrame }: TicksProps) {
  const vlan = Number(/^vlan-(\d+)$/.exec(own)?.[1] ?? 0);
  const marks = useMemo(
    () => trace.frames.map((f) => (f.vlan !== null && vlan !== 0 && f.vlan !== vlan ? null : markOf(f))),
    [trace, vlan],
  );
  const paths = useMemo(() => {
    const found = new Map<Mark, Set<number>>();
    trace.frames.forEach((f, i) => {
      const mark = marks[i];
      if (!mark || f.at < shown.from || f.at > shown.to) return;
      const px = Math.round(((f.at - shown.from) / (shown.to - shown.from)) * room);
      if (!found.has(mark)) found.set(mark, new Set());
      found.get(mark)!.add(px);
    });
    return found;
  }, [trace, marks, shown, room]);
  const open = (mark: Mark, clientX: number, left: number) => {
    const time = shown.from + ((clientX - left - LEFT) / room) * (shown.to - shown.from);
    let best = -1;
    trace.frames.forEach((f, i) => {
      if (marks[i] === mark && (best < 0 || Math.abs(f.at - time) < Math.abs(trace.frames[best]!.at - time))) best = i;
    });
    if (best >= 0) onFrame(best);
  };
  return (
    <>
      {MARKS.map(({ mark, name }, row) => (
        <g key={mark}>
          <text className="lane-name" x={26} y={top + row * TICK_ROW + 11}>
            {name}
          </text>
          <path
            className={`ticks ticks-${mark}`}
            d={[...(paths.get(mark) ?? [])].map((px) => `M${LEFT + px} ${top + row * TICK_ROW + 2}v11`).join('')}
          />
          <rect
            className="tick-hit"
            x={LEFT}
            y={top + row * TICK_ROW}
            width={room}
            height={TICK_ROW}
            onPointerDown={(e) => {
              // The moment goes to that of the frame, not to where the pointer is.
              e.stopPropagation();
              open(mark, e.clientX, e.currentTarget.ownerSVGElement!.getBoundingClientRect().left);
            }}
          />
        </g>
      ))}
    </>
  );
});
