/** The store whose database lives in a thread of its own. */
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Notice } from '../api/contract';
import { projectRoot } from './database';
import { log } from './log';
import { refusal } from './respond';
import type { Answer, Ask } from './respond';
import type { Store, StoreState } from './store';
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
  {
    code: 'database-gone',
    sentence: 'The part of the server that holds the database is being started again: try again in a moment.',
  },
  { 'Retry-After': '2' },
);

/** Milliseconds before a thread that ended is started again. */
const AGAIN_MS = 1000;

/** The requests that wait for the thread, and what is known of it. */
class Thread {
  readonly store: Store;
  private worker: Worker;
  private readonly waiting = new Map<number, (answer: Answer) => void>();
  private state: StoreState;
  private last = 0;
  private closing = false;
  private onClosed = () => {};

  constructor(
    file: string,
    private readonly publish: (notice: Notice) => void,
    private readonly onReady: (ready: Extract<FromThread, { kind: 'ready' }>) => void,
    private readonly onFault: (error: Error) => void,
  ) {
    this.state = { epoch: '', file, backupFault: null, alive: false };
    this.worker = this.start();
    this.store = { ask: (ask) => this.ask(ask), state: () => this.state };
  }

  private tell(message: ToThread): void {
    this.worker.postMessage(message);
  }

  private ask(ask: Ask): Promise<Answer> {
    if (!this.state.alive) return Promise.resolve(GONE);
    return new Promise((resolve) => {
      this.waiting.set(++this.last, resolve);
      this.tell({ kind: 'ask', id: this.last, ask });
    });
  }

  private start(): Worker {
    const worker = new Worker(path.join(projectRoot(), '.knot-path', 'thread.mjs'), {
      workerData: { file: this.state.file },
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB, maxOldGenerationSizeMb: OLD_MB },
    });
    worker.on('message', (message: FromThread) => this.hear(message));
    worker.on('error', (error) => {
      log().fatal({ cause: error.stack ?? error.message }, 'the database thread ended');
      this.onFault(error);
    });
    worker.on('exit', () => this.ended());
    return worker;
  }

  /** Whoever waits is answered, and sends again; the thread is started again unless the server ends. */
  private ended(): void {
    const wasAlive = this.state.alive;
    this.state = { ...this.state, alive: false };
    for (const resolve of this.waiting.values()) resolve(GONE);
    this.waiting.clear();
    if (this.closing || !wasAlive) return;
    setTimeout(() => {
      if (!this.closing) this.worker = this.start();
    }, AGAIN_MS).unref();
  }

  private hear(message: FromThread): void {
    switch (message.kind) {
      case 'ready':
        this.state = { ...this.state, epoch: message.epoch, alive: true };
        return this.onReady(message);
      case 'fault':
        return this.onFault(new Error(message.sentence));
      case 'answer':
        this.waiting.get(message.id)?.(message.answer);
        return void this.waiting.delete(message.id);
      case 'notice':
        return this.publish(message.notice);
      case 'epoch':
        return void (this.state = { ...this.state, epoch: message.epoch });
      case 'backup':
        this.state = { ...this.state, backupFault: message.fault };
        if (message.fault) log().error({ fault: message.fault }, 'backup failed');
        else log().info({ file: message.file }, 'backup made');
        return;
      case 'closed':
        return this.onClosed();
    }
  }

  close(): Promise<void> {
    this.closing = true;
    return new Promise((resolve) => {
      this.onClosed = resolve;
      setTimeout(resolve, CLOSE_MS).unref();
      this.tell({ kind: 'close' });
    });
  }
}

/** Starts the thread; rejects with a sentence when the file cannot be used. */
export function startThread(file: string, publish: (notice: Notice) => void): Promise<ThreadStore> {
  return new Promise((resolve, reject) => {
    const thread: Thread = new Thread(
      file,
      publish,
      ({ secret, seeded }) => resolve({ store: thread.store, secret, seeded, close: () => thread.close() }),
      reject,
    );
  });
}
