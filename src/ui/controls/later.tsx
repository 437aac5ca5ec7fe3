'use client';
/** Parts of the page whose script is not needed for the first picture: fetched when nothing else is to do, or when they open. */
import { useEffect, useState } from 'react';
import type { ComponentType } from 'react';
import { STILL } from '../chart/still';

const AGAIN_MS = 2000;

const waiting = new Set<() => Promise<unknown>>();
let setIdle = () => {};
const idle = new Promise<void>((resolve) => (setIdle = resolve));

interface Options<P extends object> {
  /** What is drawn until the part is there, and in the picture that the server draws. */
  readonly meanwhile?: ComponentType<P>;
  /** Whether it waits, although it is drawn, until nothing else is to do. */
  readonly waits?: boolean;
}

/** A component that is fetched later: once it is there, it opens without a moment in between. */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
  { meanwhile: Meanwhile, waits = false }: Options<P> = {},
): ComponentType<P> {
  let ready: ComponentType<P> | null = null;
  const fetched = async () => (ready ??= await load());
  waiting.add(fetched);
  return function Later(props: P) {
    // The same one as long as it stands, so that nothing in it is lost.
    const [Part, setPart] = useState<ComponentType<P> | null>(() => ready);
    useEffect(() => {
      if (Part) return;
      let again: ReturnType<typeof setTimeout>;
      let gone = false;
      const fetchIt = async (): Promise<void> => {
        try {
          const found = await fetched();
          if (!gone) setPart(() => found);
        } catch {
          if (!gone) again = setTimeout(() => void fetchIt(), AGAIN_MS);
        }
      };
      void (waits ? idle.then(fetchIt) : fetchIt());
      return () => {
        gone = true;
        clearTimeout(again);
      };
    }, [Part]);
    // In the picture a part that waits is drawn as the page will begin.
    return Part && !(STILL && waits) ? <Part {...props} /> : Meanwhile ? <Meanwhile {...props} /> : null;
  };
}

/** Fetches all that was put off until now: it opens at once then, and without the server too. */
export async function fetchLater(): Promise<void> {
  setIdle();
  const all = [...waiting].map((fetched) => {
    waiting.delete(fetched);
    return fetched().catch(() => void waiting.add(fetched));
  });
  await Promise.all(all);
}
