import { defineConfig } from '@playwright/test';
import { BROWSER, BROWSER_ARGS } from './scripts/browser-args.mjs';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** One fresh database a run; the variable keeps it the same in every process of the run. */
process.env.E2E_DIR ??= mkdtempSync(path.join(tmpdir(), 'knot-path-e2e-'));
const port = Number(process.env.E2E_PORT ?? 4187);

export default defineConfig({
  testDir: 'e2e',
  // How long a machine that others load may take, not how long anything should.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  // Every test works on designs of its own.
  workers: 2,
  fullyParallel: true,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    // The tour is seen by its own test.
    storageState: {
      cookies: [],
      origins: [{ origin: `http://127.0.0.1:${port}`, localStorage: [{ name: 'knot-path:tour', value: 'off' }] }],
    },
    viewport: { width: 1280, height: 800 },
    // What still grows on a slow machine is pressed where it was, and let go where something else is by then.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: BROWSER,
      args: BROWSER_ARGS,
    },
    // A trace takes a snapshot of the whole drawing at every step: PWDEBUG_TRACE=on when one is wanted.
    trace: process.env.PWDEBUG_TRACE === 'on' ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
  },
  webServer: {
    command: 'node scripts/start.mjs',
    url: `http://127.0.0.1:${port}/api/designs`,
    env: { PORT: String(port), KNOT_PATH_LOG: 'warn', KNOT_PATH_DB: path.join(process.env.E2E_DIR, 'e2e.sqlite') },
    timeout: 300_000,
  },
});
