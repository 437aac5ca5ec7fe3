'use client';
/** What moved: by the last change, or since an earlier state that was chosen to compare with. */
import { useCallback, useMemo, useState } from 'react';
import type { Design } from '../../core/design';
import { movedBetween, solveDesign } from '../../core/trees';
import type { MovedTree, SolvedDesign } from '../../core/trees';
import { useBench, useSession } from './context';
import type { Since } from './context';
import type { LastChange } from './session';

/** Chooses the state that the network is compared with. */
export function useSinceChoice() {
  const [since, setSince] = useState<Since | null>(null);
  const showSince = useCallback(
    (label: string, design: Design) => setSince({ label, before: solveDesign(design) }),
    [],
  );
  const dropSince = useCallback(() => setSince(null), []);
  return useMemo(() => ({ since, showSince, dropSince }), [since, showSince, dropSince]);
}

export interface Change {
  readonly kind: LastChange['kind'] | 'since';
  readonly label: string;
  readonly before: SolvedDesign;
  readonly moved: readonly MovedTree[];
}

/** The change that drawing and bar tell of; null before there is one. */
export function useChange(): Change | null {
  const { since } = useBench();
  const last = useSession((s) => s.last);
  const solved = useSession((s) => s.solved);
  return useMemo(
    () => (since ? { kind: 'since', ...since, moved: movedBetween(since.before, solved) } : last),
    [since, last, solved],
  );
}
