'use client';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { useCallback, useState } from 'react';
import type { NoticeContent } from '../session/notice';

/** One short message at the bottom, with at most one thing to do about it. */
export function useNotice() {
  const [notice, setNotice] = useState<(NoticeContent & { n: number }) | null>(null);
  const say = useCallback((content: NoticeContent) => setNotice((was) => ({ ...content, n: (was?.n ?? 0) + 1 })), []);
  const close = () => setNotice(null);
  const shown = notice && (
    <Snackbar
      key={notice.n}
      open
      autoHideDuration={notice.alarm ? 12_000 : 7_000}
      onClose={(_, reason) => reason !== 'clickaway' && close()}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
    >
      <div className={`notice${notice.alarm ? ' notice-alarm' : ''}`} role={notice.alarm ? 'alert' : 'status'}>
        <span>{notice.text}</span>
        {notice.action && (
          <Button
            variant="text"
            onClick={() => {
              notice.action!.run();
              close();
            }}
          >
            {notice.action.label}
          </Button>
        )}
        <button className="plain" onClick={close} aria-label="Close message">
          ✕
        </button>
      </div>
    </Snackbar>
  );
  return { say, shown };
}
