'use client';
import Button from '@mui/material/Button';
import { useCallback, useEffect, useState } from 'react';
import type { NoticeContent } from '../session/notice';

const SHOWN_MS = 7_000;
const ALARM_SHOWN_MS = 12_000;

/** One short message in a line of its own below the page, so that it covers nothing, with a thing or two to do about it. */
export function useNotice() {
  const [notice, setNotice] = useState<(NoticeContent & { n: number }) | null>(null);
  const [held, setHeld] = useState(false);
  const say = useCallback((content: NoticeContent) => setNotice((was) => ({ ...content, n: (was?.n ?? 0) + 1 })), []);
  const close = useCallback(() => setNotice(null), []);
  /** A complaint is over once something went well. */
  const settle = useCallback(() => setNotice((was) => (was?.alarm ? null : was)), []);
  useEffect(() => {
    if (!notice || held) return;
    const timer = setTimeout(close, notice.alarm ? ALARM_SHOWN_MS : SHOWN_MS);
    return () => clearTimeout(timer);
  }, [notice, held, close]);
  const shown = notice && (
    <div
      key={notice.n}
      className={`notice${notice.alarm ? ' notice-alarm' : ''}`}
      role={notice.alarm ? 'alert' : 'status'}
      onPointerEnter={() => setHeld(true)}
      onPointerLeave={() => setHeld(false)}
    >
      <span>{notice.text}</span>
      {[notice.action, notice.orElse].map(
        (action) =>
          action && (
            <Button
              key={action.label}
              variant="text"
              onClick={() => {
                action.run();
                close();
              }}
            >
              {action.label}
            </Button>
          ),
      )}
      <button className="plain" onClick={close} aria-label="Close message">
        ✕
      </button>
    </div>
  );
  return { say, settle, shown };
}
