/** The SQLite file: opened once a process, write-ahead log, migrations applied when it is opened. */
import { existsSync, mkdirSync, readFileSync, statSync, statfsSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { eq } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { nanoid } from 'nanoid';
import { fillTops } from './history';
import * as schema from './schema';
import type { Db } from './db';

export type { Db };

/** Where the project lies: programs that are started elsewhere say so in `KNOT_PATH_ROOT`. */
export const projectRoot = (): string => process.env.KNOT_PATH_ROOT ?? process.cwd();

/** Where the file lies: `KNOT_PATH_DB`, or `data/knot-path.sqlite` in the project. */
export const databaseFile = (): string =>
  path.resolve(
    /* turbopackIgnore: true */ process.env.KNOT_PATH_DB ?? path.join(projectRoot(), 'data', 'knot-path.sqlite'),
  );

/** Files up to this size are checked for damage when they are opened. */
const CHECKED_BYTES = 512 * 1024 * 1024;
/** Milliseconds that SQLite waits for a lock before it says so; what must wait longer waits without holding up others. */
const BUSY_MS = 1;

/** Why a file cannot be used as the database, in one sentence with what to do. */
export class DatabaseFault extends Error {
  constructor(
    readonly code: 'folder' | 'damaged' | 'read-only' | 'full' | 'later' | 'locked' | 'unopened',
    sentence: string,
  ) {
    super(sentence);
  }
}

/** The code of an error, or of what caused it. */
function codeOf(error: unknown): string {
  for (let at = error as { code?: unknown; cause?: unknown } | null | undefined; at; at = at.cause as typeof at)
    if (typeof at.code === 'string') return at.code;
  return '';
}

/** Less than this is too little for the tables of an empty database. */
const LEAST_FREE = 512 * 1024;

/** A disk without room for a new database: what fails then is not always said by an error of its own. */
function isFull(file: string): boolean {
  try {
    const { bavail, bsize } = statfsSync(path.dirname(path.resolve(file)));
    return Number(bavail) * Number(bsize) < LEAST_FREE;
  } catch {
    return false;
  }
}

/** An error of SQLite or the file system as a sentence; null when it is of another kind. */
export function databaseFault(error: unknown, file: string): DatabaseFault | null {
  if (error instanceof DatabaseFault) return error;
  const code = codeOf(error);
  const is = (...prefixes: string[]) => prefixes.some((p) => code.startsWith(p));
  if (is('SQLITE_CORRUPT', 'SQLITE_NOTADB'))
    return new DatabaseFault(
      'damaged',
      `The database ${file} is damaged or is no Knot Path database: restore a backup with 'npm run -s knot-path -- restore BACKUP', or set KNOT_PATH_DB to another file.`,
    );
  if (is('SQLITE_READONLY', 'EACCES', 'EPERM', 'EROFS'))
    return new DatabaseFault(
      'read-only',
      `The database ${file} cannot be written: make the file and its folder writable for this user, or set KNOT_PATH_DB to another file.`,
    );
  if (is('SQLITE_FULL', 'ENOSPC', 'SQLITE_IOERR_WRITE'))
    return new DatabaseFault('full', `The disk that holds ${file} is full: make room on it, and try again.`);
  if (is('SQLITE_BUSY', 'SQLITE_LOCKED'))
    return new DatabaseFault(
      'locked',
      `The database ${file} is locked by another program: end that program, or try again later.`,
    );
  if (is('SQLITE_CANTOPEN', 'ENOTDIR', 'ENOENT', 'EISDIR', 'EEXIST', 'SQLITE_IOERR'))
    return new DatabaseFault(
      'unopened',
      `The database ${file} cannot be opened: check that its folder exists and may be written, or set KNOT_PATH_DB to another file.`,
    );
  return null;
}

const migrationsFolder = () => path.join(projectRoot(), 'src', 'server', 'migrations');

/** Times of the migrations that this release knows, as the journal has them. */
export function knownMigrations(): number[] {
  const journal = JSON.parse(readFileSync(path.join(migrationsFolder(), 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  return journal.entries.map((e) => e.when);
}

/** Number of the schema that this release writes. */
export const schemaVersion = (): number => knownMigrations().length;

/** Time of the newest migration that a file has seen; 0 for a file without tables, null for one of another program. */
export function newestMigration(client: Database.Database): number | null {
  const tables = client.prepare("select name from sqlite_master where type = 'table'").pluck().all() as string[];
  if (tables.length === 0) return 0;
  if (!tables.includes('__drizzle_migrations') || !tables.includes('designs')) return null;
  return Number(client.prepare('select max(created_at) from __drizzle_migrations').pluck().get() ?? 0);
}

function checkFile(client: Database.Database, file: string): void {
  const newest = newestMigration(client);
  if (newest === null)
    throw new DatabaseFault(
      'damaged',
      `The file ${file} is a database of another program: set KNOT_PATH_DB to another file.`,
    );
  const last = knownMigrations().at(-1) ?? 0;
  if (newest > last)
    throw new DatabaseFault(
      'later',
      `The database ${file} was written by a later version of Knot Path: start that version, or set KNOT_PATH_DB to another file. This version leaves the file as it is.`,
    );
  if (file !== ':memory:' && statSync(file).size > CHECKED_BYTES) return;
  const check = client.pragma('quick_check(1)', { simple: true });
  if (check !== 'ok') throw Object.assign(new Error(String(check)), { code: 'SQLITE_CORRUPT' });
}

function ensureFacts(client: Database.Database): void {
  const insert = client.prepare('insert or ignore into meta (name, value) values (?, ?)');
  insert.run('epoch', nanoid());
  insert.run('secret', nanoid(48));
}

function open(file: string): Db {
  if (file !== ':memory:') {
    if (existsSync(file) && statSync(file).isDirectory())
      throw new DatabaseFault(
        'folder',
        `${file} is a folder: set KNOT_PATH_DB to a file, such as ${path.join(file, 'knot-path.sqlite')}.`,
      );
    mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  }
  const client = new Database(file, { timeout: 2000 });
  try {
    checkFile(client, file);
    client.pragma('journal_mode = WAL');
    // An acknowledged edit is on disk, not only in the system's cache.
    client.pragma('synchronous = FULL');
    client.pragma('foreign_keys = ON');
    // A write that cannot be made is noticed now, not at the first edit.
    client.exec('begin immediate; rollback');
    const db = drizzle(client, { schema });
    migrate(db, { migrationsFolder: migrationsFolder() });
    fillTops(db);
    ensureFacts(client);
    client.pragma(`busy_timeout = ${BUSY_MS}`);
    return db;
  } catch (error) {
    client.close();
    throw error;
  }
}

/** Opens a file (`:memory:` for tests) and brings its tables up to date; throws a `DatabaseFault` when it cannot be used. */
export function openDatabase(file: string): Db {
  try {
    return open(file);
  } catch (error) {
    const full = file !== ':memory:' && isFull(file);
    throw databaseFault(full ? Object.assign(new Error('full'), { code: 'ENOSPC' }) : error, file) ?? error;
  }
}

/** A fact about the file. */
export const factOf = (db: Db, name: 'epoch' | 'secret'): string =>
  db.select({ value: schema.meta.value }).from(schema.meta).where(eq(schema.meta.name, name)).get()?.value ?? '';
