/** The stages, each with its own script: the one that is opened is fetched first, the others when the page has nothing to do. */
import dynamic from 'next/dynamic';
import { useContext, useEffect, useMemo } from 'react';
import type { ComponentType } from 'react';
import { fetchLater } from '../controls/later';
import { BenchContext } from '../session/context';
import type { StageId } from '../session/stages';

/** A stage that draws nothing until a design is open. */
function whenOpen(Stage: ComponentType) {
  return function Opened() {
    return useContext(BenchContext) && <Stage />;
  };
}

// Each import stands in its call: by that the server knows which script a stage needs.
const STAGE = {
  cabling: dynamic(() => import('../cabling/CablingStage').then((m) => whenOpen(m.CablingStage))),
  trees: dynamic(() => import('../trees/TreesStage').then((m) => whenOpen(m.TreesStage))),
  bundles: dynamic(() => import('../bundles/BundlesStage').then((m) => whenOpen(m.BundlesStage))),
  review: dynamic(() => import('../review/ReviewStage').then((m) => whenOpen(m.ReviewStage))),
  'as-built': dynamic(() => import('../observed/ObservedStage').then((m) => whenOpen(m.ObservedStage))),
  'hand-over': dynamic(() => import('../handover/HandoverStage').then((m) => whenOpen(m.HandoverStage))),
  rehearsal: dynamic(() => import('../rehearsal/RehearsalStage').then((m) => whenOpen(m.RehearsalStage))),
} as const;

const LOAD: Record<StageId, () => Promise<Record<string, ComponentType>>> = {
  cabling: () => import('../cabling/CablingStage'),
  trees: () => import('../trees/TreesStage'),
  bundles: () => import('../bundles/BundlesStage'),
  review: () => import('../review/ReviewStage'),
  'as-built': () => import('../observed/ObservedStage'),
  'hand-over': () => import('../handover/HandoverStage'),
  rehearsal: () => import('../rehearsal/RehearsalStage'),
};

const ready = new Map<StageId, ComponentType>();

/** Fetches the script of a stage: it then opens without a moment in between. `selects`: with the panels of what is selected. */
export async function fetchStage(stage: StageId, selects = false): Promise<void> {
  const panels = selects && stage === 'trees' ? import('../trees/panels/of-selection') : null;
  const [Stage] = Object.values(await LOAD[stage]());
  await panels;
  if (Stage) ready.set(stage, Stage);
}

// At hand before the first page is asked for: what is still on its way when a page is drawn comes by a script, at its end.
if (typeof window === 'undefined')
  void Promise.all((['trees', 'cabling'] as const).map((stage) => fetchStage(stage))).then(fetchLater);

/** A stage; as long as it is in view the same component, so that nothing in it is lost. */
export const useStageIn = (stage: StageId): ComponentType => useMemo(() => ready.get(stage) ?? STAGE[stage], [stage]);

/** On the server: names the script of a stage in the page, so that the browser fetches it with the others. Draws nothing. */
export function StageAhead({ stage }: { stage: StageId }) {
  const Stage = STAGE[stage];
  return typeof window === 'undefined' ? <Stage /> : null;
}

/** The other stages are fetched once the first one stands: they open at once, and without the server too. */
export function useStagesAhead(): void {
  useEffect(() => {
    const fetchAll = () => {
      void Promise.allSettled(Object.values(LOAD).map((load) => load())).then(fetchLater);
    };
    const idle = requestIdleCallback(fetchAll, { timeout: 1000 });
    return () => cancelIdleCallback(idle);
  }, []);
}
