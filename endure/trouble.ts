/** A full disk, a locked database, many streams, sign-in attempts. */
import { execFileSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { asCabled } from '../src/demo/brackwater';
import { call, edit, folderOf, pause, startServer } from './server';
import type { Head } from './server';
import type { Row } from './row';

const step = (n: number) => ({ revision: n, label: `edit ${n}`, client: 'endure', key: `k${n}`, edits: edit(n + 1) });

/** A file system of a few megabytes, where this user may mount one. */
function smallDisk(dir: string): boolean {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', dir], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

export async function fullDisk(): Promise<Row> {
  const what = 'disk full, then room again';
  const { dir, remove } = folderOf('disk');
  const disk = path.join(dir, 'disk');
  mkdirSync(disk);
  if (!smallDisk(disk)) {
    remove();
    return { what, runs: 'not run', result: 'this user may not mount a file system', good: true };
  }
  try {
    const server = await startServer(path.join(disk, 'db.sqlite'));
    const { value } = await call<Head>(server.base, 'POST', '/api/designs', { name: 'disk', design: asCabled() });
    const variant = value.variants[0]!.id;
    const at = `/api/variants/${variant}`;
    let n = 0;
    for (; n < 20; n++) await call(server.base, 'POST', `${at}/steps`, step(n));
    const filler = path.join(disk, 'filler');
    for (let size = 6_000_000; size > 1000; size = Math.floor(size * 0.7))
      try {
        writeFileSync(filler, Buffer.alloc(size), { flag: 'a' });
      } catch {
        // As much as there is room for.
      }
    const statuses = new Map<number, number>();
    let reads = 0;
    let refused = 0;
    for (let i = 0; i < 200; i++) {
      const { status } = await call(server.base, 'POST', `${at}/steps`, step(n));
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
      if (status === 201) n++;
      else refused++;
      if ((await call(server.base, 'GET', at)).status === 200) reads++;
    }
    rmSync(filler);
    const again = await call(server.base, 'POST', `${at}/steps`, step(n));
    const { value: now } = await call<{ revision: number }>(server.base, 'GET', at);
    await server.kill();
    const good = again.status === 201 && now.revision === n + 1 && reads === 200 && refused > 0;
    const said = [...statuses].map(([s, c]) => `${c} × ${s}`).join(', ');
    return {
      what,
      runs: '200 writes and reads',
      result: `${said}; ${reads} reads answered; then ${again.status}`,
      good,
    };
  } finally {
    await pause(100);
    execFileSync('umount', ['-l', disk], { stdio: 'ignore' });
    remove();
  }
}

export async function locked(): Promise<Row> {
  const { dir, remove } = folderOf('locked');
  const file = path.join(dir, 'db.sqlite');
  const server = await startServer(file);
  const { value } = await call<Head>(server.base, 'POST', '/api/designs', { name: 'locked', design: asCabled() });
  const at = `/api/variants/${value.variants[0]!.id}`;
  const other = new Database(file);
  other.exec('begin immediate');
  const writes = Promise.all(Array.from({ length: 20 }, () => call(server.base, 'POST', `${at}/steps`, step(0))));
  let slowest = 0;
  for (let i = 0; i < 50; i++) {
    const began = performance.now();
    await call(server.base, 'GET', at);
    slowest = Math.max(slowest, performance.now() - began);
  }
  const statuses = (await writes).map((w) => w.status);
  other.exec('rollback');
  other.close();
  const after = await call(server.base, 'POST', `${at}/steps`, step(0));
  await server.kill();
  remove();
  return {
    what: 'database locked by another program',
    runs: '20 writes, 50 reads meanwhile',
    result: `${statuses.filter((s) => s === 503).length} × 503; slowest read ${slowest.toFixed(0)} ms; then ${after.status}`,
    good: statuses.every((s) => s === 503) && after.status === 201,
  };
}

export async function streams(count: number): Promise<Row> {
  const { dir, remove } = folderOf('streams');
  const server = await startServer(path.join(dir, 'db.sqlite'));
  const { value } = await call<Head>(server.base, 'POST', '/api/designs', { name: 'streams', design: asCabled() });
  const variant = value.variants[0]!.id;
  let heard = 0;
  const controller = new AbortController();
  for (let i = 0; i < count; i++) {
    const response = await fetch(`${server.base}/api/events`, { signal: controller.signal });
    const reader = response.body!.getReader();
    void (async () => {
      const decoder = new TextDecoder();
      for (;;) {
        const { done, value: part } = await reader.read();
        if (done) return;
        heard += decoder.decode(part).split('"kind":"step"').length - 1;
      }
    })().catch(() => undefined);
  }
  const began = performance.now();
  for (let n = 0; n < 100; n++) await call(server.base, 'POST', `/api/variants/${variant}/steps`, step(n));
  const took = performance.now() - began;
  const until = performance.now() + 5000;
  while (heard < count * 100 && performance.now() < until) await pause(50);
  const ended = performance.now();
  server.child.kill('SIGTERM');
  await new Promise((resolve) => server.child.on('exit', resolve));
  const end = performance.now() - ended;
  controller.abort();
  remove();
  return {
    what: 'streams open at once',
    runs: `${count} streams, 100 edits`,
    result: `${heard} of ${count * 100} notices; ${(took / 100).toFixed(1)} ms an edit; ended in ${end.toFixed(0)} ms`,
    good: heard === count * 100 && end < 2000,
  };
}

export async function attempts(count: number): Promise<Row> {
  const { dir, remove } = folderOf('attempts');
  const server = await startServer(path.join(dir, 'db.sqlite'), { KNOT_PATH_PASSWORD: 'tide table' });
  const statuses = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    const { status } = await call(server.base, 'POST', '/api/sign-in', { password: `guess ${i}` });
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
  }
  const right = await call(server.base, 'POST', '/api/sign-in', { password: 'tide table' });
  await server.kill();
  remove();
  return {
    what: 'passwords guessed from one address',
    runs: `${count} attempts`,
    result: `${[...statuses].map(([s, c]) => `${c} × ${s}`).join(', ')}; the right one then ${right.status}`,
    good: (statuses.get(403) ?? 0) <= 8 && right.status === 429,
  };
}

/** A file of the version before, opened by the server. */
export async function before(root: string): Promise<Row> {
  const { dir, remove } = folderOf('before');
  const file = path.join(dir, 'db.sqlite');
  const fixture = path.join(root, 'tests', 'fixtures', 'databases', 'version-1.sqlite');
  if (existsSync(fixture)) copyFileSync(fixture, file);
  const server = await startServer(file);
  const { value } = await call<{ designs: { name: string }[] }>(server.base, 'GET', '/api/designs');
  await server.kill();
  remove();
  const good = value.designs[0]?.name === 'Harbour lights';
  return {
    what: 'database of the version before',
    runs: '1',
    result: good ? 'opens with its designs' : 'does not open',
    good,
  };
}
