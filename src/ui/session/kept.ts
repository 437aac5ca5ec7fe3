/** What waits in the browser's storage: one entry for each window and variant, read with care, since anybody may write there. */
import { z } from 'zod';
import { editSchema } from '../../core/design';
import { shortLabel } from './session';
import type { Keeper } from './session';
import type { Kept } from './state';

const PREFIX = 'knot-path.kept.';
const OLD_PREFIX = 'knot-path.pending.';
const ASIDE = 'knot-path.set-aside.';

const label = z.string().transform(shortLabel);
const key = z.string().min(1).max(64);
const edits = z.array(editSchema);
const entry = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('edit'), key, label, edits }),
  z.object({ kind: z.enum(['undo', 'redo']), key, label, target: z.union([z.string(), z.number()]) }),
]);

const keptSchema = z.object({
  v: z.literal(1),
  left: z.array(z.object({ since: z.int().min(0), entries: z.array(entry) })),
  refused: z.array(z.object({ key, label, edits, sentence: z.string() })),
});

/** As releases before there were keys wrote it. */
const oldSchema = z.array(z.object({ label, edits, since: z.int().min(0).default(0) }));

export const NOTHING: Kept = { left: [], refused: [] };
export const isNothing = (kept: Kept): boolean => kept.left.length === 0 && kept.refused.length === 0;

/** Changes that a kept entry holds. */
export const keptLabels = (kept: Kept): string[] => [
  ...kept.left.flatMap((l) => l.entries.map((e) => (e.kind === 'edit' ? e.label : `${e.kind}: ${e.label}`))),
  ...kept.refused.map((r) => r.label),
];

/** The part of `Storage` that is used; every call of it may throw. */
export type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

function parsed(text: string, newKey: () => string): Kept | null {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  const known = keptSchema.safeParse(value);
  if (known.success) return { left: known.data.left, refused: known.data.refused };
  const old = oldSchema.safeParse(value);
  if (!old.success) return null;
  return {
    left: old.data.map((p) => ({
      since: p.since,
      entries: [{ kind: 'edit' as const, key: newKey(), label: p.label, edits: p.edits }],
    })),
    refused: [],
  };
}

export interface Found {
  readonly window: string;
  readonly storageKey: string;
  readonly kept: Kept;
}

/**
 * Entries of one variant that windows left. What cannot be read is moved to a name of its own and reported by
 * `onAside`; nothing is thrown, and nothing is deleted.
 */
export function findKept(
  store: () => Store,
  variantId: string,
  newKey: () => string,
  onAside: (storageKey: string) => void,
): Found[] {
  const found: Found[] = [];
  try {
    const storage = store();
    const keys = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? '');
    for (const storageKey of keys) {
      const prefix = [PREFIX, OLD_PREFIX].map((p) => `${p}${variantId}.`).find((p) => storageKey.startsWith(p));
      if (prefix === undefined) continue;
      const text = storage.getItem(storageKey) ?? '';
      const kept = parsed(text, newKey);
      if (kept) found.push({ window: storageKey.slice(prefix.length), storageKey, kept });
      else {
        storage.setItem(`${ASIDE}${storageKey}`, text);
        storage.removeItem(storageKey);
        onAside(`${ASIDE}${storageKey}`);
      }
    }
  } catch {
    // A storage that cannot be read holds nothing for us.
  }
  return found;
}

export function forget(store: () => Store, storageKey: string): void {
  try {
    store().removeItem(storageKey);
  } catch {
    // Then it was not kept either.
  }
}

/** Why a write failed, in a sentence. */
function writeFault(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  return name === 'QuotaExceededError'
    ? "The browser's storage is full: a reload of this page would lose what is not stored on the server yet."
    : 'The browser forbids this page its storage: a reload would lose what is not stored on the server yet.';
}

/** Keeps what one window has not stored yet. */
export function keeperFor(store: () => Store, variantId: string, window: string, earlier: () => Kept): Keeper {
  const storageKey = `${PREFIX}${variantId}.${window}`;
  return {
    read: earlier,
    write(kept) {
      try {
        if (isNothing(kept)) store().removeItem(storageKey);
        else store().setItem(storageKey, JSON.stringify({ v: 1, ...kept }));
        return null;
      } catch (error) {
        return isNothing(kept) ? null : writeFault(error);
      }
    },
  };
}
