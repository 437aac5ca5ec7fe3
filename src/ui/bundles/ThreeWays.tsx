'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { threeWays } from '../../core/analysis';
import type { Way } from '../../core/analysis';
import { grouped } from '../../core/trees';
import { newId } from '../session/new-id';
import { useBench, useSession } from '../session/context';

const seconds = (n: number) => (n === 0 ? 'no timer waited for' : Number.isFinite(n) ? `${n} s` : 'never noticed');

const ROWS: readonly { name: string; of: (w: Way) => string; mono?: boolean }[] = [
  { name: 'trees over the first, the second link', of: (w) => w.carried.join(', '), mono: true },
  { name: 'usable by all trees together', of: (w) => `${grouped(w.capacity)} Mb/s`, mono: true },
  { name: 'usable by one tree', of: (w) => `${grouped(w.tree)} Mb/s`, mono: true },
  { name: 'usable by one conversation', of: (w) => `${grouped(w.conversation)} Mb/s`, mono: true },
  { name: 'left when the first link fails', of: (w) => `${grouped(w.left)} Mb/s`, mono: true },
  { name: 'trees whose other ports change role then', of: (w) => String(w.moved), mono: true },
  { name: 'without traffic when it fails', of: (w) => seconds(w.outage) },
  { name: 'without traffic when it comes back', of: (w) => seconds(w.back) },
  { name: 'until a silent partner is given up', of: (w) => seconds(w.silent) },
];

/** Two parallel links in three ways, side by side; each can be tried out on the chart. */
export function ThreeWays({ links }: { links: readonly string[] }) {
  const { tryOut, go } = useBench();
  const design = useSession((s) => s.design);
  const found = useMemo(() => threeWays(design, links, newId), [design, links]);
  if (!found.ok) return <p className="sentence">{found.sentence}</p>;
  const bars = [
    { name: 'now', ...Object.fromEntries(found.ways.map((w) => [w.name, w.capacity])) },
    { name: 'first link lost', ...Object.fromEntries(found.ways.map((w) => [w.name, w.left])) },
  ];
  const fills = ['var(--ink-3)', 'var(--ink-2)', 'var(--accent)'];
  return (
    <section className="three-ways" aria-label="Three ways">
      <table className="rows">
        <caption>Two links, three ways</caption>
        <thead>
          <tr>
            <td />
            {found.ways.map((w) => (
              <th key={w.id} scope="col">
                {w.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ROWS.map((row) => (
            <tr key={row.name}>
              <th scope="row">{row.name}</th>
              {found.ways.map((w) => (
                <td key={w.id} className={row.mono ? 'mono' : undefined}>
                  {row.of(w)}
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <td />
            {found.ways.map((w) => (
              <td key={w.id}>
                {w.edits.length === 0 ? (
                  <span className="quiet">as it stands</span>
                ) : (
                  <Button
                    onClick={() => {
                      tryOut(`Two links ${w.name}`, w.edits);
                      go('trees');
                    }}
                  >
                    Try {w.name}
                  </Button>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {found.notes.map((note) => (
        <p key={note} className="quiet">
          {note}
        </p>
      ))}
      <figure className="load-chart" aria-label="Usable Mb/s of each way, now and with the first link lost">
        <ResponsiveContainer width="100%" height="100%">
          <BarChart data={bars} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
            <CartesianGrid vertical={false} stroke="var(--rule)" />
            <XAxis dataKey="name" tick={{ fill: 'var(--ink-2)', fontSize: 11 }} stroke="var(--rule)" />
            <YAxis width={56} tick={{ fill: 'var(--ink-2)', fontSize: 11 }} stroke="var(--rule)" />
            <Tooltip
              cursor={{ fill: 'var(--accent-wash)' }}
              contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--ink-3)', fontSize: 12 }}
              itemStyle={{ color: 'var(--ink)' }}
              formatter={(value) => `${String(value)} Mb/s`}
            />
            <Legend formatter={(text: string) => <span className="ink">{text}</span>} />
            {found.ways.map((w, i) => (
              <Bar key={w.id} dataKey={w.name} fill={fills[i]!} isAnimationActive={false} maxBarSize={46} />
            ))}
          </BarChart>
        </ResponsiveContainer>
      </figure>
      <p className="quiet small">
        Capacities are of this design, solved; times follow from the protocols and their timers as they are set here.
      </p>
    </section>
  );
}
