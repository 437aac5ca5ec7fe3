/** The name that goes with the changes made in this browser. */
import { readStored, writeStored } from './browser-store';

const KEY = 'knot-path.name';
export const NAME_MOST = 60;

export const authorName = (): string => readStored('local', KEY, (text) => text.slice(0, NAME_MOST)) ?? '';

/** Keeps the name; false when the browser forbids its storage. */
export const setAuthorName = (name: string): boolean =>
  writeStored('local', KEY, name.trim().slice(0, NAME_MOST) || null);
