'use client';
import { useMemo } from 'react';
import type { Design, Goal } from '../../core/design';
import { checkGoals } from '../../core/goals';
import { availabilityUnknown } from '../../core/review';
import type { CheckedAvailability } from '../../core/review';
import { OneOf } from '../controls/OneOf';
import { later } from '../controls/later';
import { useBench, useShown } from '../session/context';
import { Panel } from './panels/Panel';
import styles from './SidePanel.module.css';

const GoalsPanel = later(() => import('./goals/GoalsPanel').then((m) => m.GoalsPanel));

/** Goals of availability as the review has found them; of one that is new, or another than it was, nothing is known yet. */
function availabilityOf(
  design: Design,
  found: readonly CheckedAvailability[] | null,
  previewed: boolean,
): CheckedAvailability[] {
  if (previewed) return availabilityUnknown(design, true);
  const same = (a: Goal, b: Goal) => JSON.stringify(a) === JSON.stringify(b);
  return availabilityUnknown(design, false).map((c) => found?.find(({ goal }) => same(goal, c.goal)) ?? c);
}

/** Beside the chart: what is selected, or what is wanted. */
export function SidePanel() {
  const { view, setView, review, draft } = useBench();
  const previewed = draft?.side === 'after';
  const shown = useShown();
  const checked = useMemo(
    () => [...checkGoals(shown), ...availabilityOf(shown.topology.design, review.availability, previewed)],
    [shown, review.availability, previewed],
  );
  const broken = checked.filter((c) => c.state === 'broken').length;
  const pending = checked.some((c) => c.pending);
  const words = checked.length === 0 ? '' : broken > 0 ? `${broken} broken` : pending ? 'not all known' : 'all met';
  return (
    <div className="side">
      <OneOf
        label="Panel"
        className={styles.sideTabs}
        options={[
          { id: 'selection', name: 'Selection' },
          { id: 'goals', name: <>Goals {words && <span className={broken > 0 ? 'alarm' : 'quiet'}>{words}</span>}</> },
        ]}
        value={view.panel}
        onPick={(panel) => setView({ panel })}
      />
      {view.panel === 'goals' ? (
        <GoalsPanel checked={checked} />
      ) : view.board === 'predict' ? (
        <aside className="panel" aria-label="Prediction">
          <h2>Work it out first</h2>
          <p className="quiet">
            The lowest bridge identifier is root: priority first, then MAC address. Every other switch takes the port
            with the lowest root path cost as its root port. On each LAN the end with the lower root path cost is
            designated; a tie goes to the lower bridge identifier, then to the lower port identifier. All other ports
            are blocked.
          </p>
          <p className="quiet">Enter your answers and press Check. A wrong answer opens its ledger.</p>
        </aside>
      ) : (
        <Panel />
      )}
    </div>
  );
}
