/** Installs and builds what is missing, then runs the benchmarks. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

install();
build();
const tsx = path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs');
const { status } = spawnSync(process.execPath, [tsx, path.join('bench', 'main.ts'), ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exitCode = status ?? 1;
