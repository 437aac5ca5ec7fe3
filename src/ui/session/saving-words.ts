/** The state of saving in words, for the header. */
import type { SessionState } from './session';

type Part = Pick<SessionState, 'saving' | 'waiting' | 'reason' | 'notKept' | 'refused'>;

export interface SavingWords {
  readonly text: string;
  readonly alarm: boolean;
  /** More about it, shown on pointing. */
  readonly detail: string | null;
}

const changes = (n: number) => (n === 1 ? '1 change' : `${n} changes`);

/** `3 changes not saved: the server cannot be reached`; what a reload would lose is said. */
export function savingWords({ saving, waiting, reason, notKept, refused }: Part): SavingWords {
  const lost = notKept !== null && waiting > 0 ? ', a reload would lose them' : '';
  const detail = [reason, notKept].filter(Boolean).join(' ') || null;
  switch (saving) {
    case 'saved':
      return { text: 'saved', alarm: false, detail: null };
    case 'saving':
      return { text: lost ? `saving…${lost}` : 'saving…', alarm: lost !== '', detail };
    case 'conflict':
      return { text: 'conflict: choose a version', alarm: true, detail };
    case 'refused':
      return { text: `${changes(refused.length)} refused`, alarm: true, detail };
    case 'unreachable':
      return {
        text: waiting === 0 ? 'server not reached' : `${changes(waiting)} not saved: server not reached${lost}`,
        alarm: true,
        detail,
      };
  }
}
