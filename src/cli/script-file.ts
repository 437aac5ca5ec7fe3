/** Scripts by their name in a design, or from a file. */
import { faultsOf, formatPath, scriptSchema } from '../core/design';
import type { Design, Script } from '../core/design';
import { complain, readText } from './files';

/** The script of the design that is called so, else that of a file; null after saying why there is none. */
export async function scriptCalled(design: Design, wanted: string): Promise<Script | null> {
  const own = design.scripts.find((s) => s.name === wanted || s.id === wanted);
  if (own) return own;
  const text = await readText(wanted);
  if (text === null) return null;
  try {
    const read = scriptSchema.safeParse(JSON.parse(text));
    if (read.success) return read.data;
    for (const { path, sentence } of faultsOf(read.error)) complain(`${wanted}: ${formatPath(path)}: ${sentence}`);
  } catch (error) {
    complain(`${wanted}: The file is not complete JSON: ${(error as Error).message}.`);
  }
  return null;
}
