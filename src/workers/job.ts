/** The messages between a page and a worker that does one job after another, and the worker's side of them. */

/** Jobs are numbered: to stop one stops those before it. */
export type JobRequest<Request> =
  | { readonly kind: 'run'; readonly job: number; readonly request: Request }
  | { readonly kind: 'stop'; readonly job: number };
export type JobMessage<Progress, Result> = { readonly job: number } & (
  { readonly kind: 'progress'; readonly progress: Progress } | { readonly kind: 'done'; readonly result: Result }
);

/** What a job may do while it runs. */
export interface JobContext<Progress> {
  readonly report: (progress: Progress) => void;
  /** Whether the page asked to stop; the job then answers with what it has. */
  readonly stopped: () => boolean;
}

interface Scope<Request, Progress, Result> {
  onmessage: ((event: MessageEvent<JobRequest<Request>>) => void) | null;
  postMessage: (message: JobMessage<Progress, Result>, transfer?: ArrayBufferLike[]) => void;
}

/** Answers requests in a worker. `buffers`: memory of the result that is handed over instead of copied. */
export function serveJob<Request, Progress, Result>(
  run: (request: Request, context: JobContext<Progress>) => Result | Promise<Result>,
  buffers: (result: Result) => ArrayBufferLike[] = () => [],
): void {
  const scope = self as unknown as Scope<Request, Progress, Result>;
  let stopped = -1;
  const answer = async (job: number, request: Request) => {
    const result = await run(request, {
      report: (progress) => scope.postMessage({ kind: 'progress', job, progress }),
      stopped: () => job <= stopped,
    });
    scope.postMessage({ kind: 'done', job, result }, buffers(result));
  };
  scope.onmessage = ({ data }) => {
    if (data.kind === 'stop') stopped = Math.max(stopped, data.job);
    else
      void answer(data.job, data.request).catch((error: unknown) => {
        // Outside of the promise, so that the page sees it as a fault of the worker.
        setTimeout(() => {
          throw error;
        });
      });
  };
}
