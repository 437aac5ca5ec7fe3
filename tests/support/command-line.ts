/** Commands in tests: files that they read, and what they print. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

export const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-cli-'));

/** A file that a command reads; its path. */
export function file(name: string, text: string): string {
  const full = path.join(folder, name);
  writeFileSync(full, text);
  return full;
}

/** What a command has printed in the test that runs. */
export const printed = { out: '', err: '' };

beforeEach(() => {
  printed.out = printed.err = '';
  jest.spyOn(process.stdout, 'write').mockImplementation((chunk) => ((printed.out += String(chunk)), true));
  jest.spyOn(process.stderr, 'write').mockImplementation((chunk) => ((printed.err += String(chunk)), true));
});
afterEach(() => jest.restoreAllMocks());
