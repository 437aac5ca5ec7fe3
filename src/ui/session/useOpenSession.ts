'use client';
/** The session of a page: opened once, fed with what the server tells, and with what earlier pages left. */
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { api } from './api';
import { authorName } from './author';
import { findKept, forget, isNothing, keeperFor, NOTHING } from './kept';
import type { Found } from './kept';
import { listenToNotices } from './notices';
import { createSession } from './session';
import type { Session } from './session';
import type { Kept } from './state';
import type { LoadedVariant } from './types';
import { announceWindow, isOpen, pageBefore, thisWindow } from './windows';

const storage = () => window.localStorage;
const newKey = () => nanoid(14);

/** Sessions of this page by variant: one that still has something to send goes on when its design is opened again. */
const open = new Map<string, Session>();

/** Warns before the page is left while changes of any of its designs wait, also of those that are no longer shown. */
function warnBeforeLeaving(): void {
  window.addEventListener('beforeunload', (event) => {
    const states = [...open.values()].map((session) => session.store.getState());
    if (states.some(({ saving, stale }) => saving !== 'saved' && !stale)) event.preventDefault();
  });
}

/** The page that this tab showed before; asked for once. */
let before: string | null | undefined;

function sessionFor(variant: LoadedVariant): Session {
  const known = open.get(variant.id);
  if (known && known.store.getState().saving !== 'saved' && !known.store.getState().stale) return known;
  known?.close();
  const session = createSession(api, variant, {
    client: thisWindow,
    keeper: keeperFor(storage, variant.id, thisWindow, () => NOTHING),
    newKey,
    author: authorName,
    reload: () => window.location.reload(),
  });
  open.set(variant.id, session);
  return session;
}

/** What a kept entry holds that the server does not have yet. */
async function stillOpen(variantId: string, kept: Kept): Promise<Kept> {
  const since = Math.min(...kept.left.map((l) => l.since));
  if (!Number.isFinite(since)) return kept;
  const stored = new Set((await api.steps(variantId, since)).flatMap((s) => s.key ?? []));
  const left = kept.left
    .map((l) => ({ ...l, entries: l.entries.filter((e) => !stored.has(e.key)) }))
    .filter((l) => l.entries.length > 0);
  return { left, refused: kept.refused };
}

/** Changes of windows that are gone. */
async function leftBehind(variantId: string, found: readonly Found[]): Promise<Found[]> {
  const list: Found[] = [];
  for (const entry of found) {
    if (entry.window === thisWindow || (await isOpen(entry.window))) continue;
    const kept = await stillOpen(variantId, entry.kept).catch(() => entry.kept);
    if (isNothing(kept)) forget(storage, entry.storageKey);
    else list.push({ ...entry, kept });
  }
  return list;
}

export interface OpenSession {
  readonly session: Session;
  /** Changes that closed windows left, to be applied or discarded. */
  readonly left: readonly Found[];
  readonly take: (found: Found) => void;
  readonly discard: (found: Found) => void;
  /** Until the page is opened again. */
  readonly postpone: () => void;
}

/** What the server and the network say while a session is open. */
function useListening(session: Session, variantId: string): void {
  useEffect(
    () =>
      listenToNotices((notice) => {
        if (notice.kind === 'hello' || notice.kind === 'restored') {
          session.epoch(notice.epoch);
          // Steps may have been made while this window was not listening.
          session.told(session.store.getState().revision + 1);
          session.tryNow();
        } else if (notice.kind === 'step' && notice.variant === variantId) session.told(notice.revision);
      }),
    [session, variantId],
  );

  useEffect(() => {
    const again = () => session.tryNow();
    window.addEventListener('online', again);
    return () => {
      window.removeEventListener('online', again);
    };
  }, [session]);
}

export function useOpenSession(variant: LoadedVariant, onAside: (storageKey: string) => void): OpenSession {
  const [session] = useState(() => sessionFor(variant));
  const [left, setLeft] = useState<readonly Found[]>([]);

  useEffect(() => {
    announceWindow();
    open.set(variant.id, session);
    if (before === undefined) {
      before = pageBefore();
      warnBeforeLeaving();
    }
    const found = findKept(storage, variant.id, newKey, onAside);
    const own = found.filter((f) => f.window === before && f.window !== thisWindow);
    let gone = false;
    void (async () => {
      for (const entry of own) {
        // A tab that was duplicated has the name of a page that is still open.
        if (await isOpen(entry.window)) continue;
        adopt(session, entry);
      }
      const others = await leftBehind(
        variant.id,
        found.filter((f) => !own.includes(f)),
      );
      if (!gone) setLeft(others);
    })();
    return () => {
      gone = true;
      if (session.store.getState().saving === 'saved') open.delete(variant.id);
    };
  }, [session, variant.id, onAside]);
  useListening(session, variant.id);
  const without = (found: Found) => setLeft((list) => list.filter((f) => f !== found));
  return {
    session,
    left,
    take: (found) => {
      adopt(session, found);
      without(found);
    },
    discard: (found) => {
      forget(storage, found.storageKey);
      without(found);
    },
    postpone: () => setLeft([]),
  };
}

/** Takes up what a page left; its entry goes only when this page has kept everything itself. */
function adopt(session: Session, found: Found): void {
  session.adopt(found.kept);
  if (session.store.getState().notKept === null) forget(storage, found.storageKey);
}
