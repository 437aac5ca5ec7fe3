/** A sweep over workers of a queue: as root or not, with the queue server of the system, and workers as processes of their own. */
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Queue } from 'bullmq';
import { campus } from '@/demo/campus';
import { compilePrograms } from './support/programs';

const SERVER = '/usr/bin/redis-server';
const there = existsSync(SERVER) ? test : test.skip;
const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-queue-'));
const design = path.join(folder, 'campus.json');
const children = new Set<ChildProcess>();
let url = '';

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });

function started(command: string, args: readonly string[], env: Readonly<Record<string, string>> = {}): ChildProcess {
  const child = spawn(command, args, { env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  children.add(child);
  return child;
}
const program = (args: readonly string[], env: Readonly<Record<string, string>> = {}) =>
  started(process.execPath, [path.resolve('.knot-path', 'cli.mjs'), ...args], {
    KNOT_PATH_ROOT: process.cwd(),
    ...env,
  });

/** Until a program has said something. */
const says = (child: ChildProcess, words: string) =>
  new Promise<void>((resolve, reject) => {
    let said = '';
    for (const stream of [child.stdout!, child.stderr!])
      stream.on('data', (part: Buffer) => (said += part.toString()).includes(words) && resolve());
    child.once('exit', () => reject(new Error(`It ended without '${words}': ${said}`)));
  });

/** What a program prints until it ends. */
const ended = (child: ChildProcess) =>
  new Promise<{ status: number | null; out: string; err: string }>((resolve) => {
    const [out, err]: [Buffer[], Buffer[]] = [[], []];
    child.stdout!.on('data', (part: Buffer) => out.push(part));
    child.stderr!.on('data', (part: Buffer) => err.push(part));
    child.once('close', (status) =>
      resolve({ status, out: Buffer.concat(out).toString(), err: Buffer.concat(err).toString() }),
    );
  });

const worker = async () => {
  const child = program(['worker', '--threads', '1'], { KNOT_PATH_QUEUE: url });
  await says(child, 'Working for the queue');
  return child;
};
const REVIEW = ['review', design, '--pairs', '--json', '--measure', 'none'];
const alone = () => ended(program(REVIEW));

beforeAll(async () => {
  compilePrograms();
  writeFileSync(design, JSON.stringify(campus({ switches: 40, vlans: 30, outcomes: 30 })));
  if (!existsSync(SERVER)) return;
  const port = await freePort();
  url = `redis://127.0.0.1:${port}`;
  const args = ['--port', String(port), '--bind', '127.0.0.1', '--save', '', '--appendonly', 'no', '--dir', folder];
  await says(started(SERVER, args), 'Ready to accept connections');
}, 120_000);
afterAll(() => children.forEach((child) => child.kill('SIGKILL')));

there(
  'a worker is killed in the middle: the other ends the sweep, and nothing is lost',
  async () => {
    const expected = await alone();
    const [doomed, other] = [await worker(), await worker()];
    const queue = new Queue('knot-path-review', { connection: { url } });
    const review = ended(program(REVIEW, { KNOT_PATH_QUEUE: url }));
    // In the middle: some chunks are done, and both workers are at others.
    for (;;) {
      const { completed = 0, active = 0, waiting = 0 } = await queue.getJobCounts('completed', 'active', 'waiting');
      if (completed >= 2 && active >= 3 && waiting >= 1) break;
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    doomed.kill('SIGKILL');
    const { status, out, err } = await review;
    expect(err).toBe('');
    expect(status).toBe(expected.status);
    expect(out === expected.out).toBe(true);
    expect((JSON.parse(out) as { failures: unknown[] }).failures.length).toBeGreaterThan(1000);
    await queue.close();
    other.kill('SIGTERM');
    expect((await ended(other)).status).toBe(0);
  },
  120_000,
);

there(
  'without a worker it says so, and goes on when one comes',
  async () => {
    const child = program(REVIEW, { KNOT_PATH_QUEUE: url });
    const review = ended(child);
    await says(child, 'No worker is there for the queue');
    await worker();
    expect((await review).status).toBeLessThan(2);
  },
  120_000,
);

test('a queue that is not there, and a name that is none, are said', async () => {
  const nowhere = await ended(program(REVIEW, { KNOT_PATH_QUEUE: `redis://127.0.0.1:${await freePort()}` }));
  expect([nowhere.status, nowhere.out]).toEqual([2, '']);
  expect(nowhere.err).toContain('cannot be reached');
  const odd = await ended(program(['worker'], { KNOT_PATH_QUEUE: 'the other room' }));
  expect([odd.status, odd.err]).toEqual([
    2,
    "KNOT_PATH_QUEUE is 'the other room', which is no address of a queue: name one such as redis://10.0.0.5:6379.\n",
  ]);
  const none = await ended(program(['worker']));
  expect([none.status, none.err]).toEqual([2, expect.stringContaining('No queue is named')]);
}, 60_000);
