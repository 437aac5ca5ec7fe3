/** Tells open windows of steps as they are made. One process, so a list of listeners will do. */
import type { Step } from './variants';

type Listener = (step: Step) => void;
const shared = globalThis as { knotPathListeners?: Map<string, Set<Listener>> };
const listeners = (): Map<string, Set<Listener>> => (shared.knotPathListeners ??= new Map());

/** Calls `listener` for each step of a variant until the returned function is called. */
export function subscribe(variantId: string, listener: Listener): () => void {
  const all = listeners();
  const own = all.get(variantId) ?? new Set();
  all.set(variantId, own.add(listener));
  return () => {
    own.delete(listener);
    if (own.size === 0) all.delete(variantId);
  };
}

export function publish(variantId: string, step: Step): Step {
  for (const listener of listeners().get(variantId) ?? []) listener(step);
  return step;
}
