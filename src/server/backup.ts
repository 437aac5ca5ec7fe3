/** Copies of the database: made while it is in use, checked before they are restored, and taken by the clock. */
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import { nanoid } from 'nanoid';
import { DatabaseFault, databaseFault, knownMigrations, newestMigration, openDatabase } from './database';
import type { Db } from './db';

/** `20261128-094500`, in UTC. */
export const stampOf = (now: number): string =>
  new Date(now).toISOString().replace(/[-:]/g, '').replace('T', '-').slice(0, 15);

/** Writes a complete copy of the database to a file; an unfinished copy never stands under that name. */
export async function backupTo(client: Database.Database, file: string): Promise<void> {
  const part = `${file}.part-${nanoid(6)}`;
  try {
    await client.backup(part);
    renameSync(part, file);
  } finally {
    rmSync(part, { force: true });
  }
}

/** What a backup holds; throws a fault with the reason when it is none that can be restored. */
export function checkBackup(file: string): { designs: number; variants: number } {
  const say = (reason: string) =>
    new DatabaseFault('damaged', `${file} cannot be restored: ${reason}. Nothing was changed.`);
  if (!existsSync(file)) throw say('there is no such file');
  if (statSync(file).isDirectory()) throw say('it is a folder');
  const client = (() => {
    try {
      return new Database(file, { readonly: true, fileMustExist: true });
    } catch {
      throw say('it cannot be opened');
    }
  })();
  try {
    const newest = newestMigration(client);
    if (newest === null || newest === 0) throw say('it is not a Knot Path database');
    if (newest > (knownMigrations().at(-1) ?? 0)) throw say('a later version of Knot Path wrote it');
    if (client.pragma('integrity_check(1)', { simple: true }) !== 'ok') throw say('it is damaged');
    const count = (table: string) => Number(client.prepare(`select count(*) from ${table}`).pluck().get());
    return { designs: count('designs'), variants: count('variants') };
  } catch (error) {
    if (error instanceof DatabaseFault) throw error;
    throw say('it is damaged or not a Knot Path database');
  } finally {
    client.close();
  }
}

/** A free name for the copy of what is replaced. */
function asideName(target: string, now: number): string {
  for (let n = 0; ; n++) {
    const name = `${target}.before-restore-${stampOf(now)}${n === 0 ? '' : `-${n}`}.sqlite`;
    if (!existsSync(name)) return name;
  }
}

const WITH_FILE = ['-wal', '-shm'];

/** Keeps a copy of the present file; one that SQLite cannot read is moved away as it is. */
async function putAside(target: string, now: number): Promise<string | null> {
  if (!existsSync(target)) return null;
  const aside = asideName(target, now);
  try {
    const client = new Database(target, { readonly: true, timeout: 5000 });
    try {
      client.prepare('select count(*) from sqlite_master').get();
      await backupTo(client, aside);
    } finally {
      client.close();
    }
  } catch (error) {
    if (databaseFault(error, target)?.code !== 'damaged') throw error;
    renameSync(target, aside);
    for (const end of WITH_FILE) if (existsSync(target + end)) renameSync(target + end, aside + end);
  }
  return aside;
}

/**
 * Replaces the database by a backup, also while a server has it open: the new content arrives as one transaction, with
 * another epoch, by which the server and its windows notice. What was there before is kept beside it.
 */
export async function restoreBackup(
  file: string,
  target: string,
  now: number,
): Promise<{ designs: number; variants: number; aside: string | null }> {
  const found = checkBackup(file);
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-restore-'));
  try {
    const ready = path.join(folder, 'ready.sqlite');
    copyFileSync(file, ready);
    const db = openDatabase(ready);
    db.$client.prepare("update meta set value = ? where name = 'epoch'").run(nanoid());
    // The mode of the log is written into the file: the copy must not bring another one.
    db.$client.pragma('wal_checkpoint(TRUNCATE)');
    mkdirSync(path.dirname(target), { recursive: true });
    const aside = await putAside(target, now);
    await db.$client.backup(target);
    db.$client.close();
    return { ...found, aside };
  } catch (error) {
    throw databaseFault(error, target) ?? error;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const SCHEDULED = /^knot-path-\d{8}-\d{6}\.sqlite$/;

export interface Schedule {
  readonly folder: string;
  readonly hours: number;
  readonly keep: number;
}

const counted = (text: string | undefined, usual: number): number => {
  const n = Number(text);
  return text !== undefined && text !== '' && Number.isFinite(n) && n > 0 ? n : usual;
};

/** What `KNOT_PATH_BACKUP`, `…_HOURS` and `…_KEEP` ask for; null without a folder. */
export function scheduleOf(env: NodeJS.ProcessEnv): Schedule | null {
  const folder = env.KNOT_PATH_BACKUP;
  if (!folder) return null;
  return {
    folder: path.resolve(folder),
    hours: counted(env.KNOT_PATH_BACKUP_HOURS, 24),
    keep: Math.max(1, Math.floor(counted(env.KNOT_PATH_BACKUP_KEEP, 14))),
  };
}

/** Makes the next copy of a schedule if it is due, and takes away what is beyond the count; the new file, or null. */
export async function backupIfDue(db: Db, { folder, hours, keep }: Schedule, now: number): Promise<string | null> {
  mkdirSync(folder, { recursive: true });
  const copies = () =>
    readdirSync(folder)
      .filter((name) => SCHEDULED.test(name))
      .sort();
  const last = copies().at(-1);
  if (last && now - statSync(path.join(folder, last)).mtimeMs < hours * 3_600_000) return null;
  const file = path.join(folder, `knot-path-${stampOf(now)}.sqlite`);
  await backupTo(db.$client, file);
  for (const old of copies().slice(0, -keep)) rmSync(path.join(folder, old), { force: true });
  return file;
}
