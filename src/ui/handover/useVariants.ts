'use client';
/** The two designs of a plan: the variant that is open as it stands, any other as it was saved last. */
import { useEffect, useState } from 'react';
import type { Design } from '../../core/design';
import { api } from '../session/api';
import { useBench, useSession } from '../session/context';

export interface Ends {
  readonly from: Design | null;
  readonly to: Design | null;
  readonly failed: string | null;
}

/** Saved variants by id, fetched once while the stage is open. */
function useSaved(ids: readonly string[], open: string): { saved: ReadonlyMap<string, Design>; failed: string | null } {
  const [saved, setSaved] = useState<ReadonlyMap<string, Design>>(new Map());
  const [failed, setFailed] = useState<string | null>(null);
  const wanted = ids.filter((id) => id !== open && !saved.has(id)).join(' ');
  useEffect(() => {
    let dropped = false;
    for (const id of wanted.split(' ').filter(Boolean))
      api.variant(id).then(
        ({ design }) => !dropped && setSaved((s) => new Map(s).set(id, design)),
        (error: Error) => !dropped && setFailed(error.message),
      );
    return () => {
      dropped = true;
    };
  }, [wanted]);
  return { saved, failed };
}

export function useEnds(fromId: string, toId: string): Ends {
  const { variantId } = useBench();
  const open = useSession((s) => s.design);
  const { saved, failed } = useSaved([fromId, toId], variantId);
  const of = (id: string): Design | null => (id === variantId ? open : (saved.get(id) ?? null));
  return { from: of(fromId), to: of(toId), failed };
}
