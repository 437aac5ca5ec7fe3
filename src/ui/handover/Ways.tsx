'use client';
import type { Migration, MigrationRule } from '../../core/plan';
import { SECOND, lasting } from '../../core/standard';
import type { Planning } from './usePlan';
import styles from './HandoverStage.module.css';

const RULE_WORDS: Record<MigrationRule, string> = {
  'core-first': 'core first',
  'edge-first': 'edge first',
  'by-group': 'group by group',
  'least-outage': 'least outage',
};

const seconds = (s: number): string => (s === 0 ? 'none that counts' : lasting(Math.round(s * SECOND)));

/** The ways of a migration side by side; a click takes one. */
export function Ways({ planning }: { planning: Planning }) {
  const { ways, plan, takeWay } = planning;
  const touches = ({ plan: p }: Migration) => p.steps.reduce((sum, s) => sum + s.set.length, 0);
  const devices = ({ plan: p }: Migration) => new Set(p.steps.map((s) => s.work.device)).size;
  return (
    <table className={styles.ways} aria-label="Ways of the migration">
      <thead>
        <tr>
          {['order', 'settings', 'devices', 'longest outage', 'all outages', 'failures that separate, on the way'].map(
            (h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody>
        {ways.map((way) => (
          <tr key={way.rule} aria-selected={way.plan === plan} onClick={() => takeWay(way)}>
            <th scope="row">
              <button className="plain">{RULE_WORDS[way.rule]}</button>
            </th>
            <td>{touches(way)}</td>
            <td>{devices(way)}</td>
            <td className={way.plan.cost.worst >= 1 ? 'alarm' : undefined}>{seconds(way.plan.cost.worst)}</td>
            <td>{seconds(way.plan.cost.sum)}</td>
            <td>
              {way.separating === null
                ? 'not asked: too many switches'
                : `${way.separating.before} before, ${way.separating.most} at most, ${way.separating.after} after`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
