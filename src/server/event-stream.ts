/** A stream of server-sent events with the steps of one variant, for windows that stay open. */
import { subscribe } from './bus';
import type { Step } from './variants';

const BEAT_MS = 15_000;

/** First the steps that were missed since a revision, then each as it is made, until the window goes. */
export function stepStream(variantId: string, missed: readonly Step[], gone: AbortSignal): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let stop = () => {};
  return new ReadableStream({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      const sendStep = (step: Step) => send(`id: ${step.revision}\ndata: ${JSON.stringify(step)}\n\n`);
      const leave = subscribe(variantId, sendStep);
      const beat = setInterval(() => send(': still here\n\n'), BEAT_MS);
      stop = () => {
        clearInterval(beat);
        leave();
      };
      send('retry: 1000\n\n');
      missed.forEach(sendStep);
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
