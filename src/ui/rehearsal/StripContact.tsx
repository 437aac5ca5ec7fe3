'use client';
import type { Design } from '../../core/design';
import { hostById } from '../../core/design';
import { lasting } from '../../core/standard';
import { gapsOf, switchList } from '../../core/trace';
import type { ContactLane, Flood } from '../../core/trace';
import type { Clip } from './StripMarks';
import { LaneName } from '../chart/time-lanes';

const floodWords = (design: Design, { switches, ports }: Flood) =>
  `Flooded at ${switchList(design, switches)}: ${ports === 1 ? '1 port sends' : `${ports} ports send`} in vain`;

interface ContactProps {
  design: Design;
  lane: ContactLane;
  until: number;
  top: number;
  clip: Clip;
}

/** When a pair was in contact, with the length of every gap. */
export function Contact({ design, lane, until, top, clip }: ContactProps) {
  return (
    <g>
      <LaneName
        top={top}
        text={`${hostById(design, lane.from)?.name ?? lane.from} – ${hostById(design, lane.to)?.name ?? lane.to}`}
      />
      {lane.spans.map((span, i) => {
        const reach = clip(span.at, lane.spans[i + 1]?.at ?? until);
        return reach && span.ok ? (
          <rect
            key={i}
            className={span.copies > 1 ? 'contact copies' : span.flood ? 'contact flooded' : 'contact'}
            x={reach[0]}
            y={span.flood ? top + 4 : top + 6}
            width={Math.max(0.5, reach[1] - reach[0])}
            height={span.flood ? 12 : 8}
          >
            {span.flood && <title>{floodWords(design, span.flood)}</title>}
          </rect>
        ) : null;
      })}
      {gapsOf(lane).map((gap, i) => {
        const reach = clip(gap.from, gap.to ?? until);
        return reach ? (
          <g key={`g ${i}`}>
            <rect
              className="gap"
              x={reach[0] - 1}
              y={top + 3}
              width={Math.max(2, reach[1] - reach[0] + 2)}
              height={14}
            />
            <GapLength from={reach[0]} to={reach[1]} top={top} lost={gap.to === null}>
              {gap.to === null ? 'unreachable to the end' : lasting(gap.to - gap.from)}
            </GapLength>
          </g>
        ) : null;
      })}
    </g>
  );
}

/** How long a gap is: in it where there is room, else beside it. */
function GapLength({
  from,
  to,
  top,
  lost,
  children,
}: {
  from: number;
  to: number;
  top: number;
  lost: boolean;
  children: string;
}) {
  const inside = lost || to - from > children.length * 7.4 + 8;
  return (
    <text className="gap-length" x={inside ? from + 5 : to + 4} y={inside ? top + 14 : top + 3}>
      {children}
    </text>
  );
}
