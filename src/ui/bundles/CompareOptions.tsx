'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { TOOLTIP } from '../controls/chart-style';
import { compareOptions } from '../../core/analysis';
import type { Option } from '../../core/analysis';

import { newId } from '../session/new-id';
import { useBench, useSession } from '../session/context';
import { grouped } from '../../core/standard';
import styles from './CompareOptions.module.css';

const seconds = (n: number) => (n === 0 ? 'immediate' : Number.isFinite(n) ? `${n} s` : 'never detected');

const ROWS: readonly { name: string; of: (o: Option) => string; mono?: boolean }[] = [
  { name: 'trees over the first, the second link', of: (o) => o.carried.join(', '), mono: true },
  { name: 'capacity for all trees', of: (o) => `${grouped(o.capacity)} Mb/s`, mono: true },
  { name: 'capacity for one tree', of: (o) => `${grouped(o.tree)} Mb/s`, mono: true },
  { name: 'capacity for one conversation', of: (o) => `${grouped(o.conversation)} Mb/s`, mono: true },
  { name: 'capacity when the first link fails', of: (o) => `${grouped(o.left)} Mb/s`, mono: true },
  { name: 'trees in which other ports change role then', of: (o) => String(o.moved), mono: true },
  { name: 'outage when the first link fails', of: (o) => seconds(o.outage) },
  { name: 'outage when it comes back', of: (o) => seconds(o.back) },
  { name: 'time to detect a silent partner', of: (o) => seconds(o.silent) },
];

function OptionTable({ options, onTry }: { options: readonly Option[]; onTry: (option: Option) => void }) {
  return (
    <table className="rows">
      <caption>Two links, {options.length} options</caption>
      <thead>
        <tr>
          <td />
          {options.map((o) => (
            <th key={o.id} scope="col">
              {o.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {ROWS.map((row) => (
          <tr key={row.name}>
            <th scope="row">{row.name}</th>
            {options.map((o) => (
              <td key={o.id} className={row.mono ? 'mono' : undefined}>
                {row.of(o)}
              </td>
            ))}
          </tr>
        ))}
        <tr>
          <td />
          {options.map((o) => (
            <td key={o.id}>
              {o.edits.length === 0 ? (
                <span className="quiet">in use now</span>
              ) : (
                <Button aria-label={`Preview: ${o.name}`} onClick={() => onTry(o)}>
                  Preview
                </Button>
              )}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

const FILLS = ['var(--ink-3)', 'var(--ink-2)', 'var(--accent)'];

function CapacityChart({ options }: { options: readonly Option[] }) {
  const bars = [
    { name: 'both links up', ...Object.fromEntries(options.map((o) => [o.name, o.capacity])) },
    { name: 'first link down', ...Object.fromEntries(options.map((o) => [o.name, o.left])) },
  ];
  const tick = { fill: 'var(--ink-2)', fontSize: 11 };
  return (
    <figure
      className="load-chart"
      aria-label="Capacity of each option in Mb/s, with both links and with the first down"
    >
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={bars} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid vertical={false} stroke="var(--rule)" />
          <XAxis dataKey="name" tick={tick} stroke="var(--rule)" />
          <YAxis width={56} tick={tick} stroke="var(--rule)" />
          <Tooltip {...TOOLTIP} formatter={(value) => `${String(value)} Mb/s`} />
          <Legend formatter={(text: string) => <span className="ink">{text}</span>} />
          {options.map((o, i) => (
            <Bar key={o.id} dataKey={o.name} fill={FILLS[i]} isAnimationActive={false} maxBarSize={46} />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

/** Options for two parallel links, side by side; each can be previewed on the chart. */
export function CompareOptions({ links }: { links: readonly string[] }) {
  const { tryOut, go } = useBench();
  const design = useSession((s) => s.design);
  const found = useMemo(() => compareOptions(design, links, newId), [design, links]);
  if (!found.ok) return <p className="sentence">{found.sentence}</p>;
  const onTry = (option: Option) => {
    tryOut(`Two links: ${option.name}`, option.edits);
    go('trees');
  };
  return (
    <section className={styles.compareOptions} aria-label="Compare options">
      <OptionTable options={found.options} onTry={onTry} />
      {found.notes.map((note) => (
        <p key={note} className="quiet">
          {note}
        </p>
      ))}
      <CapacityChart options={found.options} />
      <p className="quiet small">Capacities: this design, solved. Times: the protocols, with the timers set here.</p>
    </section>
  );
}
