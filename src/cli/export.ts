import { writeFile } from 'node:fs/promises';
import { exportFormat } from '../core/formats';
import { complain, readDesignFile } from './files';

/** Writes a design in another format, to a file or to standard output. */
export async function exportDesign(
  file: string,
  { format: id, out }: { format: string; out?: string },
): Promise<number> {
  const format = exportFormat(id);
  if (typeof format === 'string') {
    complain(format);
    return 1;
  }
  const design = await readDesignFile(file);
  if (!design) return 1;
  const text = format.write(design);
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
