/** A rehearsal in a worker of its own, which can be cancelled. */
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/rehearsal';
import type { RehearseMessage } from '../../workers/rehearse';

export interface RehearseJob {
  /** Null when it was cancelled. */
  readonly done: Promise<Trace | null>;
  readonly cancel: () => void;
}

export function startRehearsing(design: Design, script: Script, onProgress: (seconds: number) => void): RehearseJob {
  const worker = new Worker(new URL('../../workers/rehearse.ts', import.meta.url), { type: 'module' });
  let cancel = () => {};
  const done = new Promise<Trace | null>((resolve, reject) => {
    cancel = () => resolve(null);
    worker.onmessage = ({ data }: MessageEvent<RehearseMessage>) =>
      data.kind === 'progress' ? onProgress(data.seconds) : resolve(data.trace);
    worker.onerror = (event) => reject(new Error(event.message || 'The rehearsal could not be run.'));
    worker.postMessage({ design, script });
  }).finally(() => worker.terminate());
  return { done, cancel };
}
