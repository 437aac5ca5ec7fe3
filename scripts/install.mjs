/** Installs the packages of the lock file when they are missing or the lock file has changed. Quiet when there is nothing to do. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

export const root = path.resolve(import.meta.dirname, '..');
const stamps = path.join(root, 'node_modules', '.knot-path');

export const digest = (...parts) => parts.reduce((hash, part) => hash.update(part), createHash('sha256')).digest('hex');

/** Whether the work stamped with this name was last done for this state. */
export function isStamped(name, state) {
  const file = path.join(stamps, name);
  return existsSync(file) && readFileSync(file, 'utf8') === state;
}

export function stamp(name, state) {
  mkdirSync(stamps, { recursive: true });
  writeFileSync(path.join(stamps, name), state);
}

/**
 * Installs what the lock file says. Not `npm ci`: it insists on entries for the optional packages of every other
 * platform, which a registry need not have. Output goes to standard error, so that a command's own output stays clean.
 */
export function install() {
  const state = digest(readFileSync(path.join(root, 'package-lock.json')), process.version);
  if (isStamped('installed', state)) return;
  process.stderr.write('Installing packages (a few minutes the first time)…\n');
  const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm';
  execFileSync(npm, ['install', '--no-save', '--no-audit', '--no-fund', '--include=dev'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
  });
  stamp('installed', state);
}
