/** The SQLite file: opened once a process, write-ahead log, migrations applied when it is opened. */
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import type { BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** Where the file lies: `KNOT_PATH_DB`, or `data/knot-path.sqlite` in the project. */
export const databaseFile = (): string =>
  process.env.KNOT_PATH_DB ?? path.join(process.cwd(), 'data', 'knot-path.sqlite');

/** Opens a file (`:memory:` for tests) and brings its tables up to date. */
export function openDatabase(file: string): Db {
  if (file !== ':memory:') mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  // An acknowledged edit is on disk, not only in the system's cache.
  client.pragma('synchronous = FULL');
  client.pragma('foreign_keys = ON');
  client.pragma('busy_timeout = 5000');
  const db = drizzle(client, { schema });
  migrate(db, { migrationsFolder: path.join(process.cwd(), 'src', 'server', 'migrations') });
  return db;
}

const shared = globalThis as { knotPathDb?: Db };

/** The database of this process. */
export function database(): Db {
  return (shared.knotPathDb ??= openDatabase(databaseFile()));
}
