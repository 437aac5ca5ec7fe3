/** A rehearsal in a worker of its own, which can be stopped. */
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/trace';
import type { RehearseMessage, RehearseRequest } from '../../workers/rehearse';

export interface RehearseJob {
  /** Null when it was dropped. */
  readonly done: Promise<Trace | null>;
  /** Stops it at the next turn; what happened until then is the answer. */
  readonly stop: () => void;
  /** Ends it at once, and forgets it. */
  readonly drop: () => void;
}

/** Longest time without a word from the worker; it reports ten times a second while it runs. */
const SILENCE_MS = 30_000;

export function startRehearsing(design: Design, script: Script, onProgress: (seconds: number) => void): RehearseJob {
  const worker = new Worker(new URL('../../workers/rehearse.ts', import.meta.url), { type: 'module' });
  const tell = (request: RehearseRequest) => worker.postMessage(request);
  let drop = () => {};
  let silence: ReturnType<typeof setTimeout> | undefined;
  const done = new Promise<Trace | null>((resolve, reject) => {
    drop = () => resolve(null);
    const fail = (why: string) => reject(new Error(`The rehearsal stopped: ${why} Run it again with A.`));
    // A worker that the browser ended, for want of memory for example, says nothing any more.
    const listen = () => {
      clearTimeout(silence);
      silence = setTimeout(() => fail(`its worker has not answered for ${SILENCE_MS / 1000} s.`), SILENCE_MS);
    };
    worker.onmessage = ({ data }: MessageEvent<RehearseMessage>) => {
      listen();
      if (data.kind === 'progress') onProgress(data.seconds);
      else resolve(data.trace);
    };
    worker.onerror = (event) => fail(event.message ? `${event.message.replace(/[.]?$/, '.')}` : 'its worker ended.');
    worker.onmessageerror = () => fail('its result could not be read.');
    listen();
    tell({ kind: 'run', design, script });
  }).finally(() => {
    clearTimeout(silence);
    worker.terminate();
  });
  return { done, stop: () => tell({ kind: 'stop' }), drop };
}
