'use client';
import { useEffect } from 'react';
import type { Session } from './session';
import type { NoticeContent } from './notice';

/** Shows what the session complains of, until a change of the design went well. */
export function useComplaints(session: Session, say: (notice: NoticeContent) => void, settle: () => void): void {
  useEffect(
    () =>
      session.store.subscribe((now, before) => {
        if (now.complaint && now.complaint !== before.complaint) say({ text: now.complaint.sentence, alarm: true });
        else if (now.design !== before.design) settle();
      }),
    [session, say, settle],
  );
}
