'use client';
import { atWords, consoleNames, longestOutage, outageWords } from '../../core/plan';
import type { ChangePlan } from '../../core/plan';
import { SECOND, count, grouped, lasting } from '../../core/standard';
import type { Planning } from './usePlan';
import styles from './HandoverStage.module.css';

const PHASES = {
  table: 'rehearsing the order of the tables',
  theory: 'ordering by theory',
  rehearsal: 'rehearsing the plan',
  orders: 'comparing orders',
  helpers: 'trying steps that help',
} as const;

/** How far the search is, and how to end it. */
export function PlanProgressLine({ planning }: { planning: Planning }) {
  const { progress } = planning;
  return (
    <p role="status" className={styles.progress}>
      {progress ? PHASES[progress.phase] : 'planning'}
      {progress && progress.rehearsals > 0 && `, ${count(progress.rehearsals, 'rehearsal')}`}
      {progress && progress.looked > 0 && `, ${grouped(progress.looked)} ways looked at`}…{' '}
      <button className="tool" onClick={planning.stop}>
        {progress?.best ? 'Take the best so far' : 'Stop'}
      </button>
    </p>
  );
}

const secondsOf = (seconds: number): string =>
  seconds < 0.01 ? 'none that counts' : lasting(Math.round(seconds * SECOND));

const longestStep = ({ steps }: ChangePlan) =>
  steps.map((s, i) => ({ s, i, at: longestOutage(s) })).reduce((a, b) => (b.at > a.at ? b : a));

/** The plan in one line: worst outage, what the order of the tables would cost, and how sure that is. */
export function PlanSummary({ plan }: { plan: ChangePlan }) {
  const { cost, table, exact, given, looked } = plan;
  const worst = longestStep(plan);
  const consoles = consoleNames(plan);
  return (
    <>
      <span>
        longest outage{' '}
        <strong className={`mono ${cost.worst >= 1 ? 'alarm' : ''}`}>
          {worst.at > 0 ? outageWords(worst.s) : 'none'}
        </strong>
        {worst.at > 0 && ` (${atWords(worst.s)}, step ${worst.i + 1})`}
      </span>
      {cost.lost > 0 && <span className="alarm">contact is lost between steps {count(cost.lost, 'time')}</span>}
      {consoles.length > 0 && <span className="alarm">console needed at {consoles.join(', ')}</span>}
      {plan.tableIsKnown && <TableOrder plan={plan} table={table} />}
      <span className="quiet">
        {given
          ? 'in this order'
          : exact
            ? 'no order is better'
            : looked > 0
              ? `best of ${grouped(looked)} ways`
              : 'ordered by theory'}
      </span>
    </>
  );
}

/** What the order of the tables would cost, where that is more. */
function TableOrder({ plan: { cost }, table }: { plan: ChangePlan; table: ChangePlan['table'] }) {
  if (!table) return <span>the order of the tables would loop</span>;
  const same = table.worst <= cost.worst && table.lost <= cost.lost && table.consoles <= cost.consoles;
  if (same) return null;
  return (
    <span>
      table order would cost <strong className="mono alarm">{secondsOf(table.worst)}</strong>
      {table.lost > cost.lost && ' and leave pairs or switches without contact between steps'}
      {table.consoles > cost.consoles && ` and cut off ${count(table.consoles - cost.consoles, 'device')}`}
    </span>
  );
}
