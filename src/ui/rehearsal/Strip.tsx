'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { Design, Script } from '../../core/design';
import { carriesVlan } from '../../core/trace';
import type { Trace } from '../../core/trace';
import { laneTree, vlanOf } from './moment';
import { Lanes, layoutOf } from './StripLanes';
import { LEFT, Patterns, ticksIn, timeLabel, useWidth } from '../chart/time-lanes';
import type { Window } from '../chart/time-lanes';
import { TICK_ROW, Ticks, marksOf } from './StripParts';
import { EventLines, EventMarks } from './StripMarks';
import type { Pulled } from './StripMarks';
import { SECOND } from '../../core/standard';
import styles from './Strip.module.css';

/** Height of the ruler, and room above the first lane. */
const RULER = 30;
const HEAD = 0;
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
  /** Ports whose lanes come before the others. */
  first: ReadonlySet<string>;
}

/** Keys that move the moment, by a share of what is shown. */
const KEYS: Partial<Record<string, number>> = {
  ArrowLeft: -0.005,
  ArrowRight: 0.005,
  PageUp: -0.1,
  PageDown: 0.1,
};

/** The box of the strip: its width, and where its times are. */
function useTimeScale({ shown, onShown, trace }: Pick<Props, 'shown' | 'onShown' | 'trace'>) {
  const { box, width } = useWidth(1240);
  const room = Math.max(100, width - LEFT - 16);
  const x = (t: number) => LEFT + ((t - shown.from) / (shown.to - shown.from)) * room;
  const timeAt = (px: number) => shown.from + ((px - LEFT) / room) * (shown.to - shown.from);
  const left = () => box.current?.getBoundingClientRect().left ?? 0;
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
  const clip = (from: number, to: number): [number, number] | null => {
    const [a, b] = [Math.max(from, shown.from), Math.min(to, shown.to)];
    return b < a ? null : [x(a), x(b)];
  };
  return { box, width, room, x, timeAt: (clientX: number) => timeAt(clientX - left()), clip };
}

/** The moment as a slider: pressed, pulled, and by keys. */
function useSlider(
  { at, shown, trace, onAt }: Pick<Props, 'at' | 'shown' | 'trace' | 'onAt'>,
  timeAt: (clientX: number) => number,
) {
  const press = useRef<number | null>(null);
  const scrub = (clientX: number) => onAt(Math.round(Math.min(trace.until, Math.max(0, timeAt(clientX)))));
  return {
    role: 'slider',
    tabIndex: 0,
    'aria-label': 'Time',
    'aria-valuemin': 0,
    'aria-valuemax': trace.until,
    'aria-valuenow': at,
    'aria-valuetext': `${(at / SECOND).toFixed(3)} s`,
    onPointerDown: (e: PointerEvent<HTMLElement>) => {
      if (e.clientX - e.currentTarget.getBoundingClientRect().left < LEFT - 8) return;
      press.current = e.clientX;
      e.currentTarget.setPointerCapture(e.pointerId);
      scrub(e.clientX);
    },
    onPointerMove: (e: PointerEvent<HTMLElement>) => press.current !== null && scrub(e.clientX),
    onPointerUp: () => (press.current = null),
    onKeyDown: (e: KeyboardEvent<HTMLElement>) => {
      const to = keyed(e.key, at, shown, trace.until);
      if (to === null) return;
      e.preventDefault();
      onAt(to);
    },
  };
}

/** Time as a strip of lanes: contact, roots, ports that changed, BPDUs. */
export function Strip({ design, trace, script, tree, at, shown, onAt, onShown, onFrame, onMove, first }: Props) {
  const { box, width, room, x, timeAt, clip } = useTimeScale({ shown, onShown, trace });
  const own = laneTree(trace, tree);
  const layout = useMemo(() => {
    const vlan = vlanOf(tree);
    return layoutOf(trace, own, first, HEAD, (port) => vlan === 0 || carriesVlan(design, port, vlan));
  }, [design, trace, tree, own, first]);
  const [pulled, setPulled] = useState<Pulled | null>(null);
  const slider = useSlider({ at, shown, trace, onAt }, timeAt);
  const { step, ticks } = ticksIn(shown);
  const ticksTop = layout.bottom + 3 + HEADING;
  const y = ticksTop + marksOf(trace.frames).length * TICK_ROW;
  const isShown = at >= shown.from && at <= shown.to;
  return (
    <div className="time-strip" ref={box} {...slider}>
      {/* Stays in sight when the lanes are scrolled. */}
      <svg className={styles.timeRuler} width={width} height={RULER} aria-hidden="true">
        {ticks.map((t) => (
          <text key={t} className={styles.tickName} x={x(t)} y={15}>
            {timeLabel(t, step)}
          </text>
        ))}
        <EventMarks script={script} clip={clip} timeAt={timeAt} pulled={pulled} onPull={setPulled} onMove={onMove} />
        {isShown && <NowMark at={at} x={x(at)} width={width} />}
      </svg>
      <div className={styles.timeLanes}>
        {/* A layer of its own: pulling it along does not paint the lanes again. */}
        {isShown && <div className={styles.nowLine} style={{ height: y, transform: `translateX(${x(at) - 1}px)` }} />}
        <svg width={width} height={y + 6} aria-hidden="true">
          <Patterns />
          {ticks.map((t) => (
            <line key={t} className="tick" x1={x(t)} x2={x(t)} y1={0} y2={y} />
          ))}
          <Lanes design={design} trace={trace} layout={layout} shown={shown} left={LEFT} room={room} />
          <text className="lane-head" x={14} y={layout.bottom + 16}>
            BPDUs and LACPDUs
          </text>
          <Ticks trace={trace} own={own} shown={shown} room={room} top={ticksTop} onFrame={onFrame} />
          <EventLines script={script} clip={clip} bottom={y} pulled={pulled} />
        </svg>
      </div>
    </div>
  );
}

/** The moment that a key leads to; null for other keys. */
function keyed(key: string, at: number, shown: Window, until: number): number | null {
  const by = KEYS[key];
  if (key === 'Home') return 0;
  if (key === 'End') return until;
  if (by === undefined) return null;
  return Math.round(Math.min(until, Math.max(0, at + by * (shown.to - shown.from))));
}

function NowMark({ at, x, width }: { at: number; x: number; width: number }) {
  return (
    <g className="now">
      <line x1={x} x2={x} y1={19} y2={RULER} />
      <rect x={Math.min(x - 38, width - 80)} y={0} width={76} height={19} />
      <text x={Math.min(x, width - 42)} y={14}>
        {(at / SECOND).toFixed(3)} s
      </text>
    </g>
  );
}

/** A window that is nearer to, or farther from, one of its moments. */
export function zoomed(shown: Window, middle: number, factor: number, until: number): Window {
  const span = Math.max(200, Math.min(until, (shown.to - shown.from) * factor));
  const share = (middle - shown.from) / (shown.to - shown.from);
  const from = Math.min(Math.max(0, middle - span * share), Math.max(0, until - span));
  return { from, to: from + span };
}
