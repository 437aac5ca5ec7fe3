/** A server of its own for each trial, on the loopback address, with a database that goes with the trial. */
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

export const ROOT = process.env.KNOT_PATH_ROOT ?? process.cwd();
const START_MS = 30_000;

/** A port that no program has now. */
function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

export const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

export function folderOf(name: string): { dir: string; remove: () => void } {
  const dir = mkdtempSync(path.join(tmpdir(), `knot-path-endure-${name}-`));
  return { dir, remove: () => rmSync(dir, { recursive: true, force: true }) };
}

export interface Server {
  readonly base: string;
  readonly port: number;
  readonly pid: number;
  readonly child: ChildProcess;
  /** Ends it at once, as a power cut would. */
  readonly kill: () => Promise<void>;
}

/** Starts a server on a free port, or again on one that windows know. */
export async function startServer(file: string, env: Record<string, string> = {}, again?: number): Promise<Server> {
  const port = again ?? (await freePort());
  const child = spawn(process.execPath, [path.join(ROOT, 'scripts', 'start.mjs')], {
    cwd: ROOT,
    stdio: 'ignore',
    env: {
      ...process.env,
      KNOT_PATH_ROOT: ROOT,
      KNOT_PATH_DB: file,
      KNOT_PATH_LOG: 'silent',
      NODE_ENV: 'production',
      PORT: String(port),
      HOST: '127.0.0.1',
      ...env,
    },
  });
  const base = `http://127.0.0.1:${port}`;
  const until = performance.now() + START_MS;
  for (;;) {
    const status = await fetch(`${base}/api/health`).then(
      (r) => r.status,
      () => 0,
    );
    if (status === 200) break;
    if (child.exitCode !== null || performance.now() > until) throw new Error('the server does not start');
    await pause(20);
  }
  const ended = new Promise<void>((resolve) => child.on('exit', () => resolve()));
  return {
    base,
    port,
    pid: child.pid!,
    child,
    kill: async () => {
      child.kill('SIGKILL');
      await ended;
    },
  };
}

export interface Reply<T> {
  readonly status: number;
  readonly value: T;
}

export async function call<T>(base: string, method: string, at: string, body?: unknown): Promise<Reply<T>> {
  const response = await fetch(base + at, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
  });
  return { status: response.status, value: (await response.json()) as T };
}

export interface Head {
  readonly id: string;
  readonly variants: readonly { readonly id: string; readonly revision: number }[];
}

/** One edit that can be told from every other one: the priority of a switch, by number. */
export const edit = (n: number, id = 'gate') => [
  { type: 'set', kind: 'switch', id, field: 'priority', value: (n % 15) * 4096 },
  { type: 'set', kind: 'switch', id, field: 'x', value: n % 90_000 },
];
