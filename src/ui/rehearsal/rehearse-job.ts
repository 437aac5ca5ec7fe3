/** A rehearsal in a worker of its own, which can be stopped. */
import type { Design, Script } from '../../core/design';
import type { Trace } from '../../core/rehearsal';
import type { RehearseMessage, RehearseRequest } from '../../workers/rehearse';

export interface RehearseJob {
  /** Null when it was dropped. */
  readonly done: Promise<Trace | null>;
  /** Stops it at the next turn; what happened until then is the answer. */
  readonly stop: () => void;
  /** Ends it at once, and forgets it. */
  readonly drop: () => void;
}

export function startRehearsing(design: Design, script: Script, onProgress: (seconds: number) => void): RehearseJob {
  const worker = new Worker(new URL('../../workers/rehearse.ts', import.meta.url), { type: 'module' });
  const tell = (request: RehearseRequest) => worker.postMessage(request);
  let drop = () => {};
  const done = new Promise<Trace | null>((resolve, reject) => {
    drop = () => resolve(null);
    worker.onmessage = ({ data }: MessageEvent<RehearseMessage>) =>
      data.kind === 'progress' ? onProgress(data.seconds) : resolve(data.trace);
    worker.onerror = (event) => reject(new Error(event.message || 'The rehearsal could not be run.'));
    tell({ kind: 'run', design, script });
  }).finally(() => worker.terminate());
  return { done, stop: () => tell({ kind: 'stop' }), drop };
}
