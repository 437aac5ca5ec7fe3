'use client';
import { useEffect, useState } from 'react';
import { ago } from '../../core/standard';

/** A time told from now, kept up while it is shown. */
export function Ago({ at }: { at: number }) {
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    const tick = () => setNow(Date.now());
    tick();
    const timer = setInterval(tick, 30_000);
    return () => clearInterval(timer);
  }, [at]);
  return <time dateTime={new Date(at).toISOString()}>{now === null ? '' : ago(at, now)}</time>;
}
