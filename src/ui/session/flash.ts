/** A message that outlives a change of page within the application: said once by the page that opens next. */
import type { NoticeContent } from './notice';

let waiting: NoticeContent | null = null;

export const sayNext = (notice: NoticeContent): void => void (waiting = notice);

export function takeFlash(): NoticeContent | null {
  const notice = waiting;
  waiting = null;
  return notice;
}

let back = false;

/** Whether the hand-over is to begin with the network as it was read: asked by one stage, taken by the other. */
export const isAskedBack = (): boolean => back;

export const askBack = (asked: boolean): void => void (back = asked);
