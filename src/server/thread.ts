/** The thread that owns the database: carries operations out one after another, and looks after the file in between. */
import { parentPort, workerData } from 'node:worker_threads';
import type { Notice } from '../api/contract';
import { backupIfDue, scheduleOf } from './backup';
import { databaseFault, factOf, openDatabase } from './database';
import { makeSummaries, purgeOld } from './designs';
import { forgetDocuments } from './documents';
import { respond } from './respond';
import type { Answer, Ask } from './respond';
import type { Db } from './db';
import { seed } from './seed';
import { newId } from './store';
import { watchFile } from './watch';

export type ToThread = { readonly kind: 'ask'; readonly id: number; readonly ask: Ask } | { readonly kind: 'close' };
export type FromThread =
  | { readonly kind: 'ready'; readonly epoch: string; readonly secret: string; readonly seeded: boolean }
  | { readonly kind: 'fault'; readonly sentence: string }
  | { readonly kind: 'answer'; readonly id: number; readonly answer: Answer }
  | { readonly kind: 'notice'; readonly notice: Notice }
  | { readonly kind: 'epoch'; readonly epoch: string }
  | { readonly kind: 'backup'; readonly file: string | null; readonly fault: string | null }
  | { readonly kind: 'closed' };

const port = parentPort!;
const { file } = workerData as { file: string };
const tell = (message: FromThread, transfer: ArrayBuffer[] = []) => port.postMessage(message, transfer);

const WATCH_MS = 500;
const BACKUP_CHECK_MS = 60_000;
const PURGE_MS = 6 * 3_600_000;
/** Share of the file that may be empty before it is made smaller. */
const MOST_EMPTY = 0.25;
const LARGE_PAGES = 2500;

/** Runs a part of the start; the sentence goes to the server when it fails. */
function attempt<T>(run: () => T): T | null {
  try {
    return run();
  } catch (error) {
    const sentence = databaseFault(error, file)?.message ?? (error instanceof Error ? error.message : String(error));
    tell({ kind: 'fault', sentence });
    return null;
  }
}

/** Takes out what was deleted long ago, and makes the file smaller when much of it is empty. */
function tidy(db: Db): void {
  try {
    purgeOld(db, Date.now());
    const pragma = (name: string) => Number(db.$client.pragma(name, { simple: true }));
    const [pages, empty] = [pragma('page_count'), pragma('freelist_count')];
    if (pages > LARGE_PAGES && empty / pages > MOST_EMPTY) db.$client.exec('vacuum');
  } catch {
    // Locked or full: the next turn tries again.
  }
}

async function backUp(db: Db): Promise<void> {
  const schedule = scheduleOf(process.env);
  if (!schedule) return;
  try {
    const made = await backupIfDue(db, schedule, Date.now());
    if (made) tell({ kind: 'backup', file: made, fault: null });
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    tell({ kind: 'backup', file: null, fault: `The copy to ${schedule.folder} failed: ${reason}.` });
  }
}

function serve(db: Db): void {
  const publish = (notice: Notice) => tell({ kind: 'notice', notice });
  const watch = watchFile(db, (notice) => {
    if (notice.kind === 'restored') {
      forgetDocuments(db);
      tell({ kind: 'epoch', epoch: notice.epoch });
    }
    publish(notice);
  });
  const around = {
    db,
    file,
    now: Date.now,
    newId,
    publish: (notice: Notice) => {
      watch.own(notice);
      publish(notice);
    },
  };
  const timers = [
    setInterval(watch.look, WATCH_MS),
    setInterval(() => void backUp(db), BACKUP_CHECK_MS),
    setInterval(() => tidy(db), PURGE_MS),
  ];
  port.on('message', (message: ToThread) => {
    if (message.kind === 'close') {
      timers.forEach(clearInterval);
      db.$client.close();
      tell({ kind: 'closed' });
      return port.close();
    }
    void respond(message.ask, around).then((answer) => {
      const bytes = answer.content instanceof Uint8Array ? [answer.content.buffer as ArrayBuffer] : [];
      tell({ kind: 'answer', id: message.id, answer }, bytes);
    });
  });
  tell({
    kind: 'ready',
    epoch: factOf(db, 'epoch'),
    secret: factOf(db, 'secret'),
    seeded: seed(db, newId, Date.now()),
  });
  // What the first list needs is made before it is asked for.
  setImmediate(() => {
    tidy(db);
    void backUp(db);
    makeSummaries(db).catch(() => undefined);
  });
}

const db = attempt(() => openDatabase(file));
if (db) attempt(() => serve(db));
