/** Long trials of reliability, on the loopback address only. `--only NAME` runs one, `--count N` sets how often. */
import { attempts, before, fullDisk, locked, streams } from './trouble';
import { engines } from './engines';
import { kills } from './kills';
import { ROOT } from './server';
import { deafness, largeEdit, longHistory, manyDesigns } from './size';
import { dyingServer } from './windows';
import type { Row } from './row';

const value = (name: string): string | undefined => {
  const at = process.argv.indexOf(name);
  return at < 0 ? undefined : process.argv[at + 1];
};
const count = (usual: number) => Number(value('--count') ?? usual);

const TRIALS: Readonly<Record<string, () => Row | Promise<Row | Row[]>>> = {
  before: () => before(ROOT),
  disk: fullDisk,
  locked,
  streams: () => streams(count(50)),
  attempts: () => attempts(count(200)),
  list: () => manyDesigns(count(120)),
  'large-edit': largeEdit,
  deaf: deafness,
  history: () => longHistory(count(20_000)),
  windows: () => dyingServer(count(100)),
  kills: () => kills(count(1000)),
  engines: () => engines(count(2000)),
};

async function main(): Promise<void> {
  const only = value('--only')?.split(',');
  const rows: Row[] = [];
  for (const [name, trial] of Object.entries(TRIALS)) {
    if (only && !only.includes(name)) continue;
    process.stderr.write(`${name}…\n`);
    rows.push(...[await trial()].flat());
    const last = rows.at(-1)!;
    process.stderr.write(`  ${last.result}${last.good ? '' : '  NOT GOOD'}\n`);
  }
  process.stdout.write('| what | runs | result | |\n|---|---|---|---|\n');
  for (const r of rows)
    process.stdout.write(`| ${r.what} | ${r.runs} | ${r.result} | ${r.good ? 'good' : '**not good**'} |\n`);
  if (rows.some((r) => !r.good)) process.exitCode = 1;
}

void main();
