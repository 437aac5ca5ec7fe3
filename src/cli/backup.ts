/** Copies of the database that `KNOT_PATH_DB` names, also while its server runs. */
import path from 'node:path';
import Database from 'better-sqlite3';
import { backupTo, checkBackup, restoreBackup } from '../server/backup';
import { databaseFault, databaseFile } from '../server/database';
import { complain, print } from './files';
import { count } from '../core/standard';

const reasonOf = (error: unknown, file: string): string =>
  databaseFault(error, file)?.message ?? (error instanceof Error ? error.message : String(error));

/** Writes a complete copy to a file. */
export async function backup(to: string): Promise<number> {
  const source = databaseFile();
  try {
    const client = new Database(source, { readonly: true, fileMustExist: true, timeout: 5000 });
    try {
      await backupTo(client, path.resolve(to));
    } finally {
      client.close();
    }
    const { designs } = checkBackup(path.resolve(to));
    await print(`Copied ${source} to ${to}: ${count(designs, 'design')}.\n`);
    return 0;
  } catch (error) {
    complain(reasonOf(error, source));
    return 1;
  }
}

/** Replaces the database by a copy; what was there before is kept beside it. */
export async function restore(from: string): Promise<number> {
  const target = databaseFile();
  try {
    const { designs, aside } = await restoreBackup(from, target, Date.now());
    await print(`Restored ${from} into ${target}: ${count(designs, 'design')}.\n`);
    if (aside) await print(`What was there before is kept as ${aside}.\n`);
    return 0;
  } catch (error) {
    complain(reasonOf(error, target));
    return 1;
  }
}
