'use client';
/** A change that is tried out: solved beside the real one, applied or dropped as a whole. */
import { useCallback, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { placeName } from '../../core/design';
import type { Edit } from '../../core/design';
import type { Session } from './session';
import type { Bench } from './context';
import { draftOn, tryEdits } from './draft';
import type { Draft, Held } from './draft';

export type Trial = Pick<Bench, 'draft' | 'tryOut' | 'setDraftSide' | 'applyDraft' | 'dropDraft'>;

export function useDraft(session: Session, edit: Bench['edit'], say: Bench['say']): Trial {
  const [held, setHeld] = useState<Held | null>(null);
  const solved = useStore(session.store, (s) => s.solved);
  const last = useStore(session.store, (s) => s.last);
  const draft = useMemo(() => draftOn(held, solved, last), [held, solved, last]);
  // The next change is compared with the network that this one was tried on last.
  if (draft !== held) setHeld(draft);
  const tryOut = useCallback(
    (label: string, edits: readonly Edit[]) => {
      const base = session.store.getState().solved;
      const tried = tryEdits(base, label, edits);
      if (!tried.ok) {
        const { path, sentence } = tried.fault;
        say({ text: [placeName(base.topology.design, path), sentence].filter(Boolean).join(': '), alarm: true });
      } else if (edits.length === 0) say({ text: 'No change needed: it is set like this already.' });
      const made = tried.ok && edits.length > 0;
      setHeld(made ? tried.held : null);
      return made;
    },
    [session, say],
  );
  const setDraftSide = useCallback((side: Draft['side']) => setHeld((h) => h && { ...h, side }), []);
  const dropDraft = useCallback(() => setHeld(null), []);
  const applyDraft = useCallback(() => {
    if (!draft) return;
    const { design } = session.store.getState();
    setHeld(null);
    edit(draft.label, draft.edits, { from: design, to: draft.solved.topology.design });
  }, [draft, edit, session]);
  return useMemo(
    () => ({ draft, tryOut, setDraftSide, applyDraft, dropDraft }),
    [draft, tryOut, setDraftSide, applyDraft, dropDraft],
  );
}
