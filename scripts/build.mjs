/** Builds the application when its sources have changed since the last build: the pages, the server, the command line. */
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { digest, isStamped, root, stamp } from './install.mjs';

/** Every file that a build depends on. */
function sources() {
  const fixed = ['package.json', 'package-lock.json', 'next.config.ts', 'tsconfig.json', 'scripts/build.mjs'];
  const found = readdirSync(path.join(root, 'src'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !/\.test\.tsx?$/.test(entry.name))
    .map((entry) => path.relative(root, path.join(entry.parentPath, entry.name)));
  return [...fixed, ...found.sort()];
}

const state = () => digest(...sources().flatMap((file) => [file, readFileSync(path.join(root, file))]));
const seen = ({ mtimeMs, size }) => `${mtimeMs} ${size}`;
const out = path.join(root, '.knot-path');
const made = ['main', 'thread', 'sweep', 'cli'].map((name) => path.join(out, `${name}.mjs`));

/** Compiles programs, each into one file in `.knot-path`; packages stay outside. Gives the files by name. */
export async function bundle(entries) {
  const { build: esbuild } = await import('esbuild');
  await esbuild({
    entryPoints: Object.fromEntries(Object.entries(entries).map(([name, parts]) => [name, path.join(root, ...parts)])),
    outdir: out,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    // What programs share, and what a command loads when it is called, stands in files of its own.
    splitting: true,
    chunkNames: 'part-[hash]',
    target: 'node20',
    packages: 'external',
    alias: { '@': path.join(root, 'src') },
    logLevel: 'error',
  });
  return Object.fromEntries(Object.keys(entries).map((name) => [name, path.join(out, `${name}.mjs`)]));
}

/** Compiles what runs outside the pages. Takes less than a second. */
export async function buildPrograms() {
  const there = made.every((file) => existsSync(file));
  // Reading dates and sizes is enough to see that nothing changed: the command line starts with it.
  const glance = digest(...sources().flatMap((file) => [file, seen(statSync(path.join(root, file)))]));
  if (there && isStamped('programs-seen', glance)) return;
  const now = state();
  if (there && isStamped('programs', now)) return stamp('programs-seen', glance);
  // Parts of earlier builds.
  for (const file of existsSync(out) ? readdirSync(out) : [])
    if (file.startsWith('part-')) rmSync(path.join(out, file), { force: true });
  await bundle({
    main: ['src', 'server', 'main.ts'],
    thread: ['src', 'server', 'thread.ts'],
    sweep: ['src', 'server', 'sweep', 'thread.ts'],
    cli: ['src', 'cli', 'main.ts'],
  });
  stamp('programs', now);
  stamp('programs-seen', glance);
}

export async function build() {
  await buildPrograms();
  const now = state();
  if (isStamped('built', now) && existsSync(path.join(root, '.next', 'BUILD_ID'))) return;
  process.stderr.write('Building (about a minute)…\n');
  const next = path.join(root, 'node_modules', 'next', 'dist', 'bin', 'next');
  execFileSync(process.execPath, [next, 'build'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  stamp('built', now);
}

if (process.argv[1] === import.meta.filename) await build();
