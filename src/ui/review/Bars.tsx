'use client';
import {
  Bar,
  BarChart,
  CartesianGrid,
  Cell,
  LabelList,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { TOOLTIP } from '../controls/chart-style';

export interface BarOf {
  readonly key: string;
  readonly name: string;
  readonly value: number;
  readonly alarm: boolean;
  /** Said behind the value when it is pointed at. */
  readonly note: string;
}

interface Props {
  readonly bars: readonly BarOf[];
  /** Whether names and values stand at the bars; else they are read by pointing. */
  readonly labels?: boolean;
  readonly unit?: string;
  readonly words: (value: number) => string;
  readonly onPick?: (key: string) => void;
}

/** Bars beside each other. */
export function Bars({ bars, labels = false, unit = '', words, onPick }: Props) {
  const tick = { fill: 'var(--ink-2)', fontSize: 11 };
  return (
    <ResponsiveContainer width="100%" height={146}>
      <BarChart data={[...bars]} margin={{ top: 16, right: 12, bottom: 2, left: 0 }} barCategoryGap={labels ? 14 : 2}>
        <CartesianGrid vertical={false} stroke="var(--rule)" />
        <XAxis dataKey="name" hide={!labels} tick={tick} stroke="var(--rule)" interval={0} />
        <YAxis width={48} tick={tick} stroke="var(--rule)" unit={unit} allowDecimals={false} />
        <Tooltip
          {...TOOLTIP}
          formatter={(value, _, { payload }) => [`${words(Number(value))}${(payload as BarOf).note}`, '']}
          separator=""
        />
        <ReferenceLine y={0} stroke="var(--ink-3)" />
        <Bar
          dataKey="value"
          isAnimationActive={false}
          minPointSize={(value) => (value === 0 ? 0 : 2)}
          onClick={(_, i) => onPick?.(bars[i]!.key)}
        >
          {labels && <LabelList dataKey="value" position="top" fill="var(--ink)" fontSize={12} />}
          {bars.map((b) => (
            <Cell
              key={b.key}
              fill={b.alarm ? 'var(--alarm)' : 'var(--hue-1)'}
              cursor={onPick ? 'pointer' : undefined}
            />
          ))}
        </Bar>
      </BarChart>
    </ResponsiveContainer>
  );
}
