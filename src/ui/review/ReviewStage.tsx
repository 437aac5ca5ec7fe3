'use client';
import { Suspense, useMemo, useState } from 'react';
import { grouped } from '../../core/standard';
import type { Failure } from '../../core/review';
import { DraftBar } from '../controls/DraftBar';
import { OneOf } from '../controls/OneOf';
import { TreeStrip } from '../controls/TreeStrip';
import { useBench, useSession } from '../session/context';
import { useInBrowser } from '../session/useInBrowser';
import { FailureChart } from './FailureChart';
import { FailureCharts } from './FailureCharts';
import { Failures } from './Failures';
import { Findings } from './Findings';
import { Missing } from './Missing';
import { SaveReport } from './SaveReport';
import { Variants } from './Variants';
import styles from './ReviewStage.module.css';
import { failureKey } from './words';

type Page = 'findings' | 'missing' | 'charts' | 'variants';

/** How far the review has come, and what stops it. */
function Progress() {
  const { review } = useBench();
  const { progress, failed, took, swept } = review;
  if (failed !== null) return <span className="alarm">{failed}</span>;
  if (progress)
    return (
      <span role="status">
        {progress.of === 0 ? 'reviewing…' : `${grouped(progress.done)} of ${grouped(progress.of)} failures `}
        <button className="tool" onClick={review.stop}>
          Stop
        </button>
      </span>
    );
  return (
    <span className="quiet" role="status" title="Looked at again whenever the design changes">
      {took !== null && `${grouped(swept)} failures in ${(took / 1000).toFixed(1)} s`}
    </span>
  );
}

function useTabs() {
  const { review, head, draft } = useBench();
  const open = review.findings?.filter((f) => f.accepted === null) ?? [];
  const of = (severity: string) => open.filter((f) => f.severity === severity).length;
  const [faults, risks, remarks] = [of('fault'), of('risk'), of('remark')];
  const missing = review.missing ? review.missing.link.length + review.missing.switch.length : 0;
  return [
    {
      id: 'findings' as const,
      name: (
        <>
          Findings <span className={faults > 0 ? 'alarm' : 'quiet'}>{grouped(faults + risks + remarks)}</span>
        </>
      ),
    },
    {
      id: 'missing' as const,
      name: (
        <>
          Missing cables <span className="quiet">{grouped(missing)}</span>
        </>
      ),
    },
    { id: 'charts' as const, name: 'Charts' },
    {
      id: 'variants' as const,
      name: (
        <>
          Variants <span className="quiet">{grouped(head.variants.length + (draft ? 1 : 0))}</span>
        </>
      ),
    },
  ];
}

/** Review: what is set wrongly, what each failure does to the network, and which cables are missing. */
export function ReviewStage() {
  const { review, draft } = useBench();
  const inBrowser = useInBrowser();
  const empty = useSession((s) => s.design.switches.length === 0);
  const [page, setPage] = useState<Page>('findings');
  const [picked, setPicked] = useState<string | null>(null);
  const tabs = useTabs();
  const shown = useMemo<Failure | null>(
    () => review.failures.find((f) => failureKey(f) === picked) ?? null,
    [review.failures, picked],
  );
  if (empty)
    return (
      <main className="empty-chart">
        <h2>Nothing to review yet</h2>
        <p>Draw the network in Cabling first. What is set wrongly and what each failure does is found here.</p>
      </main>
    );
  return (
    <>
      <TreeStrip />
      <main className={styles.review}>
        <section className={`chart-side ${styles.chart}`} aria-label="The network with a failure">
          {inBrowser && <FailureChart failure={shown} onClose={() => setPicked(null)} />}
          {draft && <DraftBar draft={draft} />}
        </section>
        <section className={styles.side} aria-label="Findings and missing cables">
          <OneOf className="boards" label="What is shown" options={tabs} value={page} onPick={setPage}>
            <span className="grow" />
            <Progress />
            <SaveReport />
          </OneOf>
          {page === 'findings' && <Findings />}
          {page === 'missing' && <Missing />}
          <Suspense fallback={<p className="quiet">Loading the charts…</p>}>
            {page === 'charts' && <FailureCharts onPick={setPicked} />}
          </Suspense>
          {page === 'variants' && <Variants />}
        </section>
        <Failures picked={picked} onPick={setPicked} />
      </main>
    </>
  );
}
