/** The way to the database: in a thread of its own under `npm start`, in this one elsewhere. */
import { nanoid } from 'nanoid';
import { publish } from './bus';
import { databaseFile, factOf, openDatabase } from './database';
import { respond } from './respond';
import type { Answer, Ask } from './respond';
import type { Db } from './db';

/** What is known of the file without asking for anything in it. */
export interface StoreState {
  readonly epoch: string;
  readonly file: string;
  /** Sentence when the last scheduled copy failed; null otherwise. */
  readonly backupFault: string | null;
  /** Whether the thread that holds the database runs. */
  readonly alive: boolean;
}

export interface Store {
  readonly ask: (ask: Ask) => Promise<Answer>;
  readonly state: () => StoreState;
}

export const newId = (): string => nanoid(12);

/** A store over a database that this thread has open. */
export function directStore(db: Db, file: string): Store {
  const around = { db, file, now: Date.now, newId, publish };
  return {
    ask: (ask) => respond(ask, around),
    state: () => ({ epoch: factOf(db, 'epoch'), file, backupFault: null, alive: true }),
  };
}

const shared = globalThis as { knotPathStore?: Store };

export const setStore = (store: Store): void => void (shared.knotPathStore = store);

/** The store of this process. */
export function store(): Store {
  if (!shared.knotPathStore) {
    const file = databaseFile();
    shared.knotPathStore = directStore(openDatabase(file), file);
  }
  return shared.knotPathStore;
}
