#!/usr/bin/env node
/** The command line: installs and compiles what is missing, then runs in this very process. */
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { buildPrograms } from './build.mjs';
import { install, root } from './install.mjs';

install();
await buildPrograms();
process.env.KNOT_PATH_ROOT = root;
await import(pathToFileURL(path.join(root, '.knot-path', 'cli.mjs')).href);
