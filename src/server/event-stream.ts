/** A stream of server-sent events, one for all windows of a browser: which variants have a new revision. */
import type { Notice } from '../api/contract';
import { subscribe } from './bus';

const BEAT_MS = 15_000;

/** First which life of the database is served, then each notice as it comes, until the browser goes. */
export function noticeStream(epoch: string, gone: AbortSignal): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let stop = () => {};
  return new ReadableStream({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          // The reader went without a word.
          stop();
        }
      };
      const sendNotice = (notice: Notice) => send(`data: ${JSON.stringify(notice)}\n\n`);
      const leave = subscribe(sendNotice);
      const beat = setInterval(() => send(': still here\n\n'), BEAT_MS);
      stop = () => {
        clearInterval(beat);
        leave();
      };
      send('retry: 1000\n\n');
      sendNotice({ kind: 'hello', epoch });
      gone.addEventListener('abort', () => {
        stop();
        try {
          controller.close();
        } catch {
          // Closed by the reader already.
        }
      });
    },
    cancel: () => stop(),
  });
}
