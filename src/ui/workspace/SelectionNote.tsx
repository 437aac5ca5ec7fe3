'use client';
import { useState } from 'react';
import { NoteDialog } from '../controls/NoteDialog';
import { useBench } from '../session/context';
import { draftOf } from '../session/notes';

/** A note about what was selected when it was asked for. */
export function SelectionNote({ onClose }: { onClose: () => void }) {
  const { session, view } = useBench();
  const [draft] = useState(() => draftOf(session.store.getState().design, view.selection));
  return <NoteDialog draft={draft} onClose={onClose} />;
}
