'use client';
import { memo, useMemo } from 'react';
import { firstFrom, hasMark, markAt, stepFrame } from '../../core/trace';
import type { FrameLog, Mark, Trace } from '../../core/trace';
import { LEFT } from '../chart/time-lanes';
import type { Window } from '../chart/time-lanes';
import { vlanOf } from './moment';
import styles from './StripParts.module.css';

/** Height of a row of ticks. */
export const TICK_ROW = 14;

const MARKS: readonly { mark: Mark; name: string }[] = [
  { mark: 'proposal', name: 'proposal' },
  { mark: 'agreement', name: 'agreement' },
  { mark: 'change', name: 'topology change' },
  { mark: 'hello', name: 'hello' },
  { mark: 'lacp', name: 'LACP' },
  { mark: 'keepalive', name: 'keepalive' },
];

/** Kinds of frames that have a lane; keepalives where any are sent. */
export const marksOf = (frames: FrameLog) => MARKS.filter(({ mark }) => mark !== 'keepalive' || hasMark(frames, mark));

/** Index of the frame nearest to a moment of those that are meant; null when there is none. */
export function nearestFrame(frames: FrameLog, time: number, meant: (index: number) => boolean): number | null {
  const start = firstFrom(frames, time);
  const [after, before] = [stepFrame(frames, start - 1, 1, meant), stepFrame(frames, start, -1, meant)];
  if (after === null || before === null) return after ?? before;
  return time - frames.at[before]! < frames.at[after]! - time ? before : after;
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
  const vlan = vlanOf(own);
  const { frames } = trace;
  const paths = useMemo(() => {
    const found = new Map<Mark, Set<number>>();
    for (let i = firstFrom(frames, shown.from); i < frames.count && frames.at[i]! <= shown.to; i++) {
      const mark = markAt(frames, i, vlan);
      if (!mark) continue;
      const px = Math.round(((frames.at[i]! - shown.from) / (shown.to - shown.from)) * room);
      if (!found.has(mark)) found.set(mark, new Set());
      found.get(mark)!.add(px);
    }
    return found;
  }, [frames, vlan, shown, room]);
  const open = (mark: Mark, clientX: number, left: number) => {
    const time = shown.from + ((clientX - left - LEFT) / room) * (shown.to - shown.from);
    const best = nearestFrame(frames, time, (i) => markAt(frames, i, vlan) === mark);
    if (best !== null) onFrame(best);
  };
  return (
    <>
      {marksOf(frames).map(({ mark, name }, row) => (
        <g key={mark}>
          <text className="lane-name" x={26} y={top + row * TICK_ROW + 11}>
            {name}
          </text>
          <path
            className={`ticks ticks-${mark}`}
            d={[...(paths.get(mark) ?? [])].map((px) => `M${LEFT + px} ${top + row * TICK_ROW + 2}v11`).join('')}
          />
          <rect
            className={styles.tickHit}
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
