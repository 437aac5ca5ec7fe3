/** A rehearsal in a worker: takes a design and a script, reports how far it is, answers with what happened; can be told to stop. */
import type { Design, Script } from '../core/design';
import { buffersOf } from '../core/trace';
import { rehearsing } from '../core/simulation';
import type { Trace } from '../core/trace';

export type RehearseRequest =
  { readonly kind: 'run'; readonly design: Design; readonly script: Script } | { readonly kind: 'stop' };
export type RehearseMessage =
  { readonly kind: 'progress'; readonly seconds: number } | { readonly kind: 'done'; readonly trace: Trace };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<RehearseRequest>) => void) | null;
  postMessage: (message: RehearseMessage, transfer?: ArrayBufferLike[]) => void;
};

let stopped = false;
/** Milliseconds between two reports at least: each is drawn. */
const BETWEEN_REPORTS = 100;
/** Lets messages in that have come meanwhile. */
const pause = () => new Promise((resolve) => setTimeout(resolve, 0));

async function run(design: Design, script: Script): Promise<void> {
  const turns = rehearsing(design, script);
  let told = performance.now();
  for (;;) {
    const { done, value } = turns.next(stopped);
    if (done) return scope.postMessage({ kind: 'done', trace: value }, buffersOf(value.frames));
    if (performance.now() - told > BETWEEN_REPORTS) {
      scope.postMessage({ kind: 'progress', seconds: value });
      told = performance.now();
    }
    await pause();
  }
}

scope.onmessage = ({ data }) => {
  if (data.kind === 'stop') stopped = true;
  else
    void run(data.design, data.script).catch((error: unknown) => {
      // Told to the page as what it is: a fault of the program.
      setTimeout(() => {
        throw error;
      });
    });
};
