/** The command line as a process of its own: what takes long, or runs on, stays out of the one that answers requests. */
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { z } from 'zod';
import { faultsOf, readDesign } from '../core/design';
import { projectRoot } from './database';
import { Problem, refused } from './problem';

/** The body of a request, checked. */
export function parsedBody<T>(body: string, schema: z.ZodType<T>): T {
  let value: unknown;
  try {
    value = JSON.parse(body);
  } catch {
    throw new Problem(400, 'broken-json', 'The request is not complete JSON.');
  }
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [fault] = faultsOf(read.error);
  throw new Problem(400, 'bad-request', `${fault!.path.join('.') || 'The request'}: ${fault!.sentence}`);
}

/** Designs as files in a folder of their own, under these names; `remove` takes all of it away. */
export async function asFiles(designs: Readonly<Record<string, unknown>>) {
  const read = Object.entries(designs).map(([name, value]) => {
    const design = readDesign(value);
    if (!design.ok) throw refused(design.faults);
    return [name, design.design] as const;
  });
  const folder = await mkdtemp(path.join(tmpdir(), 'knot-path-'));
  const files: Record<string, string> = {};
  for (const [name, design] of read) {
    files[name] = path.join(folder, `${name}.json`);
    await writeFile(files[name], JSON.stringify(design));
  }
  return { files, remove: () => void rm(folder, { recursive: true, force: true }) };
}

const children = new Set<ChildProcess>();
process.once('exit', () => children.forEach((child) => child.kill('SIGTERM')));

/** Starts a command; it ends with this process at the latest. */
export function startProgram(args: readonly string[], env: Readonly<NodeJS.ProcessEnv> = process.env): ChildProcess {
  const program = path.join(projectRoot(), '.knot-path', 'cli.mjs');
  const child = spawn(process.execPath, [program, ...args], { env, stdio: ['pipe', 'pipe', 'pipe'] });
  children.add(child);
  child.once('exit', () => children.delete(child));
  return child;
}
