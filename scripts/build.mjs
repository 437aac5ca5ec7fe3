/** Builds the application when its sources have changed since the last build. */
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { digest, isStamped, root, stamp } from './install.mjs';

/** Every file that a build depends on. */
function sources() {
  const fixed = ['package-lock.json', 'next.config.ts', 'tsconfig.json'];
  const found = readdirSync(path.join(root, 'src'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !/\.test\.tsx?$/.test(entry.name))
    .map((entry) => path.relative(root, path.join(entry.parentPath, entry.name)));
  return [...fixed, ...found.sort()];
}

export function build() {
  const state = digest(...sources().flatMap((file) => [file, readFileSync(path.join(root, file))]));
  if (isStamped('built', state) && existsSync(path.join(root, '.next', 'BUILD_ID'))) return;
  process.stderr.write('Building (about a minute)…\n');
  const next = path.join(root, 'node_modules', 'next', 'dist', 'bin', 'next');
  execFileSync(process.execPath, [next, 'build'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  stamp('built', state);
}

if (process.argv[1] === import.meta.filename) build();
