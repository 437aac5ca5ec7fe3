'use client';
import { useMemo } from 'react';
import { checkGoals } from '../../core/goals';
import { OneOf } from '../controls/OneOf';
import { useBench, useShown } from '../session/context';
import { GoalsPanel } from './goals/GoalsPanel';
import { Panel } from './panels/Panel';
import styles from './SidePanel.module.css';

/** Beside the chart: what is selected, or what is wanted. */
export function SidePanel() {
  const { view, setView } = useBench();
  const shown = useShown();
  const checked = useMemo(() => checkGoals(shown), [shown]);
  const broken = checked.filter((c) => c.state === 'broken').length;
  const words = checked.length === 0 ? '' : broken > 0 ? `${broken} broken` : 'all met';
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
