/** Installs and builds what is missing, then runs the long trials of reliability. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { build as esbuild } from 'esbuild';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

install();
await build();
const outfile = path.join(root, '.knot-path', 'endure.mjs');
await esbuild({
  entryPoints: [path.join(root, 'endure', 'main.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  alias: { '@': path.join(root, 'src') },
  logLevel: 'error',
});
const { status } = spawnSync(process.execPath, [outfile, ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, KNOT_PATH_ROOT: root },
});
process.exitCode = status ?? 1;
