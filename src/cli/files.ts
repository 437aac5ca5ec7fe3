/** Reading designs and tables from disk, with sentences instead of stack traces. */
import { readFile } from 'node:fs/promises';
import { formatPath, readDesignText } from '../core/design';
import type { Design } from '../core/design';

const REASONS: Record<string, string> = {
  ENOENT: 'there is no such file',
  EISDIR: 'it is a folder',
  EACCES: 'it may not be read',
};

/** Prints one line of JSON. */
export const printLine = (value: object): Promise<void> => print(`${JSON.stringify(value)}\n`);

/** Writes to standard output, and waits until it can take more. */
export async function print(text: string): Promise<void> {
  if (!process.stdout.write(text)) await new Promise((resolve) => process.stdout.once('drain', resolve));
}

export const complain = (line: string): void => void process.stderr.write(`${line}\n`);

/** The text of a file, or null after saying why it cannot be had. */
export async function readText(file: string): Promise<string | null> {
  try {
    return await readFile(file, 'utf8');
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? '';
    complain(`${file}: cannot be opened: ${REASONS[code] ?? code}.`);
    return null;
  }
}

/** A design from a file, or null after telling one line a fault: file, path, sentence. */
export async function readDesignFile(file: string, tell: (line: string) => void = complain): Promise<Design | null> {
  const text = await readText(file);
  if (text === null) return null;
  const read = readDesignText(text);
  if (read.ok) return read.design;
  for (const { path, sentence } of read.faults)
    tell([file, formatPath(path), sentence].filter((part) => part !== '').join(': '));
  return null;
}
