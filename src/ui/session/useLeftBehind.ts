'use client';
/** What closed windows left of a variant: looked for when it is opened, and from time to time while it is. */
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { api } from './api';
import { findKept, forget, isNothing } from './kept';
import type { Found } from './kept';
import { LeftBehind } from './left-behind';
import { isOpen, thisWindow } from './windows';

const LOOK_MS = 4000;

const storage = () => window.localStorage;
const newKey = () => nanoid(14);

/** What an entry holds that the server does not have yet; the entry goes when that is nothing. */
async function unsaved(variantId: string, found: Found): Promise<Found | null> {
  const since = Math.min(...found.kept.left.map((l) => l.since));
  if (!Number.isFinite(since)) return found;
  const steps = await api.steps(variantId, since).catch(() => []);
  const stored = new Set(steps.flatMap((s) => s.key ?? []));
  const left = found.kept.left
    .map((l) => ({ ...l, entries: l.entries.filter((e) => !stored.has(e.key)) }))
    .filter((l) => l.entries.length > 0);
  const kept = { left, refused: found.kept.refused };
  if (!isNothing(kept)) return { ...found, kept };
  forget(storage, found.storageKey);
  return null;
}

export interface Left {
  /** Changes that closed windows left, to be applied or discarded. */
  readonly left: readonly Found[];
  readonly take: (found: Found) => void;
  readonly discard: (found: Found) => void;
  /** Until the page is opened again. */
  readonly postpone: () => void;
}

interface Options {
  readonly before: () => string | null;
  readonly adopt: (found: Found) => void;
  readonly onAside: (storageKey: string) => void;
}

export function useLeftBehind(variantId: string, { before, adopt, onAside }: Options): Left {
  const [left, setLeft] = useState<readonly Found[]>([]);
  const behind = useRef<LeftBehind>(null);
  useEffect(() => {
    const watched = new LeftBehind({
      find: () => findKept(storage, variantId, newKey, onAside),
      isOpen,
      unsaved: (found) => unsaved(variantId, found),
      thisWindow,
      before: before(),
      adopt,
    });
    behind.current = watched;
    let timer: ReturnType<typeof setTimeout>;
    let over = false;
    const look = async () => {
      const now = await watched.look();
      if (over) return;
      setLeft((was) => (sameEntries(was, now) ? was : now));
      timer = setTimeout(() => void look(), LOOK_MS);
    };
    void look();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [variantId, before, adopt, onAside]);
  const answer = (...list: readonly Found[]) => {
    for (const found of list) behind.current?.answer(found);
    setLeft(behind.current?.left ?? []);
  };
  return {
    left,
    take: (found) => {
      adopt(found);
      answer(found);
    },
    discard: (found) => {
      forget(storage, found.storageKey);
      answer(found);
    },
    postpone: () => answer(...left),
  };
}

const sameEntries = (a: readonly Found[], b: readonly Found[]): boolean =>
  a.length === b.length && a.every((found, i) => found.storageKey === b[i]!.storageKey);
