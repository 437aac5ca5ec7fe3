'use client';
/** Variants that are compared, and their figures as a worker finds them. */
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Design } from '../../core/design';
import type { VariantFigures } from '../../core/plan';
import { useSavedVariants } from '../controls/useSavedVariants';
import { useBench, useSession } from '../session/context';
import { runJob } from '../../workers/run-job';
import type { CompareProgress, CompareRequest } from '../../workers/compare';

/** Stands for the change that is tried out, in place of the id of a variant. */
export const PREVIEW = 'preview';
export const MOST_COMPARED = 5;

export interface Column {
  readonly id: string;
  readonly name: string;
  /** Null until it is known. */
  readonly figures: VariantFigures | null;
}

/** Variants to choose from: those of the design, and the change that is tried out. */
function useChoice() {
  const { head, variantId, draft } = useBench();
  const all = useMemo(
    () => [
      ...head.variants.map(({ id, name }) => ({ id, name })),
      ...(draft ? [{ id: PREVIEW, name: draft.label }] : []),
    ],
    [head.variants, draft],
  );
  const [asked, setAsked] = useState<readonly string[] | null>(null);
  // What is open stands first: the others are what it could become.
  const ordered = [...all.filter((v) => v.id === variantId), ...all.filter((v) => v.id !== variantId)];
  const first = ordered.slice(0, MOST_COMPARED).map((v) => v.id);
  const chosen = ordered.filter((v) => v.id === variantId || (asked ?? first).includes(v.id)).slice(0, MOST_COMPARED);
  const toggle = (id: string) => {
    const ids = chosen.map((v) => v.id);
    setAsked(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id]);
  };
  return { all: ordered, chosen, toggle };
}

/** The designs of the chosen columns; null until all are there. */
function useDesigns(ids: readonly string[]): { designs: readonly Design[] | null; failed: string | null } {
  const { variantId, draft } = useBench();
  const open = useSession((s) => s.design);
  const { saved, failed } = useSavedVariants(ids.filter((id) => id !== variantId && id !== PREVIEW));
  const key = ids.join(' ');
  const designs = useMemo(() => {
    const found = key.split(' ').map((id) => {
      if (id === variantId) return open;
      return id === PREVIEW ? draft?.solved.topology.design : saved.get(id);
    });
    return found.every((d) => d !== undefined) ? found : null;
  }, [key, variantId, open, draft, saved]);
  return { designs, failed };
}

export function useComparison() {
  const { all, chosen, toggle } = useChoice();
  const { designs, failed } = useDesigns(chosen.map((v) => v.id));
  const [found, setFound] = useState<ReadonlyMap<Design, VariantFigures>>(new Map());
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!designs) return;
    setBusy(true);
    setFault(null);
    const job = runJob<CompareRequest, CompareProgress, boolean>(
      new Worker(new URL('../../workers/compare.ts', import.meta.url), { type: 'module' }),
      { designs },
      {
        // Of designs that are no longer compared nothing is kept.
        onProgress: ({ index, figures }) =>
          setFound((was) => new Map([...was].filter(([d]) => designs.includes(d))).set(designs[index]!, figures)),
        failure: (why) => `The comparison stopped: ${why}`,
      },
    );
    stop.current = job.stop;
    job.done.then(
      () => setBusy(false),
      (error: Error) => {
        setBusy(false);
        setFault(error.message);
      },
    );
    return () => job.drop();
  }, [designs]);
  const columns = chosen.map((v, i): Column => ({ ...v, figures: (designs && found.get(designs[i]!)) ?? null }));
  return { all, columns, toggle, busy, failed: failed ?? fault, stop: () => stop.current() };
}
