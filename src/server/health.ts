/** How the server is. */
import { statfsSync } from 'node:fs';
import path from 'node:path';
import { VERSION } from '../api/version';
import { schemaVersion } from './database';
import { refusal } from './respond';
import type { Answer } from './respond';
import { store } from './store';

/** Free bytes below which the disk is reported as nearly full. */
const LITTLE = 100 * 1024 * 1024;

function freeBytes(file: string): number | null {
  try {
    const { bavail, bsize } = statfsSync(path.dirname(file));
    return Number(bavail) * Number(bsize);
  } catch {
    return null;
  }
}

/** Version, schema, database, disk and uptime; status 503 when the database is gone. Who has not signed in sees the first three lines. */
export function health(full = true): Answer {
  try {
    const { file, epoch, backupFault, alive } = store().state();
    if (!alive) throw new Error('The part of the server that holds the database is being started again.');
    const free = freeBytes(file);
    const status = free !== null && free < LITTLE ? 'disk nearly full' : backupFault ? 'backup failed' : 'fine';
    const brief = { name: 'knot-path', status, version: VERSION };
    const value = full && {
      ...brief,
      schema: schemaVersion(),
      database: { file, epoch },
      disk: { freeBytes: free },
      uptimeSeconds: Math.round(process.uptime()),
      memoryMB: Math.round(process.memoryUsage().rss / 1e6),
      backupFault,
    };
    return {
      status: 200,
      headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' },
      content: JSON.stringify(value || brief),
    };
  } catch (error) {
    const sentence = error instanceof Error ? error.message : String(error);
    return refusal(503, { code: 'database', sentence }, { 'Retry-After': '2' });
  }
}
