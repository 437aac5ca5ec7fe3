/** Long histories and many designs: what opening costs, and how much memory is used. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { campus } from '../src/demo/campus';
import { call, edit, folderOf, startServer } from './server';
import type { Head } from './server';
import type { Row } from './row';

const memoryMB = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

async function median(run: () => Promise<unknown>, times = 7): Promise<number> {
  const took: number[] = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    await run();
    took.push(performance.now() - began);
  }
  return took.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}

export async function longHistory(count: number): Promise<Row[]> {
  const { dir, remove } = folderOf('history');
  const file = path.join(dir, 'db.sqlite');
  let server = await startServer(file);
  const design = campus({ switches: 200, vlans: 20, outcomes: 8 });
  const id = design.switches[7]!.id;
  const made: string[] = [];
  for (const name of ['short', 'long']) {
    const { value } = await call<Head>(server.base, 'POST', '/api/designs', { name, design });
    made.push(value.variants[0]!.id);
  }
  const send = (variant: string, n: number) =>
    call(server.base, 'POST', `/api/variants/${variant}/steps`, {
      revision: n,
      label: `e${n}`,
      client: 'e',
      edits: edit(n + 1, id),
    });
  for (let n = 0; n < 10; n++) await send(made[0]!, n);
  const began = performance.now();
  for (let n = 0; n < count; n++) await send(made[1]!, n);
  const each = (performance.now() - began) / count;
  const memory = memoryMB(server.pid);
  await server.kill();
  server = await startServer(file);
  const cold = async (variant: string) => {
    const start = performance.now();
    await call(server.base, 'GET', `/api/variants/${variant}`);
    return performance.now() - start;
  };
  const coldLong = await cold(made[1]!);
  await server.kill();
  server = await startServer(file);
  const coldShort = await cold(made[0]!);
  const [short, long] = [
    await median(() => call(server.base, 'GET', `/api/variants/${made[0]}`)),
    await median(() => call(server.base, 'GET', `/api/variants/${made[1]}`)),
  ];
  await server.kill();
  const snapshots = new Database(file, { readonly: true }).prepare('select count(*) from snapshots').pluck().get();
  remove();
  const ms = (n: number) => `${n.toFixed(0)} ms`;
  return [
    {
      what: `${count} edits at 200 switches`,
      runs: `${each.toFixed(1)} ms an edit`,
      result: `${memory.toFixed(0)} MB resident; ${String(snapshots)} snapshots kept`,
      good: memory < 250,
    },
    {
      what: 'opening after a restart, and again',
      runs: `10 edits | ${count} edits`,
      result: `${ms(coldShort)} and ${ms(short)} | ${ms(coldLong)} and ${ms(long)}`,
      good: long < short * 1.5 + 20,
    },
  ];
}

/** The first list after a restart, and how long the server is deaf to others meanwhile. */
export async function manyDesigns(count: number): Promise<Row> {
  const { dir, remove } = folderOf('list');
  const file = path.join(dir, 'db.sqlite');
  let server = await startServer(file);
  const design = campus({ switches: 500, vlans: 10, outcomes: 5 });
  for (let i = 0; i < count; i++) await call(server.base, 'POST', '/api/designs', { name: `campus ${i}`, design });
  await server.kill();
  server = await startServer(file);
  const began = performance.now();
  await call(server.base, 'GET', '/api/designs');
  const took = performance.now() - began;
  const again = await median(() => call(server.base, 'GET', '/api/designs'), 5);
  const page = await median(() => fetch(`${server.base}/`).then((r) => r.text()), 5);
  await server.kill();
  remove();
  return {
    what: 'list after a restart',
    runs: `${count} designs of 500 switches`,
    result: `${took.toFixed(0)} ms, again ${again.toFixed(0)} ms; the page ${page.toFixed(0)} ms`,
    good: took < 200,
  };
}

/** How long other requests wait while one edit of thousands of parts is made. */
export async function largeEdit(): Promise<Row> {
  const { dir, remove } = folderOf('large');
  const server = await startServer(path.join(dir, 'db.sqlite'));
  const design = campus({ switches: 500, vlans: 10, outcomes: 5 });
  const { value } = await call<Head>(server.base, 'POST', '/api/designs', { name: 'large', design });
  const variant = value.variants[0]!.id;
  const edits = design.ports.map((p) => ({ type: 'set', kind: 'port', id: p.id, field: 'cost', value: 4000 }));
  let done = false;
  const began = performance.now();
  const write = call(server.base, 'POST', `/api/variants/${variant}/steps`, {
    revision: 0,
    label: 'all',
    client: 'e',
    edits,
  }).then((r) => {
    done = true;
    return r.status;
  });
  let slowest = 0;
  while (!done) {
    const start = performance.now();
    await call(server.base, 'GET', '/api/health');
    slowest = Math.max(slowest, performance.now() - start);
  }
  const status = await write;
  const took = performance.now() - began;
  await server.kill();
  remove();
  return {
    what: 'one edit of thousands of parts',
    runs: `${edits.length} parts in ${took.toFixed(0)} ms`,
    result: `${status}; slowest other answer ${slowest.toFixed(0)} ms`,
    good: status === 201 && slowest < 50,
  };
}

/** How long the server is deaf to others while pages and files of large designs are asked for. */
export async function deafness(): Promise<Row> {
  const { dir, remove } = folderOf('deaf');
  const server = await startServer(path.join(dir, 'db.sqlite'));
  const design = campus({ switches: 500, vlans: 10, outcomes: 5 });
  const heads: Head[] = [];
  for (let i = 0; i < 10; i++)
    heads.push((await call<Head>(server.base, 'POST', '/api/designs', { name: `campus ${i}`, design })).value);
  const [{ id, variants }] = heads as [Head];
  const asked = [
    '/',
    `/d/${id}/trees`,
    `/api/variants/${variants[0]!.id}`,
    `/api/variants/${variants[0]!.id}/export`,
    '/api/archive',
  ];
  const worst: string[] = [];
  let most = 0;
  for (const at of asked) {
    await fetch(server.base + at).then((r) => r.arrayBuffer());
    let done = false;
    const asking = fetch(server.base + at).then(async (r) => {
      await r.arrayBuffer();
      done = true;
    });
    let slowest = 0;
    while (!done) {
      const start = performance.now();
      await call(server.base, 'GET', '/api/health');
      slowest = Math.max(slowest, performance.now() - start);
    }
    await asking;
    most = Math.max(most, slowest);
    worst.push(`${at.replace(id, 'ID').replace(variants[0]!.id, 'VID')} ${slowest.toFixed(0)}`);
  }
  await server.kill();
  remove();
  return {
    what: 'slowest other answer, in ms',
    runs: '10 designs of 500 switches',
    result: worst.join('; '),
    good: most < 60,
  };
}
