/** From a fresh clone to a running server: installs, builds, then serves in this very process. */
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from './build.mjs';
import { install, root } from './install.mjs';

install();
await build();
process.chdir(root);
process.env.NEXT_TELEMETRY_DISABLED = '1';
process.env.NODE_ENV = 'production';
process.env.KNOT_PATH_ROOT = root;
await import(pathToFileURL(path.join(root, '.knot-path', 'main.mjs')).href);
