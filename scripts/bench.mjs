/** Installs and builds what is missing, then runs the benchmarks. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { build as esbuild } from 'esbuild';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

install();
await build();
// In one file, as the page's workers are: modules one by one look every imported name up again at each call.
const outfile = path.join(root, '.next', 'bench.cjs');
await esbuild({
  entryPoints: [path.join(root, 'bench', 'main.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'cjs',
  packages: 'external',
  alias: { '@': path.join(root, 'src') },
  logLevel: 'error',
});
const { status } = spawnSync(process.execPath, [outfile, ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
