/** Installs and builds what is missing, then runs the benchmarks. */
import { spawnSync } from 'node:child_process';
import { build, bundle } from './build.mjs';
import { install, root } from './install.mjs';

install();
await build();
// In one file, as the page's workers are: modules one by one look every imported name up again at each call.
const { bench } = await bundle({ bench: ['bench', 'main.ts'] });
const { status } = spawnSync(process.execPath, [bench, ...process.argv.slice(2)], { cwd: root, stdio: 'inherit' });
process.exitCode = status ?? 1;
