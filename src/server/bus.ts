/** Tells open streams of what happens, as it happens. One process, so a set of listeners will do. */
import type { Notice } from '../api/contract';

type Listener = (notice: Notice) => void;
const shared = globalThis as { knotPathListeners?: Set<Listener> };
const listeners = (): Set<Listener> => (shared.knotPathListeners ??= new Set());

/** Calls `listener` for each notice until the returned function is called. */
export function subscribe(listener: Listener): () => void {
  listeners().add(listener);
  return () => void listeners().delete(listener);
}

export function publish(notice: Notice): void {
  for (const listener of [...listeners()]) listener(notice);
}

/** Streams that are open. */
export const listenerCount = (): number => listeners().size;
