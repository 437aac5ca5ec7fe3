'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { bundleWhatIfs } from '../../core/analysis';
import type { BundleWhatIf } from '../../core/analysis';
import type { Bundle } from '../../core/design';
import { OUTCOME_WORDS } from '../../core/network';
import { grouped } from '../../core/standard';
import { treesTitle } from '../controls/tree-names';
import { useSession } from '../session/context';
import type { BundleGroup } from './groups';
import styles from './WhatIf.module.css';

export const WHAT_IF_WORDS = {
  'one-lost': 'one link lost',
  'two-lost': 'two links lost',
  'far-plain': 'the far end not configured',
  'near-static': 'this end static',
} as const satisfies Record<BundleWhatIf['id'], string>;

interface Props {
  readonly group: BundleGroup;
  /** What is shown on the drawing. */
  readonly shown: BundleWhatIf['id'] | null;
  readonly onShow: (whatIf: BundleWhatIf | null) => void;
}

const arrow = (before: number | null, after: number | null, none: string): string => {
  const words = (n: number | null) => (n === null ? none : grouped(n));
  return before === after ? `${words(before)}, as now` : `${words(before)} → ${words(after)}`;
};

/** After how long an end notices that a member is silent although its link is up. */
const silence = ({ kind, timeout }: Bundle): string =>
  kind === 'static' ? 'never' : kind === 'lacp' ? (timeout === 'short' ? '3 s' : '90 s') : 'by its own timers';

/** The questions that are asked of a bundle, side by side; each can be seen on the drawing. */
export function WhatIf({ group, shown, onShow }: Props) {
  const solved = useSession((s) => s.solved);
  const { near, far } = group;
  const all = useMemo(() => bundleWhatIfs(solved, near, far), [solved, near, far]);
  if (all.length === 0) return <p className="quiet">No member is active, so there is nothing to lose.</p>;
  return (
    <div className={styles.columns}>
      {all.map((w) => (
        <section key={w.id} aria-label={`What if: ${WHAT_IF_WORDS[w.id]}`}>
          <h3>{WHAT_IF_WORDS[w.id]}</h3>
          <Facts whatIf={w} group={group} trees={solved.trees.length} />
          <p className="small quiet">{w.verdict.sentence}</p>
          {w.moved.length > 0 && (
            <p className="small quiet">{treesTitle(w.moved.flatMap((t) => solved.byId.get(t.tree)?.tree ?? []))}</p>
          )}
          <Button onClick={() => onShow(shown === w.id ? null : w)}>
            {shown === w.id ? 'Back to as it is' : 'Show on the drawing'}
          </Button>
        </section>
      ))}
    </div>
  );
}

function Facts({
  whatIf: w,
  group: { near, far },
  trees,
}: {
  whatIf: BundleWhatIf;
  group: BundleGroup;
  trees: number;
}) {
  const silent = `${silence(near[0]!)} here${far[0] ? `, ${silence(far[0])} there` : ''}`;
  const rows: [string, string, boolean][] = [
    ['then', OUTCOME_WORDS[w.verdict.outcome], w.verdict.outcome !== 'forms'],
    ['members active', arrow(w.active[0], w.active[1], ''), false],
    ['capacity, Mb/s', arrow(w.rate[0], w.rate[1], 'no bundle'), false],
    ['cost by speed', arrow(w.cost[0], w.cost[1], 'no port'), false],
    ['trees that move', `${w.moved.length} of ${trees}`, w.moved.length > 0],
  ];
  if (w.id.endsWith('lost')) rows.push(['noticed after', `without carrier: at once; silent: ${silent}`, false]);
  return (
    <table className="rows">
      <tbody>
        {rows.map(([what, words, wrong]) => (
          <tr key={what}>
            <th scope="row">{what}</th>
            <td className={wrong ? 'alarm' : undefined}>{words}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
