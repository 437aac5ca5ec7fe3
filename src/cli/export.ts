import { writeFile } from 'node:fs/promises';
import { exportDifference, exportFormat } from '../core/formats';
import { complain, readDesignFile } from './files';

/** Writes a design in another format, to a file or to standard output. */
export async function exportDesign(
  file: string,
  { format: id, out, since }: { format: string; out?: string; since?: string },
): Promise<number> {
  const format = exportFormat(id);
  if (typeof format === 'string') {
    complain(format);
    return 1;
  }
  const design = await readDesignFile(file);
  if (!design) return 1;
  const before = since === undefined ? null : await readDesignFile(since);
  if (since !== undefined && !before) return 1;
  const text = before ? exportDifference(id, before, design) : format.write(design);
  if (text === null) {
    complain(`--since: only what differs of openconfig and ieee-yang can be written, not of ${id}.`);
    return 1;
  }
  if (out === undefined) process.stdout.write(text);
  else
    try {
      await writeFile(out, text);
    } catch (error) {
      complain(`${out}: cannot be written: ${(error as Error).message}.`);
      return 1;
    }
  return 0;
}
