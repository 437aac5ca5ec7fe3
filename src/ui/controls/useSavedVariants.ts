'use client';
/** Other variants of the design, as they were saved last. */
import { useEffect, useState } from 'react';
import type { Design } from '../../core/design';
import { api } from '../session/api';

/** Saved variants by id, each fetched once. */
export function useSavedVariants(ids: readonly string[]): {
  saved: ReadonlyMap<string, Design>;
  failed: string | null;
} {
  const [saved, setSaved] = useState<ReadonlyMap<string, Design>>(new Map());
  const [failed, setFailed] = useState<string | null>(null);
  const wanted = ids.filter((id) => !saved.has(id)).join(' ');
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
