'use client';
import { memo, useMemo } from 'react';
import type { Design } from '../../core/design';
import { portWords, treesWords, vlansWords } from '../../core/trace';
import type { ContactLane, LoopSpan, PortLane, PortSpan, Trace } from '../../core/trace';
import { Contact } from './StripContact';
import { LaneName, ROW, Span } from '../chart/time-lanes';
import type { Window } from '../chart/time-lanes';
import { RootLane, rootRows } from './StripMarks';
import type { Clip, RootRow } from './StripMarks';
import { ReachLane, reachRows } from './StripReach';
import type { ReachRow } from './StripReach';
import { more } from '../../core/standard';

const HEADING = 16;
const MOST_PORTS = 150;

type Row = { readonly top: number } & (
  | { readonly kind: 'head'; readonly name: string }
  | { readonly kind: 'contact'; readonly lane: ContactLane }
  | { readonly kind: 'reach'; readonly row: ReachRow }
  | { readonly kind: 'loop'; readonly loops: readonly LoopSpan[] }
  | { readonly kind: 'root'; readonly row: RootRow }
  | { readonly kind: 'port'; readonly lane: PortLane }
  | { readonly kind: 'more'; readonly count: number }
);

export interface Layout {
  readonly rows: readonly Row[];
  readonly bottom: number;
}

/** Where every lane stands: contact, roots, ports that changed in a tree; those of `first` before the others. */
export function layoutOf(
  trace: Trace,
  own: string,
  first: ReadonlySet<string>,
  from: number,
  /** Whether a port has a part in the tree in view. */
  has: (port: string) => boolean = () => true,
): Layout {
  const rows: Row[] = [];
  let y = from;
  const head = (name: string) => {
    rows.push({ kind: 'head', name, top: y + 3 });
    y += 3 + HEADING;
  };
  const add = (row: Row) => {
    rows.push(row);
    y += ROW;
  };
  if (trace.contacts.length > 0) head('reachable');
  for (const lane of trace.contacts) add({ kind: 'contact', lane, top: y });
  const apart = reachRows(trace);
  if (apart.length > 0) head('connected');
  for (const row of apart) add({ kind: 'reach', row, top: y });
  if (trace.loops.length > 0) add({ kind: 'loop', loops: trace.loops, top: y });
  const roots = rootRows(trace, own);
  if (roots.length > 0) head('root');
  for (const row of roots) add({ kind: 'root', row, top: y });
  const ports = trace.ports.filter((l) => l.tree === own && l.spans.length > 1 && has(l.port));
  const sorted = [...ports.filter((l) => first.has(l.port)), ...ports.filter((l) => !first.has(l.port))];
  if (ports.length > 0) head('ports that changed');
  for (const lane of sorted.slice(0, MOST_PORTS)) add({ kind: 'port', lane, top: y });
  if (sorted.length > MOST_PORTS) add({ kind: 'more', count: sorted.length - MOST_PORTS, top: y });
  return { rows, bottom: y };
}

interface Stretch {
  /** Null where it changes faster than can be shown at this width. */
  readonly span: PortSpan | null;
  readonly from: number;
  readonly to: number;
}

/** Pixels below which changes run into one. */
const NARROW = 1.2;

/** A port's time as stretches to draw: those that are too narrow to be distinguished are joined, so that none are too many. */
export function stretches(lane: PortLane, until: number, clip: Clip): Stretch[] {
  const found: { span: PortSpan | null; from: number; to: number; parts: number }[] = [];
  lane.spans.forEach((span, i) => {
    const reach = clip(span.at, lane.spans[i + 1]?.at ?? until);
    if (!reach) return;
    const [from, to] = reach;
    const before = found.at(-1);
    if (to - from >= NARROW || !before || (before.to - before.from >= NARROW * 4 && before.span !== null))
      return void found.push({ span, from, to, parts: 1 });
    // Joined to what stands before as long as that is narrow too, or restless already.
    if (before.span !== null && before.to - before.from >= NARROW) return void found.push({ span, from, to, parts: 1 });
    before.to = to;
    before.parts++;
    before.span = null;
  });
  return found;
}

interface Props {
  design: Design;
  trace: Trace;
  layout: Layout;
  shown: Window;
  left: number;
  room: number;
}

/** Where lanes are, and what of their time is shown. */
interface LaneProps extends Pick<Props, 'design' | 'trace' | 'shown'> {
  readonly clip: Clip;
  /** When guards tripped, by port. */
  readonly trips: ReadonlyMap<string, readonly number[]>;
}

/** The lanes of the strip; drawn again only when what is shown changes, not while the moment is pulled along. */
export const Lanes = memo(function Lanes({ design, trace, layout, shown, left, room }: Props) {
  const trips = useMemo(() => {
    const found = new Map<string, number[]>();
    for (const h of trace.happenings) if (h.kind === 'guard') found.set(h.port, [...(found.get(h.port) ?? []), h.at]);
    return found;
  }, [trace]);
  const x = (t: number) => left + ((t - shown.from) / (shown.to - shown.from)) * room;
  const clip: Clip = (from, to) => {
    const [a, b] = [Math.max(from, shown.from), Math.min(to, shown.to)];
    return b < a ? null : [x(a), x(b)];
  };
  return layout.rows.map((row) => (
    <Lane key={keyOf(row)} row={row} design={design} trace={trace} shown={shown} clip={clip} trips={trips} />
  ));
});

function keyOf(row: Row): string {
  switch (row.kind) {
    case 'head':
      return row.name;
    case 'contact':
      return `c ${row.lane.vlan} ${row.lane.from} ${row.lane.to}`;
    case 'root':
      return `r ${row.row.trees[0]}`;
    case 'reach':
      return `v ${row.row.vlans[0]}`;
    case 'port':
      return `p ${row.lane.port}`;
    default:
      return row.kind;
  }
}

function Lane({ row, ...at }: LaneProps & { row: Row }) {
  const { design, trace, clip } = at;
  switch (row.kind) {
    case 'head':
      return (
        <text className="lane-head" x={14} y={row.top + 13}>
          {row.name}
        </text>
      );
    case 'contact':
      return <Contact design={design} lane={row.lane} until={trace.until} top={row.top} clip={clip} />;
    case 'root':
      return (
        <g>
          <LaneName top={row.top} text={treesWords(trace, row.row.trees)} />
          <RootLane design={design} spans={row.row.spans} until={trace.until} top={row.top} clip={clip} />
        </g>
      );
    case 'reach':
      return (
        <g>
          <LaneName top={row.top} text={vlansWords(trace, row.row.vlans)} />
          <ReachLane design={design} spans={row.row.spans} until={trace.until} top={row.top} clip={clip} />
        </g>
      );
    case 'loop':
      return <LoopLane loops={row.loops} until={trace.until} top={row.top} clip={clip} />;
    case 'more':
      return (
        <text className="lane-name" x={26} y={row.top + 13}>
          and {more(row.count, 'port')}: select a switch or a link to see its ports first
        </text>
      );
    case 'port':
      return <PortLaneDrawing lane={row.lane} top={row.top} {...at} />;
  }
}

interface LoopLaneProps {
  readonly loops: readonly LoopSpan[];
  readonly until: number;
  readonly top: number;
  readonly clip: Clip;
}

function LoopLane({ loops, until, top, clip }: LoopLaneProps) {
  return (
    <g>
      <LaneName top={top} text="frames loop" />
      {loops.map((loop, i) => {
        const reach = clip(loop.from, loop.to ?? until);
        return (
          reach && (
            <rect
              key={i}
              className="goes-round"
              x={reach[0]}
              y={top + 4}
              width={Math.max(2.5, reach[1] - reach[0])}
              height={12}
            />
          )
        );
      })}
    </g>
  );
}

function PortLaneDrawing({
  lane,
  top,
  design,
  trace,
  shown,
  clip,
  trips,
}: LaneProps & { lane: PortLane; top: number }) {
  return (
    <g>
      <LaneName top={top} text={portWords(design, lane.port)} />
      {stretches(lane, trace.until, clip).map((s, i) =>
        s.span === null ? (
          <rect key={i} className="restless" x={s.from} y={top + 5} width={s.to - s.from} height={9} />
        ) : (
          <Span key={i} span={s.span} from={s.from} to={s.to} top={top} begins={s.span.at >= shown.from} />
        ),
      )}
      {trips.get(lane.port)?.map((at) => {
        const reach = clip(at, at);
        return reach && <path key={at} className="trip" d={`M${reach[0]} ${top + 3}v14`} />;
      })}
    </g>
  );
}
