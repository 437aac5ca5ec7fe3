/** Runs the property tests that take input from outside with many more cases: `npm run fuzz`, or `npm run fuzz -- 5` for five times as many as `npm test` tries. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { install, root } from './install.mjs';

install();
// Five readers of 20 000 inputs each: ten times as many make a million.
const times = process.argv[2] ?? '10';
if (!/^\d+(\.\d+)?$/.test(times)) {
  process.stderr.write(`'${times}' is no number: how many times as many cases as npm test tries.\n`);
  process.exit(1);
}
const jest = path.join(root, 'node_modules', 'jest', 'bin', 'jest.js');
const { status } = spawnSync(
  process.execPath,
  [jest, 'tests/readers', 'tests/fuzz', 'src/ui/session', '--testTimeout', '7200000'],
  { cwd: root, stdio: 'inherit', env: { ...process.env, FUZZ: times } },
);
process.exitCode = status ?? 1;
