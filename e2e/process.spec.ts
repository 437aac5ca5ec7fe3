/** The server as a process: how it starts, what it says when it cannot, how it ends. */
import { expect } from '@playwright/test';
import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { test } from './support';

const folder = () => {
  const dir = path.join(process.env.E2E_DIR!, `process-${test.info().testId}`);
  mkdirSync(dir, { recursive: true });
  return dir;
};
/** A port that no program has now. */
const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

interface Started {
  child: ChildProcess;
  base: string;
  output: () => string;
  ended: Promise<number | null>;
}

function run(command: string, args: string[], env: Record<string, string>): Started {
  const child = spawn(command, args, {
    env: { ...process.env, KNOT_PATH_LOG: 'silent', NODE_ENV: 'production', ...env },
    detached: true,
  });
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => (text += String(part)));
  const ended = new Promise<number | null>((resolve) => child.on('exit', resolve));
  return { child, base: `http://127.0.0.1:${env.PORT}`, output: () => text, ended };
}

const answers = (base: string) =>
  fetch(`${base}/api/health`).then(
    (r) => r.status,
    () => 0,
  );

async function server(env: Record<string, string> = {}, command = process.execPath, args = ['scripts/start.mjs']) {
  const port = String(await freePort());
  const started = run(command, args, { PORT: port, KNOT_PATH_DB: path.join(folder(), 'db.sqlite'), ...env });
  await expect.poll(() => answers(started.base), { timeout: 60_000 }).toBe(200);
  return started;
}

/** Opens streams of events that stay open. */
async function openStreams(base: string, count: number): Promise<void> {
  for (let i = 0; i < count; i++) {
    const response = await fetch(`${base}/api/events`);
    void response.text().catch(() => undefined);
  }
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  for (const [to, command, args] of [
    ['npm start', 'npm', ['start']],
    ['the script', process.execPath, ['scripts/start.mjs']],
    ['the group', 'npm', ['start']],
  ] as const)
    test(`${signal} to ${to} ends all of it within two seconds, with streams open`, async () => {
      const started = await server({}, command, [...args]);
      await openStreams(started.base, 5);
      const began = Date.now();
      process.kill(to === 'the group' ? -started.child.pid! : started.child.pid!, signal);
      await expect.poll(() => answers(started.base), { intervals: [50], timeout: 5000 }).toBe(0);
      // Starting a process that asks takes time of its own on a loaded machine.
      expect(Date.now() - began).toBeLessThan(4000);
      await started.ended;
    });

test('a second signal ends it at once', async () => {
  const { child, ended, base } = await server();
  await openStreams(base, 3);
  process.kill(child.pid!, 'SIGTERM');
  process.kill(child.pid!, 'SIGINT');
  expect(await ended).toBe(1);
});

async function refusal(env: Record<string, string>): Promise<string> {
  const started = run(process.execPath, ['scripts/start.mjs'], {
    PORT: String(await freePort()),
    KNOT_PATH_DB: path.join(folder(), 'db.sqlite'),
    ...env,
  });
  expect(await started.ended).toBe(1);
  const lines = started.output().trim().split('\n');
  return lines.find((line) => line.startsWith('Knot Path does not start')) ?? started.output();
}

test('a start that fails says why and what to do, in one sentence', async () => {
  const dir = folder();
  writeFileSync(path.join(dir, 'text.sqlite'), 'not a database '.repeat(1000));
  expect(await refusal({ KNOT_PATH_DB: path.join(dir, 'text.sqlite') })).toContain(
    "is damaged or is no Knot Path database: restore a backup with 'npm run -s knot-path -- restore BACKUP'",
  );
  expect(await refusal({ KNOT_PATH_DB: dir })).toContain('is a folder: set KNOT_PATH_DB to a file');
  expect(await refusal({ PORT: '70000' })).toContain("PORT '70000' is not legal: a number from 1 to 65535.");
  expect(await refusal({ HOST: '0.0.0.0' })).toContain(
    'set KNOT_PATH_PASSWORD, or accept the risk with KNOT_PATH_OPEN=yes.',
  );
});

test('a port that is taken is named with who has it, and a file that is shared is warned of', async () => {
  const first = await server();
  expect(await refusal({ PORT: new URL(first.base).port })).toMatch(
    /port \d+ is taken by a Knot Path server, version \d+\.\d+\.\d+, at http/,
  );
  const file = path.join(folder(), 'db.sqlite');
  const second = run(process.execPath, ['scripts/start.mjs'], { PORT: String(await freePort()), KNOT_PATH_DB: file });
  await expect.poll(() => answers(second.base), { timeout: 60_000 }).toBe(200);
  expect(second.output()).toContain('Warning: the server at');
  // What one server stores, the other one tells its windows.
  const events = await fetch(`${second.base}/api/events`);
  const reader = events.body!.getReader();
  const { designs } = await (await fetch(`${first.base}/api/designs`)).json();
  const variant = designs[0].variants[0].id as string;
  const edits = [{ type: 'set', kind: 'switch', id: 'gate', field: 'priority', value: 4096 }];
  await fetch(`${first.base}/api/variants/${variant}/steps`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ revision: 0, label: 'x', client: 'c', edits }),
  });
  let text = '';
  while (!text.includes('"kind":"step"')) text += new TextDecoder().decode((await reader.read()).value);
  expect(text).toContain(variant);
  for (const { child } of [first, second]) process.kill(child.pid!, 'SIGTERM');
});

test('a backup is restored under a running server, and its windows follow', async ({ page }) => {
  const started = await server();
  const file = path.join(folder(), 'db.sqlite');
  const cli = (...args: string[]) =>
    spawnSync(process.execPath, ['scripts/knot-path.mjs', ...args], {
      env: { ...process.env, KNOT_PATH_DB: file },
      encoding: 'utf8',
    });
  const copy = path.join(folder(), 'copy.sqlite');
  expect(cli('backup', copy)).toMatchObject({ status: 0, stderr: '' });
  const { designs } = await (await fetch(`${started.base}/api/designs`)).json();
  const [{ id, variants }] = designs;
  const edits = [{ type: 'set', kind: 'switch', id: 'gate', field: 'vlanPriority.199', value: 8192 }];
  await fetch(`${started.base}/api/variants/${variants[0].id}/steps`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ revision: 0, label: 'x', client: 'c', edits }),
  });
  await page.goto(`${started.base}/d/${id}/trees?variant=${variants[0].id}&tree=vlan-199&sel=switch~gate`);
  const priority = page.getByRole('combobox', { name: 'Bridge priority' });
  await expect(priority).toContainText('8192');
  const restored = cli('restore', copy);
  expect(restored).toMatchObject({ status: 0, stderr: '' });
  expect(restored.stdout).toMatch(/What was there before is kept as .*before-restore/);
  await expect(priority).toContainText('32768');
  const refused = cli('restore', 'README.md');
  expect([refused.status, refused.stderr]).toEqual([
    1,
    expect.stringContaining('README.md cannot be restored: it is damaged or not a Knot Path database'),
  ]);
  process.kill(started.child.pid!, 'SIGTERM');
});

test('with a password: nothing without a session, limited attempts, sign-in and sign-out', async ({ page }) => {
  const started = await server({ HOST: '0.0.0.0', KNOT_PATH_PASSWORD: 'tide table', KNOT_PATH_HOSTS: 'localhost' });
  const { base } = started;
  expect((await fetch(`${base}/api/designs`)).status).toBe(401);
  expect((await fetch(`${base}/api/events`)).status).toBe(401);
  expect(Object.keys(await (await fetch(`${base}/api/health`)).json())).toEqual(['name', 'status', 'version']);
  await page.goto(`${base}/`);
  await expect(page).toHaveURL(/\/sign-in\?to=%2F$/);
  await page.getByLabel('Password').fill('high water');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('The password is wrong')).toBeVisible();
  await page.getByLabel('Password').fill('tide table');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Designs' })).toBeVisible();
  const [cookie] = await page.context().cookies();
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict' });
  await page.getByRole('article', { name: 'Brackwater Ferries' }).getByRole('link').last().click();
  await expect(page.locator('svg.chart')).toBeVisible();
  await page.goto(`${base}/`);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  const attempt = () =>
    fetch(`${base}/api/sign-in`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ password: 'guess' }),
    });
  const statuses: number[] = [];
  for (let i = 0; i < 10; i++) statuses.push((await attempt()).status);
  expect(statuses.slice(0, 8)).toEqual(Array(8).fill(403));
  expect(statuses.slice(8)).toEqual([429, 429]);
  process.kill(started.child.pid!, 'SIGTERM');
});

test('a full disk and a lost file are answered with a sentence', async () => {
  const started = await server();
  const health = await (await fetch(`${started.base}/api/health`)).json();
  expect(health).toMatchObject({ name: 'knot-path', status: expect.any(String), schema: expect.any(Number) });
  expect(health.version).toBe(JSON.parse(readFileSync('package.json', 'utf8')).version);
  process.kill(started.child.pid!, 'SIGTERM');
});
