/** Prints the table of figures; `--json` for programs, `--core` to leave the browser out, `--scale` for the cabling stage at full size alone, `--charts` for the charts of the trees alone, `--rehearsal` for the rehearsals alone, `--review` for the review alone, `--plans` for the change plans alone, `--observe` for reading a network alone. */
import { cpus } from 'node:os';
import { browserRows } from './browser';
import { coreRows } from './core';
import type { Row } from './core';
import { benchObserve } from './observe';
import { planRows } from './plan';
import { rehearsalRows } from './rehearsal';
import { reviewRows } from './review';

const ms = (n: number) => n.toFixed(n < 10 ? 2 : 1);

function table(rows: readonly Row[]): string {
  const lines = rows.map(
    (r) => `| ${r.what} | ${r.size} | ${ms(r.medianMs)} | ${ms(r.worstMs)} | ${r.runs} | ${r.aim || '–'} |`,
  );
  return ['| what | size | median ms | worst ms | runs | aim |', '|---|---|---:|---:|---:|---|', ...lines].join('\n');
}

async function main(): Promise<void> {
  if (process.argv.includes('--rehearsal')) return void process.stdout.write(`${table(rehearsalRows())}\n`);
  if (process.argv.includes('--review')) return void process.stdout.write(`${table(await reviewRows())}\n`);
  if (process.argv.includes('--plans')) return void process.stdout.write(`${table(planRows())}\n`);
  if (process.argv.includes('--observe')) return void process.stdout.write(`${table(await benchObserve())}\n`);
  const core = ['--scale', '--charts'].some((o) => process.argv.includes(o))
    ? []
    : [...(await coreRows()), ...rehearsalRows(), ...(await reviewRows()), ...planRows()];
  const memory = Math.round(process.memoryUsage().heapUsed / 1e6);
  const peak = Math.round(process.resourceUsage().maxRSS / 1e3);
  const browser = process.argv.includes('--core') ? [] : await browserRows();
  const rows = [...core, ...browser];
  if (process.argv.includes('--json')) return void process.stdout.write(`${JSON.stringify({ rows, memory, peak })}\n`);
  process.stdout.write(
    `${table(rows)}\n\nHeap in use after the core's part: ${memory} MB; peak resident: ${peak} MB.\n`,
  );
  process.stdout.write(`Node ${process.version}, ${cpus().length} × ${cpus()[0]?.model ?? 'unknown processor'}.\n`);
}

void main();
