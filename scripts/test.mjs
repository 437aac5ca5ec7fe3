/** Every check, from a fresh clone: installs what is missing, formatting, lint, types, unit tests, build, browser tests. */
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { install, root } from './install.mjs';

const bin = (...parts) => path.join(root, 'node_modules', ...parts);
const node = (what, ...args) => ({ what, command: process.execPath, args });
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1', DEBIAN_FRONTEND: 'noninteractive' };

/** Runs one check; what it prints comes out whole, so that two that run side by side do not mix. */
function run({ what, command, args }) {
  const started = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, env });
    const output = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => output.push(part));
    child.on('error', (error) => output.push(Buffer.from(`${error.message}\n`)));
    child.on('close', (status) => {
      process.stdout.write(`\n── ${what}\n${Buffer.concat(output)}`);
      if (status !== 0) {
        process.stdout.write(`\n${what} failed.\n`);
        process.exit(status || 1);
      }
      process.stdout.write(`${what}: fine (${Math.round((Date.now() - started) / 1000)} s)\n`);
      resolve();
    });
  });
}

async function inTurn(...steps) {
  for (const step of steps) await run(step);
}

/**
 * Debian packages by what they bring. The dissector reads the frames that the tests of the rehearsal write, the reader the printed
 * report; network tools build labs; a queue spreads sweeps; an independent client asks our agents, and the definitions of what they answer are the package's.
 */
const PACKAGES = {
  chromium: process.env.CHROMIUM ?? '/usr/bin/chromium',
  tshark: '/usr/bin/tshark',
  'poppler-utils': '/usr/bin/pdftotext',
  iproute2: '/usr/sbin/ip',
  'iputils-ping': '/usr/bin/ping',
  snmp: '/usr/bin/snmpbulkwalk',
  'redis-server': '/usr/bin/redis-server',
  'python3-pysnmp4-mibs': '/usr/lib/python3/dist-packages/pysnmp_mibs',
};

/** Without the browser no test of the interface runs; of the other tools each is missed by tests that say so. */
async function tools() {
  const missing = Object.keys(PACKAGES).filter((name) => !existsSync(PACKAGES[name]));
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0) {
    if (!missing.includes('chromium')) return;
    process.stderr.write(
      `There is no browser at ${PACKAGES.chromium}: install the package chromium, or set CHROMIUM to one.\n`,
    );
    process.exit(1);
  }
  const args = ['install', '-y', '-q', '--no-install-recommends', ...missing];
  await inTurn(
    { what: 'Package lists', command: 'apt-get', args: ['update', '-q'] },
    { what: `Installing ${missing.join(', ')}`, command: 'apt-get', args },
  );
}

// Installing the browser waits for the network and building for the processor: they share the time.
install();
const installed = tools();
await Promise.all([
  inTurn(node('Build', path.join(root, 'scripts', 'build.mjs')))
    .then(() => installed)
    .then(() => inTurn(node('Unit tests', bin('jest', 'bin', 'jest.js')))),
  installed.then(() =>
    inTurn(
      node('Formatting', bin('prettier', 'bin', 'prettier.cjs'), '--check', '.'),
      node('Lint', bin('eslint', 'bin', 'eslint.js'), '.', '--max-warnings', '0'),
      node('Types', bin('typescript', 'bin', 'tsc'), '--noEmit'),
      node(
        'Which way imports point',
        bin('dependency-cruiser', 'bin', 'dependency-cruise.mjs'),
        ...['--config', '.dependency-cruiser.mjs', 'src', 'bench', 'endure'],
      ),
      node('Exports that no one uses', bin('knip', 'bin', 'knip.js'), '--no-progress'),
    ),
  ),
]);
await inTurn(node('Browser tests', bin('@playwright', 'test', 'cli.js'), 'test'));
process.stdout.write('\nAll checks passed.\n');
