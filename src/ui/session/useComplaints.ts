'use client';
import { useEffect } from 'react';
import type { Session } from './session';
import type { NoticeContent } from './notice';

/** Shows what the session complains of. */
export function useComplaints(session: Session, say: (notice: NoticeContent) => void): void {
  useEffect(
    () =>
      session.store.subscribe((now, before) => {
        if (now.complaint && now.complaint !== before.complaint) say({ text: now.complaint.sentence, alarm: true });
      }),
    [session, say],
  );
}
