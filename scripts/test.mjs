/** Every check, from a fresh clone: installs what is missing, formatting, lint, types, unit tests, build, browser tests. */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

const say = (text) => process.stdout.write(`\n── ${text}\n`);
const bin = (...parts) => path.join(root, 'node_modules', ...parts);

function run(what, file, args) {
  say(what);
  const started = Date.now();
  const { status } = spawnSync(process.execPath, [file, ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  });
  if (status !== 0) {
    process.stdout.write(`\n${what} failed.\n`);
    process.exit(status ?? 1);
  }
  process.stdout.write(`${what}: fine (${Math.round((Date.now() - started) / 1000)} s)\n`);
}

/** The browser that the browser tests drive: given by CHROMIUM, or Debian's, installed when we may. */
function browser() {
  const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(chromium)) return;
  if (process.getuid?.() !== 0) {
    process.stderr.write(`There is no browser at ${chromium}: install the package chromium, or set CHROMIUM to one.\n`);
    process.exit(1);
  }
  say('Installing Chromium');
  const apt = { stdio: 'inherit', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  execFileSync('apt-get', ['update', '-q'], apt);
  execFileSync('apt-get', ['install', '-y', '-q', '--no-install-recommends', 'chromium'], apt);
}

install();
browser();
say('Build');
build();
run('Formatting', bin('prettier', 'bin', 'prettier.cjs'), ['--check', '.']);
run('Lint', bin('eslint', 'bin', 'eslint.js'), ['.', '--max-warnings', '0']);
run('Types', bin('typescript', 'bin', 'tsc'), ['--noEmit']);
run('Unit tests', bin('jest', 'bin', 'jest.js'), []);
run('Browser tests', bin('@playwright', 'test', 'cli.js'), ['test']);
say('All checks passed.');
