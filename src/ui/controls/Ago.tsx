'use client';
import { useEffect, useState } from 'react';

const UNITS = [
  [86_400_000, 'day'],
  [3_600_000, 'hour'],
  [60_000, 'minute'],
] as const;

/** `just now`, `2 hours ago`, and from a month on the date. */
export function ago(at: number, now: number): string {
  const passed = now - at;
  if (passed > 30 * 86_400_000) return new Date(at).toISOString().slice(0, 10);
  for (const [size, unit] of UNITS) {
    const n = Math.floor(passed / size);
    if (n >= 1) return `${n} ${unit}${n === 1 ? '' : 's'} ago`;
  }
  return 'just now';
}

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
