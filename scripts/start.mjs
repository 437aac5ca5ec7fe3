/** From a fresh clone to a running server: installs, builds, migrates, seeds, serves. */
import { execFileSync, spawn } from 'node:child_process';
import path from 'node:path';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

const host = process.env.HOST ?? '127.0.0.1';
const port = process.env.PORT ?? '4180';
if (!/^\d+$/.test(port) || Number(port) < 1 || Number(port) > 65535) {
  process.stderr.write(`PORT '${port}' is not legal: a number from 1 to 65535.\n`);
  process.exit(1);
}

install();
build();
const bin = (...parts) => path.join(root, 'node_modules', ...parts);
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' };
execFileSync(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), path.join('scripts', 'prepare.ts')], {
  cwd: root,
  stdio: ['ignore', 'inherit', 'inherit'],
  env,
});
const server = spawn(process.execPath, [bin('next', 'dist', 'bin', 'next'), 'start', '-H', host, '-p', port], {
  cwd: root,
  stdio: ['ignore', 'pipe', 'inherit'],
  env,
});
let told = false;
server.stdout.on('data', (chunk) => {
  if (told || !/Ready/.test(String(chunk))) return;
  told = true;
  process.stdout.write(`Knot Path is at http://${host.includes(':') ? `[${host}]` : host}:${port}\n`);
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => (process.exitCode = code ?? 0));
