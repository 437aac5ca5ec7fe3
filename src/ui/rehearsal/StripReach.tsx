'use client';
import type { Design } from '../../core/design';
import { switchList } from '../../core/trace';
import type { ReachSpan, Trace } from '../../core/trace';
import type { Clip } from './StripMarks';
import { lasting } from '../../core/standard';

export interface ReachRow {
  /** VLANs to which the same happened, each for all whose frames go alike. */
  readonly vlans: number[];
  readonly spans: readonly ReachSpan[];
}

/** VLANs that were partitioned at some time; those to which the same happened share a row. */
export function reachRows(trace: Trace): ReachRow[] {
  const rows = new Map<string, ReachRow>();
  for (const { vlan, spans } of trace.reach) {
    if (spans.every((s) => s.apart.length === 0)) continue;
    const key = JSON.stringify(spans);
    const row = rows.get(key);
    if (row) row.vlans.push(vlan);
    else rows.set(key, { vlans: [vlan], spans });
  }
  return [...rows.values()];
}

interface Props {
  design: Design;
  spans: readonly ReachSpan[];
  until: number;
  top: number;
  clip: Clip;
}

/** When a VLAN was connected; where it was not, for how long, and who was not reached. */
export function ReachLane({ design, spans, until, top, clip }: Props) {
  return (
    <g>
      {spans.map((span, i) => {
        const to = spans[i + 1]?.at ?? until;
        const reach = clip(span.at, to);
        if (!reach) return null;
        const width = Math.max(0.5, reach[1] - reach[0]);
        if (span.apart.length === 0)
          return <rect key={i} className="contact whole" x={reach[0]} y={top + 8} width={width} height={4} />;
        const words = `without ${switchList(design, span.apart.flat())}, ${lasting(to - span.at)}`;
        return (
          <g key={i}>
            <rect className="gap" x={reach[0] - 1} y={top + 3} width={Math.max(2, width + 2)} height={14} />
            {width > words.length * 6 ? (
              <text className="gap-length" x={reach[0] + 5} y={top + 14}>
                {words}
              </text>
            ) : (
              width > 30 && (
                <text className="gap-length" x={reach[0] + 5} y={top + 14}>
                  {lasting(to - span.at)}
                </text>
              )
            )}
            <title>{words}</title>
          </g>
        );
      })}
    </g>
  );
}
