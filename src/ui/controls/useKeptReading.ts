'use client';
/** What was read of the network that is there, as the design keeps it. */
import { useCallback, useEffect, useState } from 'react';
import type { ObservedNetwork } from '../../core/design';
import { keepReading, packObserved, unpackObserved } from '../../core/observe';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';

export interface KeptNetwork {
  /** Null while it is unpacked, and where it is damaged. */
  readonly network: ObservedNetwork | null;
  /** When it was read, in milliseconds since 1970. */
  readonly at: number;
  readonly damaged: boolean;
}

/** What was unpacked, by its packed form; the last ones, since undoing goes back and forth between two. */
const unpacked = new Map<string, ObservedNetwork | null>();
const MOST = 6;

function remember(packed: string, network: ObservedNetwork | null): void {
  unpacked.set(packed, network);
  for (const key of unpacked.keys()) if (unpacked.size > MOST) unpacked.delete(key);
}

/** The reading of this design; null where it keeps none. */
export function useKeptReading(): KeptNetwork | null {
  const kept = useSession((s) => s.design.readings[0]);
  const [, setTold] = useState<string | null>(null);
  const packed = kept?.packed;
  useEffect(() => {
    if (packed === undefined || unpacked.has(packed)) return;
    let here = true;
    void unpackObserved(packed).then((network) => {
      remember(packed, network);
      if (here) setTold(packed);
    });
    return () => void (here = false);
  }, [packed]);
  if (!kept) return null;
  const network = unpacked.get(kept.packed);
  return { network: network ?? null, at: Date.parse(kept.at), damaged: network === null };
}

/** Keeps a reading in the design in place of an earlier one, or none; false where the design did not take it. */
export type Keep = (label: string, network: ObservedNetwork | null) => Promise<boolean>;

export function useKeepReading(): Keep {
  const { edit, session } = useBench();
  return useCallback(
    async (label, network) => {
      const packed = network && (await packObserved(network));
      if (packed !== null) remember(packed, network);
      const { design } = session.store.getState();
      const reading = packed === null ? null : { id: newId('reading'), at: new Date().toISOString(), packed };
      const edits = keepReading(design, reading);
      return edits.length === 0 || edit(label, edits);
    },
    [edit, session],
  );
}
