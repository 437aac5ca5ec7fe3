/** Sources of a reading as files: one, or all in a folder; captures are read in pieces, however long they are. */
import { createReadStream } from 'node:fs';
import { open, readFile, readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { captureReader, isCapture, readObservedFiles } from '../core/observe';
import type { Observation, ObservedFile } from '../core/observe';
import { observeMessages as say } from '../core/messages';
import { complain } from './files';

/** What is no capture is read whole. */
const MOST_OCTETS = 200_000_000;

interface Found {
  readonly path: string;
  readonly inside: string;
}

async function filesIn(folder: string, inside = ''): Promise<Found[]> {
  const entries = await readdir(path.join(folder, inside), { withFileTypes: true });
  const found = await Promise.all(
    entries
      .filter((e) => !e.name.startsWith('.'))
      .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
      .map((e) => {
        const here = path.join(inside, e.name);
        if (e.isDirectory()) return filesIn(folder, here);
        return Promise.resolve(e.isFile() ? [{ path: path.join(folder, here), inside: here }] : []);
      }),
  );
  return found.flat();
}

async function beginsLikeCapture(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(new Uint8Array(4), 0, 4, 0);
    return isCapture(buffer.subarray(0, bytesRead));
  } finally {
    await handle.close();
  }
}

async function readCapture(file: string, at: string): Promise<Observation[]> {
  const reader = captureReader(file, at);
  for await (const chunk of createReadStream(file, { highWaterMark: 1024 * 1024 })) {
    reader.push(chunk as Uint8Array);
    if (reader.fault !== null) break;
  }
  return reader.end();
}

/** Everything that files and folders tell; null after saying that one is not there. */
export async function observationsIn(
  sources: readonly string[],
): Promise<{ observations: Observation[]; read: number } | null> {
  const found: Found[] = [];
  for (const source of sources) {
    const of = await stat(source).catch(() => null);
    if (!of) {
      complain(say['no-source']({ path: source }));
      return null;
    }
    found.push(...(of.isDirectory() ? await filesIn(source) : [{ path: source, inside: path.basename(source) }]));
  }
  const observations: Observation[] = [];
  const files: ObservedFile[] = [];
  let read = 0;
  for (const file of found) {
    const { size, mtime } = await stat(file.path);
    const at = mtime.toISOString();
    if (size >= 4 && (await beginsLikeCapture(file.path))) {
      observations.push(...(await readCapture(file.path, at)));
      read++;
    } else if (size > MOST_OCTETS) complain(say['file-too-large']({ file: file.path, size, most: MOST_OCTETS }));
    else files.push({ ...file, octets: await readFile(file.path), at });
  }
  const whole = readObservedFiles(files);
  for (const { fault } of whole.files)
    if (fault !== null) complain(fault);
    else read++;
  return { observations: [...observations, ...whole.observations], read };
}
