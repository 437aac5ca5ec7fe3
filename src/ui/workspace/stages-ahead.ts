/** The stages, each with its own script: the one that is opened is fetched first, the others when the page has nothing to do. */
import dynamic from 'next/dynamic';
import { useEffect } from 'react';

const LOAD = {
  cabling: () => import('../cabling/CablingStage').then((m) => m.CablingStage),
  trees: () => import('../trees/TreesStage').then((m) => m.TreesStage),
  bundles: () => import('../bundles/BundlesStage').then((m) => m.BundlesStage),
  review: () => import('../review/ReviewStage').then((m) => m.ReviewStage),
  'as-built': () => import('../observed/ObservedStage').then((m) => m.ObservedStage),
  'hand-over': () => import('../handover/HandoverStage').then((m) => m.HandoverStage),
  rehearsal: () => import('../rehearsal/RehearsalStage').then((m) => m.RehearsalStage),
} as const;

/** Fetches the stage of an address, such as `/d/ID/trees`. */
function fetchStage(address: string): void {
  const stage = /^\/d\/[^/]+\/([a-z-]+)/.exec(address)?.[1];
  if (stage !== undefined && stage in LOAD) void LOAD[stage as keyof typeof LOAD]().catch(() => undefined);
}
// As soon as this script runs, and not when the stage is first drawn.
if (typeof window !== 'undefined') fetchStage(window.location.pathname);

export const STAGE = {
  cabling: dynamic(LOAD.cabling),
  trees: dynamic(LOAD.trees),
  bundles: dynamic(LOAD.bundles),
  rehearsal: dynamic(LOAD.rehearsal),
  review: dynamic(LOAD.review),
  'as-built': dynamic(LOAD['as-built']),
  'hand-over': dynamic(LOAD['hand-over']),
} as const;

/** The other stages are fetched once the first one stands: they open at once, and without the server too. */
export function useStagesAhead(): void {
  useEffect(() => {
    const fetchAll = () => {
      for (const load of Object.values(LOAD)) void load().catch(() => undefined);
    };
    const idle = requestIdleCallback(fetchAll, { timeout: 1000 });
    return () => cancelIdleCallback(idle);
  }, []);
}
