'use client';
/** The two designs of a plan: the variant that is open as it stands, any other as it was saved last, or the network as it was read. */
import { useMemo } from 'react';
import type { Design, ObservedNetwork } from '../../core/design';
import { asObserved } from '../../core/observe';
import { useSavedVariants } from '../controls/useSavedVariants';
import { useBench, useSession } from '../session/context';

/** Stands for the network as it was read, in place of the id of a variant. */
export const AS_BUILT = 'as-built';

const NO_READING = 'This variant keeps no reading of the network: read it in As built first, or choose a variant.';

export interface Ends {
  readonly from: Design | null;
  readonly to: Design | null;
  readonly failed: string | null;
}

/** The design as the network was read: with all that differs taken over. Ids of what is new are the same each time. */
function useAsBuilt(design: Design, network: ObservedNetwork | null): Design | null {
  return useMemo(() => {
    let made = 0;
    return network && asObserved(design, network, (prefix) => `${prefix}-read-${made++}`);
  }, [design, network]);
}

export function useEnds(fromId: string, toId: string, read: ObservedNetwork | null): Ends {
  const { variantId } = useBench();
  const open = useSession((s) => s.design);
  const { saved, failed } = useSavedVariants([fromId, toId].filter((id) => id !== variantId && id !== AS_BUILT));
  const built = useAsBuilt(open, fromId === AS_BUILT || toId === AS_BUILT ? read : null);
  const of = (id: string): Design | null =>
    id === variantId ? open : id === AS_BUILT ? built : (saved.get(id) ?? null);
  const lost = (fromId === AS_BUILT || toId === AS_BUILT) && open.readings.length === 0;
  return { from: of(fromId), to: of(toId), failed: lost ? NO_READING : failed };
}
