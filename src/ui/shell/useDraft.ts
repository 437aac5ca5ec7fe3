'use client';
/** A change that is tried out: solved beside the real one, applied or dropped as a whole. */
import { useCallback, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { applyEdits, placeName } from '../../core/design';
import type { Edit } from '../../core/design';
import { movedBetween, solveDesign } from '../../core/trees';
import type { SolvedDesign } from '../../core/trees';
import type { Session } from '../session/session';
import type { Bench, Draft } from './context';

interface Held extends Draft {
  /** The solution it was tried on: another change takes the ground away. */
  readonly base: SolvedDesign;
}

export type Trial = Pick<Bench, 'draft' | 'tryOut' | 'setDraftSide' | 'applyDraft' | 'dropDraft'>;

export function useDraft(session: Session, edit: Bench['edit'], say: Bench['say']): Trial {
  const [held, setHeld] = useState<Held | null>(null);
  const solved = useStore(session.store, (s) => s.solved);
  const draft = held && held.base === solved ? held : null;
  const tryOut = useCallback(
    (label: string, edits: readonly Edit[]) => {
      const base = session.store.getState().solved;
      const applied = applyEdits(base.topology.design, edits);
      if (!applied.ok) {
        const [fault] = applied.faults;
        say({
          text: [placeName(base.topology.design, fault!.path), fault!.sentence].filter(Boolean).join(': '),
          alarm: true,
        });
        setHeld(null);
        return false;
      }
      if (edits.length === 0) {
        setHeld(null);
        say({ text: 'Nothing has to change: it is so already.' });
        return false;
      }
      const after = solveDesign(applied.design, base);
      setHeld({ label, edits, solved: after, moved: movedBetween(base, after), side: 'after', base });
      return true;
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
