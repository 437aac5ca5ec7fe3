/** Failures of a design, looked at by threads of this machine, or by workers wherever a queue leads to. */
import { createHash } from 'node:crypto';
import { chunksOf, failureCount, failuresIn, toldIn } from '../../core/review';
import type { Chunk, Failure, SweepBase } from '../../core/review';
import type { Lookers } from './pool';
import { queueUrl } from './queue-url';

export interface SweepPart {
  /** Number of the first failure that was looked at: parts come in no order. */
  readonly from: number;
  readonly failures: readonly Failure[];
  readonly done: number;
  readonly of: number;
}

export interface SweepOptions {
  readonly pairs: boolean;
  /** Pairs without any consequence as well. */
  readonly all: boolean;
  /** Called once when a queue is named and no worker is there. */
  readonly waits?: (where: string) => void;
}

/** Fewer failures than this are looked at in the same thread, before others would have begun. */
const FEW = 400;

/** Results of chunks as they come, with some on their way at once. */
async function* asTheyCome<T>(
  chunks: Iterable<Chunk>,
  atOnce: number,
  look: (chunk: Chunk) => Promise<T>,
): AsyncGenerator<{ chunk: Chunk; found: T }> {
  const under = new Map<Chunk, Promise<{ chunk: Chunk; found: T }>>();
  const rest = chunks[Symbol.iterator]();
  for (;;) {
    while (under.size < atOnce) {
      const next = rest.next();
      if (next.done) break;
      const chunk = next.value;
      const found = look(chunk).then((failures) => ({ chunk, found: failures }));
      // One that fails ends the sweep where it is waited for; the others fail with it.
      found.catch(() => undefined);
      under.set(chunk, found);
    }
    if (under.size === 0) return;
    const first = await Promise.race(under.values());
    under.delete(first.chunk);
    yield first;
  }
}

/**
 * All failures of a design, in parts as they are found, in no order. Whoever leaves the loop stops the sweep. Throws a sentence where the
 * queue that is named cannot be reached.
 */
export async function* sweep(base: SweepBase, { pairs, all, waits }: SweepOptions): AsyncGenerator<SweepPart> {
  const of = failureCount(base, pairs);
  const url = queueUrl();
  if (url === null && of <= FEW) {
    const chunk = { from: 0, to: of };
    const failures = all ? [...failuresIn(base, chunk)] : [...toldIn(base, chunk)].filter((f) => f !== null);
    yield { from: 0, failures, done: of, of };
    return;
  }
  const text = JSON.stringify(base.solved.topology.design);
  const key = createHash('sha256').update(text).digest('hex');
  // Threads and queue are loaded where they are used: a command that is done at once does not wait for them.
  const lookers: Lookers =
    url === null
      ? (await import('./pool')).threads()
      : await (await import('./queue')).workersAt(url, waits ?? (() => undefined));
  const gone = new AbortController();
  try {
    let done = 0;
    const look = (chunk: Chunk) => lookers.look({ key, text, chunk, all }, gone.signal);
    for await (const { chunk, found } of asTheyCome(chunksOf(of), lookers.atOnce, look)) {
      done += chunk.to - chunk.from;
      yield { from: chunk.from, failures: found, done, of };
    }
  } finally {
    gone.abort();
    await lookers.close();
  }
}
