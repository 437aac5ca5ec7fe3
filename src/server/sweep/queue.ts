/** A sweep over several machines: chunks wait in Redis until a worker takes them. */
import { Queue, QueueEvents, Worker } from 'bullmq';
import type { Job } from 'bullmq';
import { Redis } from 'ioredis';
import type { Failure } from '../../core/review';
import { threads } from './pool';
import type { Lookers } from './pool';
import type { Task } from './thread';

const NAME = 'knot-path-review';
/** Chunks that wait or are looked at, of one sweep: enough for some dozens of threads, few enough to leave behind. */
const AT_ONCE = 64;
/** Seconds for which what a sweep left behind is kept. */
const KEPT = 3600;
/** Milliseconds after which a chunk of a worker that has gone is given to another. */
const GONE_AFTER = 10_000;
/** How often a chunk may be lost with its worker, or fail, before the sweep does. */
const ATTEMPTS = 5;

interface ChunkJob extends Omit<Task, 'text'> {
  readonly design: string;
}

/** `redis://host:6379`, without the password. */
function shown(url: string): string {
  const { protocol, host } = new URL(url);
  return `${protocol}//${host}`;
}

/** A connection that is there; a sentence where there is none. Later it is made again whenever it is lost. */
async function connected(url: string): Promise<Redis> {
  const redis = new Redis(url, { lazyConnect: true, maxRetriesPerRequest: null, retryStrategy: () => null });
  redis.on('error', () => undefined);
  try {
    await redis.connect();
  } catch (error) {
    throw new Error(`The queue at ${shown(url)} cannot be reached: ${(error as Error).message}.`, { cause: error });
  }
  redis.options.retryStrategy = (times) => Math.min(2000, 100 * times);
  return redis;
}

const designKey = (key: string) => `${NAME}:design:${key}`;

/** Workers, wherever they are. `waits`: called once when chunks wait and no worker is there. */
export async function workersAt(url: string, waits: (where: string) => void): Promise<Lookers> {
  const redis = await connected(url);
  const queue = new Queue<ChunkJob, Failure[]>(NAME, { connection: redis });
  const own = redis.duplicate();
  const events = new QueueEvents(NAME, { connection: own });
  events.on('error', () => undefined);
  // Each chunk that is waited for listens.
  for (const emitter of [queue, events]) emitter.setMaxListeners(4 * AT_ONCE);
  await events.waitUntilReady();
  const told = setTimeout(() => {
    void queue.getWorkersCount().then((count) => count === 0 && waits(shown(url)));
  }, 3000);
  const stored = new Set<string>();
  const mine = new Set<Job>();
  const look = async ({ text, ...task }: Task, gone: AbortSignal): Promise<readonly Failure[]> => {
    const design = designKey(task.key);
    if (!stored.has(design)) await redis.set(design, text, 'EX', KEPT * 24);
    stored.add(design);
    gone.throwIfAborted();
    const options = { attempts: ATTEMPTS, removeOnComplete: { age: KEPT }, removeOnFail: { age: KEPT } };
    const job = await queue.add('chunk', { ...task, design }, options);
    mine.add(job);
    try {
      return await job.waitUntilFinished(events);
    } finally {
      mine.delete(job);
    }
  };
  const close = async () => {
    clearTimeout(told);
    // What no worker has begun is taken back; what is looked at ends by itself.
    await Promise.allSettled([...mine].map((job) => job.remove()));
    await events.close();
    await queue.close();
    for (const connection of [own, redis]) connection.disconnect();
  };
  return { atOnce: AT_ONCE, look, close };
}

/** Works for a queue until it is stopped. Gives how to stop: what was begun is ended first. */
export async function workFor(url: string, count?: number): Promise<{ where: string; stop: () => Promise<void> }> {
  const redis = await connected(url);
  const pool = threads(count);
  const designs = new Map<string, string>();
  const textOf = async (key: string): Promise<string> => {
    const text = designs.get(key) ?? (await redis.get(key));
    if (text === null) throw new Error('The design of this chunk is no longer in the queue.');
    designs.set(key, text);
    for (const old of designs.keys()) if (designs.size > 4) designs.delete(old);
    return text;
  };
  const gone = new AbortController();
  const own = redis.duplicate();
  const worker = new Worker<ChunkJob, readonly Failure[]>(
    NAME,
    async ({ data: { design, ...task } }) => pool.look({ ...task, text: await textOf(design) }, gone.signal),
    {
      connection: own,
      concurrency: pool.atOnce,
      lockDuration: GONE_AFTER,
      stalledInterval: GONE_AFTER / 2,
      maxStalledCount: ATTEMPTS,
    },
  );
  worker.on('error', () => undefined);
  await worker.waitUntilReady();
  const stop = async () => {
    await worker.close();
    gone.abort();
    await pool.close();
    // Connections that are brought along are not closed with what uses them.
    for (const connection of [own, redis]) connection.disconnect();
  };
  return { where: shown(url), stop };
}
