import { checkNeighbours } from '../core/editing';
import type { Reception } from '../core/editing';
import { formatTableFault, isNeighbourJson, readNeighbourCsv, readNeighbourJson, switchNames } from '../core/formats';
import { complain, readDesignFile, readText } from './files';

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Holds what switches hear against a design. Status 0 when all is as drawn, 1 when something differs or cannot be read. */
export async function neighbours(
  file: string,
  lists: readonly string[],
  { json }: { json?: boolean },
): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  const receptions: Reception[] = [];
  const names = switchNames(lists);
  for (const [i, list] of lists.entries()) {
    const text = await readText(list);
    if (text === null) return 1;
    const value = parsed(text);
    const read =
      isNeighbourJson(value) || /^\s*[{[]/.test(text)
        ? readNeighbourJson(list, value, names[i])
        : readNeighbourCsv(list, text);
    for (const fault of read.ok ? read.refused : read.faults) complain(formatTableFault(fault));
    if (!read.ok) return 1;
    receptions.push(...read.receptions);
  }
  const findings = checkNeighbours(design, receptions);
  if (json) process.stdout.write(`${JSON.stringify({ findings })}\n`);
  else
    for (const { verdict, a, b, sentence } of findings)
      process.stdout.write(`${verdict.padEnd(11)}  ${a.name} ${a.port} – ${b.name} ${b.port}: ${sentence}\n`);
  return findings.every((f) => f.verdict === 'as drawn') ? 0 : 1;
}
