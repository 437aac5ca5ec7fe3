'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Design, Script } from '../../core/design';
import { gapsOf, lasting, portWords, treeWords } from '../../core/rehearsal';
import type { Trace } from '../../core/rehearsal';
import { hostById } from '../../core/design';
import { laneTree } from './moment';
import { LEFT, MARKS, ROW, Span, TICK_ROW, Ticks } from './StripParts';
import type { Window } from './StripParts';
import { EventMarks, RootLane } from './StripMarks';

const HEAD = 26;
const HEADING = 16;

interface Props {
  design: Design;
  trace: Trace;
  script: Script;
  tree: string;
  at: number;
  shown: Window;
  onAt: (at: number) => void;
  onShown: (shown: Window) => void;
  onFrame: (index: number) => void;
  /** An event of the script is pulled to another time, in seconds. */
  onMove: (id: string, seconds: number) => void;
}

/** Keys that move the moment, by a share of what is shown. */
const KEYS: Partial<Record<string, number>> = {
  ArrowLeft: -0.005,
  ArrowRight: 0.005,
  PageUp: -0.1,
  PageDown: 0.1,
};

/** A step of 1, 2 or 5 that gives about ten marks. */
export function tickStep(span: number): number {
  const rough = span / 9;
  const power = 10 ** Math.floor(Math.log10(rough));
  return [1, 2, 5, 10].map((f) => f * power).find((s) => s >= rough)!;
}

const timeLabel = (at: number, step: number): string =>
  step >= 1e6
    ? `${Math.round(at / 1e6)} s`
    : step >= 1000
      ? `${(at / 1e6).toFixed(3)} s`
      : `${(at / 1e6).toFixed(6)} s`;

/** Time as a strip of lanes: contact, roots, ports that changed, BPDUs. */
export function Strip({ design, trace, script, tree, at, shown, onAt, onShown, onFrame, onMove }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1240);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const room = Math.max(100, width - LEFT - 16);
  const x = (t: number) => LEFT + ((t - shown.from) / (shown.to - shown.from)) * room;
  const timeAt = (px: number) => shown.from + ((px - LEFT) / room) * (shown.to - shown.from);
  const own = laneTree(trace, tree);
  const lanes = useMemo(() => trace.ports.filter((l) => l.tree === own && l.spans.length > 1), [trace, own]);
  // The tree in view first, then others whose root changed.
  const roots = [
    ...trace.roots.filter((r) => r.tree === own && r.spans.length > 0),
    ...trace.roots.filter((r) => r.tree !== own && r.spans.length > 1),
  ];
  const press = useRef<number | null>(null);
  const scrub = (clientX: number) => {
    const left = box.current?.getBoundingClientRect().left ?? 0;
    onAt(Math.round(Math.min(trace.until, Math.max(0, timeAt(clientX - left)))));
  };
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      if (
        !event.ctrlKey &&
        !event.metaKey &&
        !event.shiftKey &&
        Math.abs(event.deltaY) > Math.abs(event.deltaX) &&
        !event.altKey
      )
        return;
      event.preventDefault();
      const left = element.getBoundingClientRect().left;
      const middle = timeAt(event.clientX - left);
      const factor = Math.exp(event.deltaY * 0.002);
      onShown(zoomed(shown, middle, factor, trace.until));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });
  const step = tickStep(shown.to - shown.from);
  const ticks: number[] = [];
  for (let t = Math.ceil(shown.from / step) * step; t <= shown.to; t += step) ticks.push(t);
  let y = HEAD;
  const next = (rows = 1) => {
    const here = y;
    y += rows * ROW;
    return here;
  };
  const head = (name: string) => {
    const here = y + 3;
    y = here + HEADING;
    return (
      <text key={`h ${name}`} className="lane-head" x={14} y={here + 13}>
        {name}
      </text>
    );
  };
  const clip = (from: number, to: number): [number, number] | null => {
    const [a, b] = [Math.max(from, shown.from), Math.min(to, shown.to)];
    return b < a ? null : [x(a), x(b)];
  };
  const drawn = [
    ...(trace.contacts.length > 0 ? [head('in contact')] : []),
    ...trace.contacts.map((lane) => {
      const top = next();
      const name = `${hostById(design, lane.from)?.name ?? lane.from} – ${hostById(design, lane.to)?.name ?? lane.to}`;
      return (
        <g key={`c ${lane.vlan} ${lane.from} ${lane.to}`}>
          <text className="lane-name" x={26} y={top + 14}>
            {name.length > 27 ? `${name.slice(0, 26)}…` : name}
          </text>
          {lane.spans.map((span, i) => {
            const reach = clip(span.at, lane.spans[i + 1]?.at ?? trace.until);
            return reach && span.ok ? (
              <rect
                key={i}
                className={span.copies > 1 ? 'contact copies' : 'contact'}
                x={reach[0]}
                y={top + 6}
                width={Math.max(0.5, reach[1] - reach[0])}
                height={8}
              />
            ) : null;
          })}
          {gapsOf(lane).map((gap, i) => {
            const reach = clip(gap.from, gap.to ?? trace.until);
            return reach ? (
              <g key={`g ${i}`}>
                <rect
                  className="gap"
                  x={reach[0] - 1}
                  y={top + 3}
                  width={Math.max(2, reach[1] - reach[0] + 2)}
                  height={14}
                />
                <text
                  className="gap-length"
                  x={gap.to === null ? reach[0] + 6 : reach[1] + 4}
                  y={gap.to === null ? top + 14 : top + 3}
                >
                  {gap.to === null ? 'not found again' : lasting(gap.to - gap.from)}
                </text>
              </g>
            ) : null;
          })}
        </g>
      );
    }),
    ...(roots.length > 0 ? [head('root')] : []),
    ...roots.map((lane) => {
      const top = next();
      const name = treeWords(trace, lane.tree);
      return (
        <g key={`r ${lane.tree}`}>
          <text className="lane-name" x={26} y={top + 14}>
            {name.length > 27 ? `${name.slice(0, 26)}…` : name}
          </text>
          <RootLane design={design} spans={lane.spans} until={trace.until} top={top} clip={clip} />
        </g>
      );
    }),
    ...(lanes.length > 0 ? [head('ports that changed')] : []),
    ...lanes.map((lane) => {
      const top = next();
      const name = portWords(design, lane.port);
      return (
        <g key={`p ${lane.port}`}>
          <text className="lane-name" x={26} y={top + 14}>
            {name.length > 27 ? `${name.slice(0, 26)}…` : name}
          </text>
          {lane.spans.map((span, i) => {
            const reach = clip(span.at, lane.spans[i + 1]?.at ?? trace.until);
            return reach ? (
              <Span key={i} span={span} from={reach[0]} to={reach[1]} top={top} begins={span.at >= shown.from} />
            ) : null;
          })}
          {trace.happenings.map((h, i) => {
            const reach = h.kind === 'guard' && h.port === lane.port ? clip(h.at, h.at) : null;
            return reach && <path key={`t ${i}`} className="trip" d={`M${reach[0]} ${top + 3}v14`} />;
          })}
        </g>
      );
    }),
  ];
  drawn.push(head('BPDUs and LACPDUs'));
  const ticksTop = y;
  y += MARKS.length * TICK_ROW;
  return (
    <div
      className="time-strip"
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Time"
      aria-valuemin={0}
      aria-valuemax={trace.until}
      aria-valuenow={at}
      aria-valuetext={`${(at / 1e6).toFixed(3)} s`}
      onPointerDown={(e) => {
        if (e.clientX - e.currentTarget.getBoundingClientRect().left < LEFT - 8) return;
        press.current = e.clientX;
        e.currentTarget.setPointerCapture(e.pointerId);
        scrub(e.clientX);
      }}
      onPointerMove={(e) => press.current !== null && scrub(e.clientX)}
      onPointerUp={() => (press.current = null)}
      onKeyDown={(e) => {
        const span = shown.to - shown.from;
        const by = KEYS[e.key];
        const to = by !== undefined ? at + by * span : e.key === 'Home' ? 0 : e.key === 'End' ? trace.until : null;
        if (to === null) return;
        e.preventDefault();
        onAt(Math.round(Math.min(trace.until, Math.max(0, to))));
      }}
    >
      <svg width={width} height={y + 6} aria-hidden="true">
        <defs>
          <pattern id="learns" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2.4" height="6" fill="var(--ink)" />
          </pattern>
        </defs>
        {ticks.map((t) => (
          <g key={t}>
            <line className="tick" x1={x(t)} x2={x(t)} y1={22} y2={y} />
            <text className="tick-name" x={x(t)} y={15}>
              {timeLabel(t, step)}
            </text>
          </g>
        ))}
        {drawn}
        <Ticks trace={trace} own={own} shown={shown} room={room} top={ticksTop} onFrame={onFrame} />
        <EventMarks
          script={script}
          bottom={y}
          clip={clip}
          timeAt={(clientX) => timeAt(clientX - (box.current?.getBoundingClientRect().left ?? 0))}
          onMove={onMove}
        />
        {at >= shown.from && at <= shown.to && (
          <g className="now">
            <line x1={x(at)} x2={x(at)} y1={20} y2={y} />
            <rect x={Math.min(x(at) - 38, width - 80)} y={0} width={76} height={19} />
            <text x={Math.min(x(at), width - 42)} y={14}>
              {(at / 1e6).toFixed(3)} s
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}

/** A window that is nearer to, or farther from, one of its moments. */
export function zoomed(shown: Window, middle: number, factor: number, until: number): Window {
  const span = Math.min(until, Math.max(200, (shown.to - shown.from) * factor));
  const share = (middle - shown.from) / (shown.to - shown.from);
  const from = Math.min(Math.max(0, middle - span * share), until - span);
  return { from, to: from + span };
}
