'use client';
import { useState } from 'react';
import { TreeStrip } from '../controls/TreeStrip';
import { useBench } from '../session/context';
import { PlanProgressLine, PlanSummary } from './PlanBar';
import { PlaceChoice, RehearsePlan, VariantChoice, useChoice, usePlace } from './PlanTools';
import { SaveSheet } from './SaveSheet';
import { Steps } from './Steps';
import { usePlan } from './usePlan';
import { useEnds } from './useVariants';
import styles from './HandoverStage.module.css';

/** Hand-over: the plan that leads from one variant to another, step by step. */
export function HandoverStage() {
  const { head } = useBench();
  if (head.variants.length < 2)
    return (
      <main className="empty-chart">
        <h2>Nothing to plan yet</h2>
        <p>
          A plan leads from one variant to another. Make a new variant by the menu beside the name of the design, change
          it to what the network is to be, and come back.
        </p>
      </main>
    );
  return <Handover />;
}

function Handover() {
  const { variantId } = useBench();
  const choice = useChoice();
  const ends = useEnds(choice.from, choice.to);
  const place = usePlace(ends.from, choice.from === variantId);
  const [temporary, setTemporary] = useState(true);
  const [round, setRound] = useState(0);
  const planning = usePlan({ ...ends, at: place.at, temporary, round });
  const { plan } = planning;
  return (
    <>
      <TreeStrip />
      <main className={styles.stage}>
        <div className={styles.bar}>
          <VariantChoice {...choice} />
          <PlaceChoice {...place} from={ends.from} />
          <label title="Steps that are taken back again, such as a member that is shut for a while">
            <input type="checkbox" checked={temporary} onChange={(e) => setTemporary(e.target.checked)} /> temporary
            steps
          </label>
          <span className="grow" />
          {plan && !planning.running && (
            <>
              <button className="tool" onClick={() => setRound(round + 1)} title="Search the order again">
                Plan again
              </button>
              <RehearsePlan plan={plan} isOpen={choice.from === variantId} title={choice.title} />
              <SaveSheet plan={plan} title={choice.title} />
            </>
          )}
          <div className={styles.line}>
            {planning.running ? <PlanProgressLine planning={planning} /> : plan && <PlanSummary plan={plan} />}
          </div>
        </div>
        {(planning.sentence ?? ends.failed) !== null && plan !== null && (
          <p className={`alarm ${styles.bar}`}>{planning.sentence ?? ends.failed}</p>
        )}
        {plan ? (
          <Steps key={choice.title} plan={plan} planning={planning} title={choice.title} />
        ) : (
          <p className={`${styles.empty} ${planning.sentence ? '' : 'quiet'}`}>
            {planning.sentence ??
              ends.failed ??
              'The plan is being made: each step is rehearsed on the network before it.'}
          </p>
        )}
      </main>
    </>
  );
}
