'use client';
import { useMemo } from 'react';
import {
  Bar,
  BarChart,
  CartesianGrid,
  Cell,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { TOOLTIP } from '../../controls/chart-style';
import { count } from '../../../core/standard';
import type { LinkUse } from '../../../core/analysis';
import type { SolvedDesign } from '../../../core/trees';
import { linkWords } from './link-words';

const MOST_BARS = 40;

interface Props {
  solved: SolvedDesign;
  linkUse: LinkUse;
  tree: string | null;
  onPick: (column: number) => void;
}

/** A bar a link, the busiest first; of very many the first and the idle ones. */
function barsOf(solved: SolvedDesign, linkUse: LinkUse, loaded: boolean) {
  const value = (c: LinkUse['columns'][number]) => (loaded ? Math.round(c.percent * 10) / 10 : c.vlans);
  const all = linkUse.columns.map((c, column) => ({
    column,
    value: value(c),
    name: linkWords(solved, c),
    idle: c.carried === 0 && c.taking > 0,
  }));
  all.sort((a, b) => b.value - a.value || a.column - b.column);
  return all.length > MOST_BARS ? [...all.slice(0, MOST_BARS - 8), ...all.slice(-8)] : all;
}

/** Links by what they carry: percent of their rate once traffic is given, else VLANs; the busiest first, idle ones last. */
export function LoadChart({ solved, linkUse, onPick }: Props) {
  const loaded = linkUse.columns.some((c) => c.load > 0);
  const bars = useMemo(() => barsOf(solved, linkUse, loaded), [linkUse, solved, loaded]);
  if (bars.length === 0) return null;
  const most = Math.max(...bars.map((b) => b.value));
  return (
    <figure
      className="load-chart"
      aria-label={loaded ? 'Load of links in percent of their rate' : 'VLANs on each link'}
    >
      <figcaption className="quiet small">
        {loaded
          ? 'busier direction of each link, percent of its rate'
          : 'VLANs on each link; enter traffic to see its load'}
      </figcaption>
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={bars} margin={{ top: 6, right: 12, bottom: 2, left: 0 }} barCategoryGap={2}>
          <CartesianGrid vertical={false} stroke="var(--rule)" />
          <XAxis dataKey="name" hide />
          <YAxis
            width={44}
            tick={{ fill: 'var(--ink-2)', fontSize: 11 }}
            stroke="var(--rule)"
            unit={loaded ? ' %' : ''}
            allowDecimals={false}
          />
          <Tooltip
            {...TOOLTIP}
            formatter={(value) => [loaded ? `${String(value)} % of its rate` : count(Number(value), 'VLAN'), '']}
            separator=""
          />
          {loaded && most > 60 && <ReferenceLine y={100} stroke="var(--alarm)" strokeDasharray="4 3" />}
          <Bar
            dataKey="value"
            isAnimationActive={false}
            minPointSize={2}
            onClick={(_, index) => onPick(bars[index]!.column)}
          >
            {bars.map((b) => (
              <Cell
                key={b.column}
                cursor="pointer"
                fill={b.idle || (loaded && b.value > 100) ? 'var(--alarm)' : 'var(--ink-2)'}
              />
            ))}
          </Bar>
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}
