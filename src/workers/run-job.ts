/** The page's side of a job in a worker: one request, progress, and one answer, which may be stopped or dropped. */
import type { JobMessage, JobRequest } from './job';

export interface Job<Result> {
  /** Null when it was dropped. */
  readonly done: Promise<Result | null>;
  /** Stops it at its next turn; what it has by then is the answer. */
  readonly stop: () => void;
  /** Ends it at once and forgets it. */
  readonly drop: () => void;
}

export interface JobOptions<Progress> {
  readonly onProgress?: (progress: Progress) => void;
  /** The sentence for a job that failed; `why` ends with a full stop. */
  readonly failure: (why: string) => string;
  /** Longest time without a message, in milliseconds; absent for a job that does not report. */
  readonly silence?: number;
  /** For a worker that is kept for the next job: called when it is lost, in this job or after it. */
  readonly lost?: () => void;
}

let jobs = 0;

const sentence = (text: string): string => text.replace(/[.]?$/, '.');

/** Runs one job in a worker, which ends with it unless it is kept: then the page hears of the last job alone. */
export function runJob<Request, Progress, Result>(
  worker: Worker,
  request: Request,
  { onProgress = () => {}, failure, silence, lost }: JobOptions<Progress>,
): Job<Result> {
  const send = (message: JobRequest<Request>) => worker.postMessage(message);
  const job = jobs++;
  const stop = () => send({ kind: 'stop', job });
  let drop = () => {};
  let timer: ReturnType<typeof setTimeout> | undefined;
  const done = new Promise<Result | null>((resolve, reject) => {
    drop = () => {
      if (lost) stop();
      resolve(null);
    };
    const fail = (why: string) => {
      worker.terminate();
      lost?.();
      reject(new Error(failure(why)));
    };
    // A worker that the browser ended, for want of memory for example, sends nothing more.
    const wait = () => {
      clearTimeout(timer);
      if (silence !== undefined)
        timer = setTimeout(() => fail(`its worker has not answered for ${silence / 1000} s.`), silence);
    };
    worker.onmessage = ({ data }: MessageEvent<JobMessage<Progress, Result>>) => {
      if (data.job !== job) return;
      wait();
      if (data.kind === 'progress') onProgress(data.progress);
      else resolve(data.result);
    };
    worker.onerror = (event) => fail(event.message ? sentence(event.message) : 'its worker ended.');
    worker.onmessageerror = () => fail('its result could not be read.');
    wait();
    send({ kind: 'run', job, request });
  }).finally(() => {
    clearTimeout(timer);
    if (!lost) worker.terminate();
  });
  return { done, stop, drop };
}
