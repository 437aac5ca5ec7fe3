/** The search for proposals in a worker of its own, which can be cancelled. */
import type { Design } from '../../../core/design';
import type { Progress, Proposals } from '../../../core/goals';
import type { ProposeMessage } from '../../../workers/propose';

export interface ProposeJob {
  /** Null when it was cancelled. */
  readonly done: Promise<Proposals | null>;
  readonly cancel: () => void;
}

export function startProposing(design: Design, onProgress: (progress: Progress) => void): ProposeJob {
  const worker = new Worker(new URL('../../../workers/propose.ts', import.meta.url), { type: 'module' });
  let cancel = () => {};
  const done = new Promise<Proposals | null>((resolve, reject) => {
    cancel = () => resolve(null);
    worker.onmessage = ({ data }: MessageEvent<ProposeMessage>) =>
      data.kind === 'progress' ? onProgress(data.progress) : resolve(data.proposals);
    worker.onerror = (event) => reject(new Error(event.message || 'The proposals could not be computed.'));
    worker.postMessage(design);
  }).finally(() => worker.terminate());
  return { done, cancel };
}
