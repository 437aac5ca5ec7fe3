/** From a fresh clone to a running server: installs, builds, then serves in this very process. */
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

install();
await build();
process.chdir(root);
process.env.NEXT_TELEMETRY_DISABLED = '1';
process.env.NODE_ENV = 'production';
process.env.KNOT_PATH_ROOT = root;
// A server that waits most of the time should not hold on to memory: garbage is collected sooner, at no cost that can be measured.
for (const flag of ['--optimize-for-size', '--max-semi-space-size=2', '--min-semi-space-size=1'])
  setFlagsFromString(flag);
await import(pathToFileURL(path.join(root, '.knot-path', 'main.mjs')).href);
