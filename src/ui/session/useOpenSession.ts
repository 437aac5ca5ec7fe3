'use client';
/** The session of a page: opened once, fed with what the server tells, and with what earlier pages left. */
import { nanoid } from 'nanoid';
import { useCallback, useEffect, useState } from 'react';
import { api } from './api';
import { authorName } from './author';
import { forget, keeperFor, NOTHING } from './kept';
import type { Found } from './kept';
import { listenToNotices } from './notices';
import { createSession } from './session';
import type { Session } from './session';
import type { LoadedVariant } from './types';
import { useLeftBehind } from './useLeftBehind';
import type { Left } from './useLeftBehind';
import { announceWindow, pageBefore, thisWindow } from './windows';

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
  // The server draws a first picture with a session, and forgets it.
  if (typeof window !== 'undefined') open.set(variant.id, session);
  return session;
}

export interface OpenSession extends Left {
  readonly session: Session;
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

/** The page before this one; asked for at the first opening of a design in this page. */
function pageBeforeThis(): string | null {
  if (before === undefined) {
    before = pageBefore();
    warnBeforeLeaving();
  }
  return before;
}

export function useOpenSession(variant: LoadedVariant, onAside: (storageKey: string) => void): OpenSession {
  const [session] = useState(() => sessionFor(variant));
  useEffect(() => {
    announceWindow();
    open.set(variant.id, session);
    return () => {
      if (session.store.getState().saving === 'saved') open.delete(variant.id);
    };
  }, [session, variant.id]);
  const adopted = useCallback((found: Found) => adopt(session, found), [session]);
  const left = useLeftBehind(variant.id, { before: pageBeforeThis, adopt: adopted, onAside });
  useListening(session, variant.id);
  return { session, ...left };
}

/** Takes up what a page left; its entry goes only when this page has kept everything itself. */
function adopt(session: Session, found: Found): void {
  session.adopt(found.kept);
  if (session.store.getState().notKept === null) forget(storage, found.storageKey);
}
