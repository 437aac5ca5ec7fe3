/** When each design was last open in this browser: the list of designs begins with those. */
import { z } from 'zod';
import { readStored, writeStored } from './browser-store';

const KEY = 'knot-path:opened';
/** Designs that are remembered; the ones open longest ago go first. */
const MOST = 60;
const schema = z.record(z.string(), z.number());

const opened = (): Record<string, number> =>
  readStored('local', KEY, (text) => schema.safeParse(JSON.parse(text)).data ?? null) ?? {};

/** Notes that a design is open now. */
export function noteOpened(design: string, now: number): void {
  const all = Object.entries({ ...opened(), [design]: now }).sort((a, b) => b[1] - a[1]);
  writeStored('local', KEY, JSON.stringify(Object.fromEntries(all.slice(0, MOST))));
}

/** Designs in the order in which they were last open or changed, newest first. */
export function byLastOpen<T extends { readonly id: string; readonly changedAt: number }>(rows: readonly T[]): T[] {
  const known = opened();
  const last = ({ id, changedAt }: T) => Math.max(changedAt, known[id] ?? 0);
  return [...rows].sort((a, b) => last(b) - last(a));
}
