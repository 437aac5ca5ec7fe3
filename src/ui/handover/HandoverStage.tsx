'use client';
import { useState } from 'react';
import { OneOf } from '../controls/OneOf';
import { TreeStrip } from '../controls/TreeStrip';
import { refName } from '../controls/chart-refs';
import { MODE_WORDS } from '../../core/messages';
import { useSession } from '../session/context';
import { PlanProgressLine, PlanSummary } from './PlanBar';
import { ModeChoice, PlaceChoice, RehearsePlan, TargetChoice, VariantChoice, usePlace } from './PlanTools';
import { SaveSheet } from './SaveSheet';
import { Steps } from './Steps';
import { Ways } from './Ways';
import { usePlan } from './usePlan';
import type { Planning } from './usePlan';
import { QUESTIONS, useQuestion } from './useQuestion';
import styles from './HandoverStage.module.css';

/** Hand-over: the plan that brings a change into service, step by step. */
export function HandoverStage() {
  const empty = useSession((s) => s.design.switches.length === 0);
  if (empty)
    return (
      <main className="empty-chart">
        <h2>Nothing to plan yet</h2>
        <p>
          Draw the network in Cabling first, and make a variant of what it is to be. The plan from one to the other is
          made here.
        </p>
      </main>
    );
  return <Handover />;
}

type Asked = ReturnType<typeof useQuestion>;

/** What the plan is of, in a few words: the name of its files and scripts. */
function useTitle({ kind, variants, target, mode }: Asked): string {
  const design = useSession((s) => s.design);
  if (kind === 'change') return variants.title;
  if (kind === 'migration') return `migration to ${MODE_WORDS[mode]}`;
  return target ? `${refName(design, target)} out and back` : 'maintenance';
}

function Handover() {
  const open = useSession((s) => s.design);
  const [temporary, setTemporary] = useState(true);
  const [round, setRound] = useState(0);
  const [chosen, setChosen] = useState<string | null>(null);
  const asked = useQuestion(chosen ?? open.workplaces[0]?.at ?? null, temporary, round);
  const place = usePlace(asked.kind === 'change' ? asked.ends.from : open, asked.beginsOpen, chosen, setChosen);
  const planning = usePlan(asked.question);
  const title = useTitle(asked);
  const { plan, running } = planning;
  return (
    <>
      <TreeStrip />
      <main className={styles.stage}>
        <div className={styles.bar}>
          <OneOf label="What is planned" options={QUESTIONS} value={asked.kind} onPick={asked.setKind} />
          {asked.kind === 'change' && !asked.alone && <VariantChoice {...asked.variants} />}
          {asked.kind === 'maintenance' && <TargetChoice {...asked} />}
          {asked.kind === 'migration' && <ModeChoice {...asked} />}
          <PlaceChoice {...place} from={asked.kind === 'change' ? asked.ends.from : open} />
          <label title="Steps that are taken back again, such as a member that is shut for a while">
            <input type="checkbox" checked={temporary} onChange={(e) => setTemporary(e.target.checked)} /> temporary
            steps
          </label>
          <span className="grow" />
          {plan && !running && (
            <>
              <button className="tool" onClick={() => setRound(round + 1)} title="Search the order again">
                Plan again
              </button>
              <RehearsePlan plan={plan} isOpen={asked.beginsOpen} title={title} />
              <SaveSheet plan={plan} title={title} />
            </>
          )}
          <Line planning={planning} />
          {asked.kind === 'migration' && planning.ways.length > 0 && <Ways planning={planning} />}
        </div>
        <Body {...{ asked, planning, title }} />
      </main>
    </>
  );
}

/** How far the search is, or the plan in one line; and what stands in its way. */
function Line({ planning }: { planning: Planning }) {
  const { plan, running, sentence } = planning;
  return (
    <div className={styles.line}>
      {running ? <PlanProgressLine planning={planning} /> : plan && <PlanSummary plan={plan} />}
      {plan && sentence !== null && <span className="alarm">{sentence}</span>}
    </div>
  );
}

function Body({ asked, planning, title }: { asked: Asked; planning: Planning; title: string }) {
  const { plan, sentence } = planning;
  if (asked.kind === 'change' && asked.alone)
    return (
      <div className={styles.empty}>
        <h2>Nothing to plan yet</h2>
        <p>
          A change leads from one variant to another. Make a new variant by the menu beside the name of the design,
          change it to what the network is to be, and come back. Maintenance and migration need no second variant.
        </p>
      </div>
    );
  if (plan) return <Steps key={title} plan={plan} planning={planning} title={title} />;
  const said = sentence ?? asked.ends.failed;
  return (
    <p className={`${styles.empty} ${said === null ? 'quiet' : ''}`}>
      {said ?? 'The plan is being made: each step is rehearsed on the network before it.'}
    </p>
  );
}
