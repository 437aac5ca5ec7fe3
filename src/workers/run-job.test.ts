/** A job in a worker ends in exactly one way: answered, stopped, dropped, or failed with a sentence. */
import { runJob } from './run-job';
import type { JobMessage, JobRequest } from './job';

interface Progress {
  readonly kind: 'progress';
  readonly progress: number;
}
interface Done {
  readonly kind: 'done';
  readonly result: string;
}

/** A worker whose messages the test sends. */
class FakeWorker {
  readonly received: JobRequest<string>[] = [];
  ended = false;
  onmessage: ((event: { data: JobMessage<number, string> }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  /** Says something about the last job that it was asked to run. */
  say(message: Progress | Done): void {
    const job = this.received.findLast((m) => m.kind === 'run')!.job;
    this.onmessage!({ data: { job, ...message } });
  }
  postMessage(message: JobRequest<string>): void {
    this.received.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
}

const failure = (why: string) => `It failed: ${why}`;
const start = (options: { silence?: number; onProgress?: (p: number) => void } = {}) => {
  const worker = new FakeWorker();
  const job = runJob<string, number, string>(worker as unknown as Worker, 'work', { failure, ...options });
  return { worker, job };
};

test('reports, answers, and ends its worker', async () => {
  const seen: number[] = [];
  const { worker, job } = start({ onProgress: (p) => seen.push(p) });
  worker.say({ kind: 'progress', progress: 3 });
  worker.say({ kind: 'done', result: 'ready' });
  expect(await job.done).toBe('ready');
  expect([seen, worker.received, worker.ended]).toEqual([
    [3],
    [{ kind: 'run', job: expect.any(Number), request: 'work' }],
    true,
  ]);
});

test('stopped, it still answers; dropped, it answers nothing', async () => {
  const stopped = start();
  stopped.job.stop();
  stopped.worker.say({ kind: 'done', result: 'half' });
  expect(await stopped.job.done).toBe('half');
  expect(stopped.worker.received.at(-1)).toEqual({ kind: 'stop', job: stopped.worker.received[0]!.job });
  const dropped = start();
  dropped.job.drop();
  expect([await dropped.job.done, dropped.worker.ended]).toEqual([null, true]);
});

test('a worker that fails, ends without a word, or falls silent says which', async () => {
  const failed = start();
  failed.worker.onerror!({ message: 'out of memory' });
  await expect(failed.job.done).rejects.toThrow('It failed: out of memory.');
  const ended = start();
  ended.worker.onerror!({ message: '' });
  await expect(ended.job.done).rejects.toThrow('It failed: its worker ended.');
  jest.useFakeTimers();
  const silent = start({ silence: 30_000 });
  const outcome = expect(silent.job.done).rejects.toThrow('It failed: its worker has not answered for 30 s.');
  jest.advanceTimersByTime(30_001);
  jest.useRealTimers();
  await outcome;
});

test('a kept worker goes on to the next job, and nothing is heard of one that was dropped', async () => {
  const worker = new FakeWorker();
  const lost: FakeWorker[] = [];
  const seen: number[] = [];
  const run = (onProgress?: (p: number) => void) =>
    runJob<string, number, string>(worker as unknown as Worker, 'work', {
      failure,
      lost: () => lost.push(worker),
      ...(onProgress ? { onProgress } : {}),
    });
  const first = run((p) => seen.push(p));
  first.drop();
  const second = run((p) => seen.push(10 * p));
  const [one, stop, two] = worker.received;
  expect([one!.kind, stop, two!.kind]).toEqual(['run', { kind: 'stop', job: one!.job }, 'run']);
  worker.onmessage!({ data: { kind: 'progress', job: one!.job, progress: 1 } });
  worker.onmessage!({ data: { kind: 'done', job: one!.job, result: 'late' } });
  worker.say({ kind: 'progress', progress: 2 });
  worker.say({ kind: 'done', result: 'ready' });
  expect([await first.done, await second.done, seen, worker.ended]).toEqual([null, 'ready', [20], false]);
  expect(lost).toEqual([]);
  const third = run();
  worker.onerror!({ message: 'out of memory' });
  await expect(third.done).rejects.toThrow('It failed: out of memory.');
  expect([worker.ended, lost]).toEqual([true, [worker]]);
});
