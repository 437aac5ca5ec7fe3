import { rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { count } from '../core/standard';
import { formatTableFault, importCsv } from '../core/formats';
import { complain, readText } from './files';

export interface ImportOptions {
  switches: string;
  links: string;
  vlans?: string;
  name?: string;
  out: string;
}

/** Writes the design only when every row came in. */
export async function importTables(options: ImportOptions): Promise<number> {
  const source = async (file: string) => ({ file, text: await readText(file) });
  const sources = await Promise.all(
    [options.switches, options.links, ...(options.vlans ? [options.vlans] : [])].map(source),
  );
  if (sources.some((s) => s.text === null)) return 1;
  const [switches, links, vlans] = sources as { file: string; text: string }[];
  const name = options.name ?? path.basename(options.out).replace(/\.json$/i, '');
  const result = importCsv(name, switches!, links!, vlans);
  if (!result.ok) {
    for (const fault of result.faults) complain(formatTableFault(fault));
    return 1;
  }
  try {
    await writeFile(`${options.out}.part`, `${JSON.stringify(result.design, null, 2)}\n`);
    await rename(`${options.out}.part`, options.out);
  } catch (error) {
    complain(`${options.out}: cannot be written: ${(error as Error).message}.`);
    return 1;
  }
  const { switches: s, links: l, segments, vlans: v } = result.design;
  process.stdout.write(
    `${options.out}: ${count(s.length, 'switch', 'switches')}, ${count(l.length, 'link')}, ${count(segments.length, 'segment')}, ${count(v.length, 'VLAN')}.\n`,
  );
  return 0;
}
