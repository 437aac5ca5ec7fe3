import path from 'node:path';
import type { Design } from '../core/design';
import { COMPARED, comparedWith, figuresOf } from '../core/plan';
import type { VariantFigures } from '../core/plan';
import { complain, print, readDesignFile } from './files';

const SIGN = { better: ' +', worse: ' -' } as const;

/** The figures as a table: a column a design, with what is better (+) or worse (-) than in the first. */
function tableOf(names: readonly string[], figures: readonly VariantFigures[]): string {
  const rows = COMPARED.map((row) => [
    row.name,
    ...figures.map((own) => {
      const word = comparedWith(figures[0]!, own, row);
      return `${row.of(own)}${word ? SIGN[word] : ''}`;
    }),
  ]);
  const all = [['', ...names], ...rows];
  const widths = all[0]!.map((_, c) => Math.max(...all.map((row) => row[c]!.length)));
  return all
    .map(
      (row) =>
        `${row
          .map((cell, c) => cell.padEnd(widths[c]!))
          .join('  ')
          .trimEnd()}\n`,
    )
    .join('');
}

/** Designs side by side, the first as what the others are compared with; status 2 when one cannot be read. */
export async function compare(files: readonly string[], options: { json?: boolean }): Promise<number> {
  if (files.length < 2) {
    complain('compare: name two designs or more: the first is what the others are compared with.');
    return 2;
  }
  const designs: Design[] = [];
  for (const file of files) {
    const design = await readDesignFile(file);
    if (!design) return 2;
    designs.push(design);
  }
  const names = files.map((f) => path.basename(f, '.json'));
  const figures = designs.map((design, i) => figuresOf(design, i === 0 ? undefined : designs[0]));
  if (options.json) await print(`${JSON.stringify(figures.map((own, i) => ({ name: names[i], ...own })))}\n`);
  else await print(tableOf(names, figures));
  return 0;
}
