'use client';
import { useState } from 'react';
import { NoteDialog } from '../controls/NoteDialog';
import { useBench } from '../session/context';
import { draftOf } from '../session/notes';

/** A note about what was selected when it was asked for. */
export function SelectionNote({ onClose }: { onClose: () => void }) {
  const { session, view, stage } = useBench();
  // By depth things stand as the tree has it: a frame round them would hold others too.
  const framed = stage === 'cabling' || view.arrangement === 'cabling';
  const [draft] = useState(() => draftOf(session.store.getState().design, view.selection, framed));
  return <NoteDialog draft={draft} onClose={onClose} />;
}
