'use client';
/** Parts of the page that follow the drawing: where a design is large, an edit is painted before they look at it. */
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { createStore, useStore } from 'zustand';
import type { StoreApi } from 'zustand';
import { SeenContext, useBench } from './context';
import type { SessionState } from './session';

/** Switches from which on it is felt how long the other parts take. */
const LARGE = 60;

/** Does something when the frame that is under way has been painted; gives how to leave it. */
function afterPaint(then: () => void): () => void {
  let due = requestAnimationFrame(() => (due = requestAnimationFrame(then)));
  return () => cancelAnimationFrame(due);
}

/** The session as it was when a frame had been painted last. */
function useSeen(store: StoreApi<SessionState>): StoreApi<SessionState> {
  const [seen] = useState(() => createStore<SessionState>(() => store.getState()));
  useEffect(() => {
    let leave: (() => void) | null = null;
    const look = () => {
      leave = null;
      seen.setState(store.getState(), true);
    };
    look();
    const unsubscribe = store.subscribe(() => (leave ??= afterPaint(look)));
    return () => {
      unsubscribe();
      leave?.();
    };
  }, [store, seen]);
  return seen;
}

export function Afterwards({ children }: { children: ReactNode }) {
  const { store } = useBench().session;
  const seen = useSeen(store);
  const large = useStore(seen, (s) => s.design.switches.length >= LARGE);
  return <SeenContext.Provider value={large ? seen : null}>{children}</SeenContext.Provider>;
}
