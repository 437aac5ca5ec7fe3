/** Installs and builds what is missing, then runs the long trials of reliability. */
import { spawnSync } from 'node:child_process';
import { build, bundle } from './build.mjs';
import { install, root } from './install.mjs';

install();
await build();
const { endure } = await bundle({ endure: ['endure', 'main.ts'] });
const { status } = spawnSync(process.execPath, [endure, ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, KNOT_PATH_ROOT: root },
});
process.exitCode = status ?? 1;
