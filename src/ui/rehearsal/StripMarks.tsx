'use client';
import { switchById } from '../../core/design';
import type { Design, Script } from '../../core/design';
import type { RootSpan, Trace } from '../../core/trace';
import { SECOND } from '../../core/standard';
import styles from './StripMarks.module.css';

/** Where a stretch of time is drawn; only the part in view. */
export type Clip = (from: number, to: number) => [number, number] | null;

/** An event that is being pulled along, and where it is. */
export interface Pulled {
  readonly id: string;
  /** Seconds. */
  readonly at: number;
}

interface EventProps {
  script: Script;
  clip: Clip;
  timeAt: (clientX: number) => number;
  pulled: Pulled | null;
  onPull: (pulled: Pulled | null) => void;
  onMove: (id: string, seconds: number) => void;
}

/** Events of the script as marks that can be pulled to another time. */
export function EventMarks({ script, clip, timeAt, pulled, onPull, onMove }: EventProps) {
  return (
    <>
      {script.events.map((event) => {
        const at = pulled?.id === event.id ? pulled.at : event.at;
        const reach = clip(at * SECOND, at * SECOND);
        if (!reach) return null;
        const [x] = reach;
        return (
          <g
            key={event.id}
            className="event-handle"
            onPointerDown={(e) => {
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              onPull({ id: event.id, at: event.at });
            }}
            onPointerMove={(e) => {
              if (pulled?.id !== event.id) return;
              const seconds = Math.min(script.until, Math.max(0, timeAt(e.clientX) / SECOND));
              onPull({ id: event.id, at: Math.round(seconds * 1000) / 1000 });
            }}
            onPointerUp={() => {
              if (pulled && pulled.at !== event.at) onMove(event.id, pulled.at);
              onPull(null);
            }}
            onPointerCancel={() => onPull(null)}
          >
            <path className="event-mark" d={`M${x - 6} 20H${x + 6}L${x} 30Z`} />
            {pulled?.id === event.id && (
              <text className={styles.eventTime} x={x + 9} y={29}>
                {pulled.at.toFixed(3)} s
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

/** The events of the script as lines across the lanes. */
export function EventLines({
  script,
  clip,
  bottom,
  pulled,
}: Pick<EventProps, 'script' | 'clip' | 'pulled'> & { bottom: number }) {
  return (
    <>
      {script.events.map((event) => {
        const at = (pulled?.id === event.id ? pulled.at : event.at) * SECOND;
        const reach = clip(at, at);
        return (
          reach && <line key={event.id} className={styles.eventLine} x1={reach[0]} x2={reach[0]} y1={0} y2={bottom} />
        );
      })}
    </>
  );
}

export interface RootRow {
  readonly trees: string[];
  readonly spans: readonly RootSpan[];
}

/** The tree in view first, then others whose root changed; trees in which it did so alike share a row. */
export function rootRows(trace: Trace, own: string): RootRow[] {
  const lanes = [
    ...trace.roots.filter((r) => r.tree === own && r.spans.length > 0),
    ...trace.roots.filter((r) => r.tree !== own && r.spans.length > 1),
  ];
  const rows = new Map<string, RootRow>();
  for (const { tree, spans } of lanes) {
    const key = spans.map((s) => `${Math.round(s.at / 1000)} ${s.roots.join()}`).join(';');
    const row = rows.get(key);
    if (row) row.trees.push(tree);
    else rows.set(key, { trees: [tree], spans });
  }
  return [...rows.values()];
}

/** Who takes itself for the root of a tree, over time; more than one at a time is alarming. */
export function RootLane({
  design,
  spans,
  until,
  top,
  clip,
}: {
  design: Design;
  spans: readonly RootSpan[];
  until: number;
  top: number;
  clip: Clip;
}) {
  return (
    <g>
      {spans.map((span, i) => {
        const reach = clip(span.at, spans[i + 1]?.at ?? until);
        if (!reach || reach[1] - reach[0] < 1) return null;
        const words = span.roots.map((id) => switchById(design, id)?.name ?? id).join(', ') || 'no root';
        return (
          <g key={i}>
            <line
              className={span.roots.length === 1 ? styles.rootLine : `${styles.rootLine} ${styles.alarmLine}`}
              x1={reach[0]}
              x2={reach[1]}
              y1={top + 17}
              y2={top + 17}
            />
            {reach[1] - reach[0] > words.length * 6.5 && (
              <text className="root-name" x={reach[0] + 3} y={top + 13}>
                {words}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
