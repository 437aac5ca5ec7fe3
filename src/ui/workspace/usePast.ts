'use client';
/** What happened to a variant, page by page, and its states as they are asked for. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '../../core/design';
import { api } from '../session/api';
import type { Past, PastStep } from '../../api/contract';

const sentenceOf = (error: unknown) => (error instanceof Error ? error.message : String(error));

export interface PastList {
  readonly steps: readonly PastStep[];
  readonly named: Past['named'];
  readonly more: boolean;
  readonly fault: string | null;
  readonly loading: boolean;
  readonly loadMore: () => void;
  readonly reload: () => void;
}

/** The steps, newest first; read again when the newest revision changes. */
export function usePast(variantId: string, revision: number): PastList {
  const [past, setPast] = useState<Past>({ steps: [], more: false, named: [] });
  const [fault, setFault] = useState<string | null>(null);
  const [loading, setLoading] = useState(true);
  const load = useCallback(
    async (before: number | null) => {
      setLoading(true);
      try {
        const page = await api.past(variantId, before);
        setPast((was) => (before === null ? page : { ...page, steps: [...was.steps, ...page.steps] }));
        setFault(null);
      } catch (error) {
        setFault(sentenceOf(error));
      }
      setLoading(false);
    },
    [variantId],
  );
  useEffect(() => void load(null), [load, revision]);
  return {
    ...past,
    fault,
    loading,
    loadMore: () => void load(past.steps.at(-1)?.revision ?? null),
    reload: () => void load(null),
  };
}

/** The document of a state; null while it is fetched. */
export function useStateAt(variantId: string, revision: number): { design: Design | null; fault: string | null } {
  const known = useRef(new Map<number, Design>());
  const [shown, setShown] = useState<{ revision: number; design: Design | null; fault: string | null }>({
    revision: -1,
    design: null,
    fault: null,
  });
  useEffect(() => {
    let gone = false;
    const show = (design: Design | null, fault: string | null) => gone || setShown({ revision, design, fault });
    const cached = known.current.get(revision);
    if (cached) show(cached, null);
    else
      api.stateAt(variantId, revision).then(
        ({ design }) => {
          known.current.set(revision, design);
          show(design, null);
        },
        (error: unknown) => show(null, sentenceOf(error)),
      );
    return () => {
      gone = true;
    };
  }, [variantId, revision]);
  return shown.revision === revision ? shown : { design: null, fault: null };
}
