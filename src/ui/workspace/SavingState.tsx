'use client';
import Tooltip from '@mui/material/Tooltip';
import { useShallow } from 'zustand/react/shallow';
import { savingWords } from '../session/saving-words';
import { useBench, useSession } from '../session/context';

/** Whether all is saved; what to do when it is not. */
export function SavingState() {
  const { session, openDialog } = useBench();
  const state = useSession(
    useShallow((s) => ({
      saving: s.saving,
      waiting: s.waiting,
      reason: s.reason,
      notKept: s.notKept,
      refused: s.refused,
    })),
  );
  const { text, alarm, detail } = savingWords(state);
  return (
    <>
      <Tooltip title={detail ?? ''}>
        <span className={alarm ? 'alarm' : 'quiet'} role="status" aria-label="State of saving">
          {text}
        </span>
      </Tooltip>
      {state.saving === 'unreachable' && (
        <button className="tool" onClick={session.tryNow}>
          Try now
        </button>
      )}
      {state.refused.length > 0 && (
        <button className="tool" onClick={() => openDialog('refused')}>
          Refused: {state.refused.length}
        </button>
      )}
    </>
  );
}
