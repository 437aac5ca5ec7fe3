'use client';
/** Parts of the page whose script is not needed for the first picture: fetched when nothing else is to do, or when they open. */
import { Suspense, lazy, useState } from 'react';
import type { ComponentType } from 'react';

const waiting = new Set<() => Promise<unknown>>();

/** A component that is fetched later; until it is there it draws nothing, and once it is, it opens without a moment in between. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  let ready: ComponentType<P> | null = null;
  const fetched = async () => (ready = await load());
  waiting.add(fetched);
  const Fetched = lazy(async () => ({ default: await fetched() })) as unknown as ComponentType<P>;
  return function Later(props: P) {
    // The same one as long as it stands, so that nothing in it is lost.
    const [Part] = useState<ComponentType<P>>(() => ready ?? Fetched);
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}

/** Fetches all that was put off until now: it opens at once then, and without the server too. */
export function fetchLater(): void {
  for (const fetched of waiting) {
    waiting.delete(fetched);
    void fetched().catch(() => undefined);
  }
}
