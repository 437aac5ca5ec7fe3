/** The command line: installs what is missing, then hands over. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { install, root } from './install.mjs';

install();
const cli = path.join(root, 'src', 'cli', 'main.ts');
const tsx = path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs');
const { status, signal } = spawnSync(process.execPath, [tsx, cli, ...process.argv.slice(2)], { stdio: 'inherit' });
process.exitCode = signal ? 1 : (status ?? 1);
