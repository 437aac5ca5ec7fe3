'use client';
/** Lanes over time: what strips of a rehearsal and of a capture have in common. */
import { useEffect, useRef, useState } from 'react';
import type { PortSpan } from '../../core/trace';
import { SECOND } from '../../core/standard';
import { RoleSign } from './Peg';
import styles from './time-lanes.module.css';

/** Room for the names of lanes, and the height of one. */
export const LEFT = 190;
export const ROW = 19;

/** What of the time is shown, in microseconds. */
export interface Window {
  readonly from: number;
  readonly to: number;
}

/** A step of 1, 2 or 5 that gives about ten marks. */
export function tickStep(span: number): number {
  const rough = span / 9;
  const power = 10 ** Math.floor(Math.log10(rough));
  return [1, 2, 5, 10].map((f) => f * power).find((s) => s >= rough)!;
}

export const timeLabel = (at: number, step: number): string =>
  step >= SECOND
    ? `${Math.round(at / SECOND)} s`
    : step >= 1000
      ? `${(at / SECOND).toFixed(3)} s`
      : `${(at / SECOND).toFixed(6)} s`;

/** Marks at round times. */
export function ticksIn(shown: Window): { step: number; ticks: number[] } {
  const step = tickStep(shown.to - shown.from);
  const ticks: number[] = [];
  for (let t = Math.ceil(shown.from / step) * step; t <= shown.to; t += step) ticks.push(t);
  return { step, ticks };
}

/** Hatching of ports that learn. */
export const Patterns = () => (
  <defs>
    <pattern id="learns" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <rect width="2.4" height="6" fill="var(--ink)" />
    </pattern>
  </defs>
);

/** A box and how wide it is; `first`: until it is measured. */
export function useWidth(first: number) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return { box, width };
}

const NAME_LETTERS = 27;

/** The name of a lane, cut off where it is longer than there is room. */
export function LaneName({ top, text }: { top: number; text: string }) {
  return (
    <text className="lane-name" x={26} y={top + 13}>
      {text.length > NAME_LETTERS ? `${text.slice(0, NAME_LETTERS - 1)}…` : text}
    </text>
  );
}

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
      <line
        className={span.state === 'discarding' || span.state === 'inconsistent' ? styles.isBlocked : 'is-down'}
        x1={from}
        x2={to}
        y1={middle}
        y2={middle}
      />
    );
  return (
    <g>
      {line}
      {begins && width > 18 && span.role !== 'disabled' && (
        <g transform={`translate(${from + 8} ${middle}) scale(0.78)`} className={`peg peg-${span.role}`}>
          <RoleSign role={span.role} />
        </g>
      )}
      {(span.state === 'guarded' || span.state === 'inconsistent') && width > 80 && (
        <text className="guarded" x={from + (span.state === 'guarded' ? 6 : 22)} y={middle - 2}>
          {span.state}
        </text>
      )}
    </g>
  );
}
