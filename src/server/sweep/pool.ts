/** Threads of this machine that look at failures. */
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { Piscina } from 'piscina';
import type { Failure } from '../../core/review';
import { projectRoot } from '../database';
import type { Task } from './thread';

/** Something that looks at chunks, several at once. */
export interface Lookers {
  /** Chunks that are worth handing over at a time. */
  readonly atOnce: number;
  readonly look: (task: Task, gone: AbortSignal) => Promise<readonly Failure[]>;
  readonly close: () => Promise<void>;
}

/** One thread a core, unless said otherwise. */
export function threads(count = availableParallelism()): Lookers {
  const pool = new Piscina<Task, Failure[]>({
    filename: path.join(projectRoot(), '.knot-path', 'sweep.mjs'),
    minThreads: count,
    maxThreads: count,
  });
  return {
    // One waits for each that is looked at, so that no thread does.
    atOnce: 2 * count,
    look: (task, gone) => pool.run(task, { signal: gone }),
    close: () => pool.destroy(),
  };
}
