/** The solver against the rehearsal, on many random networks of every kind: the property tests of `npm test` with more cases. */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ROOT } from './server';
import type { Row } from './row';

const TESTS = [
  'tests/whole.test.ts',
  'tests/rehearsal.test.ts',
  'tests/bundles.test.ts',
  'tests/lonely-bundles.test.ts',
  'tests/depth.test.ts',
];

/** `runs` networks of each kind, of a seed that is printed, so that what was found can be found again. */
export function engines(runs: number): Row {
  const seed = String(Date.now() % 1_000_000_000);
  const jest = path.join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js');
  const { status, stderr } = spawnSync(process.execPath, [jest, ...TESTS, '--testTimeout', '36000000'], {
    cwd: ROOT,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    env: { ...process.env, RUNS: String(runs), SEED: seed },
  });
  const found = [...stderr.matchAll(/● (.*)/g)].map((m) => m[1]!);
  if (status !== 0) process.stderr.write(`${stderr}\n`);
  const [, passed = '0'] = /(\d+) passed/.exec(stderr.slice(stderr.lastIndexOf('Tests:'))) ?? [];
  return {
    what: `solver against rehearsal, ${passed} kinds of networks, seed ${seed}`,
    runs: String(runs),
    result: status === 0 ? 'they agree' : `they differ: ${[...new Set(found)].join('; ')}`,
    good: status === 0,
  };
}
