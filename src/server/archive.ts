/** All designs as one archive: a file for every variant; what cannot be read goes along as it is stored. */
import { strToU8, zipSync } from 'fflate';
import { currentDesign, rawStates } from './documents';
import { fileName } from './export';
import { listDesigns } from './designs';
import type { Db } from './db';

/** A path that the archive does not have yet. */
function free(taken: ReadonlySet<string>, base: string, ending: string): string {
  for (let n = 1; ; n++) {
    const name = `${base}${n === 1 ? '' : `-${n}`}${ending}`;
    if (!taken.has(name)) return name;
  }
}

export function archiveOf(db: Db): Uint8Array {
  const files: Record<string, Uint8Array> = {};
  const taken = new Set<string>();
  for (const design of listDesigns(db))
    for (const variant of design.variants) {
      const base = `${fileName(design.name)}/${fileName(variant.name)}`;
      let [text, ending] = ['', '.json'];
      try {
        text = `${JSON.stringify({ ...currentDesign(db, variant), name: design.name }, null, 2)}\n`;
      } catch {
        [text, ending] = [rawStates(db, variant.id), '-unreadable.json'];
      }
      const path = free(taken, base, ending);
      taken.add(path);
      files[path] = strToU8(text);
    }
  return zipSync(files, { level: 6 });
}
