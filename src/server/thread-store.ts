/** The store whose database lives in a thread of its own. */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Notice } from '../api/contract';
import { projectRoot } from './database';
import { log } from './log';
import { refusal } from './respond';
import type { Answer } from './respond';
import type { Store } from './store';
import type { FromThread, ToThread } from './thread';

export interface ThreadStore {
  readonly store: Store;
  readonly secret: string;
  readonly seeded: boolean;
  readonly close: () => Promise<void>;
}

const CLOSE_MS = 1000;
/** Memory of the thread: little for what is short-lived, and room for documents of thousands of switches. */
const YOUNG_MB = 6;
const OLD_MB = 2048;
const GONE = refusal(
  503,
  { code: 'database-gone', sentence: 'The part of the server that holds the database ended: start the server again.' },
  { 'Retry-After': '5' },
);

/** Starts the thread; rejects with a sentence when the file cannot be used. */
export function startThread(file: string, publish: (notice: Notice) => void): Promise<ThreadStore> {
  const worker = new Worker(path.join(projectRoot(), '.knot-path', 'thread.mjs'), {
    workerData: { file },
    resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB, maxOldGenerationSizeMb: OLD_MB },
  });
  const waiting = new Map<number, (answer: Answer) => void>();
  const tell = (message: ToThread) => worker.postMessage(message);
  let state = { epoch: '', file, backupFault: null as string | null };
  let last = 0;
  let gone = false;
  let onClosed = () => {};

  const store: Store = {
    ask: (ask) =>
      new Promise((resolve) => {
        if (gone) return resolve(GONE);
        waiting.set(++last, resolve);
        tell({ kind: 'ask', id: last, ask });
      }),
    state: () => state,
  };
  const close = () =>
    new Promise<void>((resolve) => {
      onClosed = resolve;
      setTimeout(resolve, CLOSE_MS).unref();
      tell({ kind: 'close' });
    });
  const end = () => {
    gone = true;
    for (const resolve of waiting.values()) resolve(GONE);
    waiting.clear();
  };

  return new Promise((resolve, reject) => {
    worker.on('message', (message: FromThread) => {
      switch (message.kind) {
        case 'ready':
          state = { ...state, epoch: message.epoch };
          return resolve({ store, secret: message.secret, seeded: message.seeded, close });
        case 'fault':
          return reject(new Error(message.sentence));
        case 'answer':
          waiting.get(message.id)?.(message.answer);
          return void waiting.delete(message.id);
        case 'notice':
          return publish(message.notice);
        case 'epoch':
          return void (state = { ...state, epoch: message.epoch });
        case 'backup':
          state = { ...state, backupFault: message.fault };
          if (message.fault) log().error({ fault: message.fault }, 'backup failed');
          else log().info({ file: message.file }, 'backup made');
          return;
        case 'closed':
          return onClosed();
      }
    });
    worker.on('error', (error) => {
      log().fatal({ cause: error.stack ?? error.message }, 'the database thread ended');
      end();
      reject(error);
    });
    worker.on('exit', end);
  });
}
