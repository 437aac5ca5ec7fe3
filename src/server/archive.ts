/** All designs as one archive: a file for every variant; what cannot be read goes along as it is stored. */
import { Zip, ZipDeflate, strToU8 } from 'fflate';
import type { DesignHead, VariantHead } from '../api/contract';
import type { Db } from './db';
import { listDesigns } from './designs';
import { currentDesign, rawStates } from './documents';
import { fileName } from './export';

/** A path that the archive does not have yet. */
function free(taken: Set<string>, base: string, ending: string): string {
  for (let n = 1; ; n++) {
    const name = `${base}${n === 1 ? '' : `-${n}`}${ending}`;
    if (taken.has(name)) continue;
    taken.add(name);
    return name;
  }
}

function textOf(db: Db, design: DesignHead, variant: VariantHead): { text: string; ending: string } {
  try {
    const document = { ...currentDesign(db, variant), name: design.name };
    return { text: `${JSON.stringify(document, null, 2)}\n`, ending: '.json' };
  } catch {
    return { text: rawStates(db, variant.id), ending: '-unreadable.json' };
  }
}

/** Lets other requests in between. */
const breath = () => new Promise((resolve) => setImmediate(resolve));

/** The archive as a zip file, made one variant at a time. */
export async function archiveOf(db: Db): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  const zip = new Zip((error, part) => {
    if (error) throw error;
    parts.push(part);
  });
  const taken = new Set<string>();
  for (const design of listDesigns(db))
    for (const variant of design.variants) {
      const { text, ending } = textOf(db, design, variant);
      const file = new ZipDeflate(free(taken, `${fileName(design.name)}/${fileName(variant.name)}`, ending), {
        level: 4,
      });
      zip.add(file);
      file.push(strToU8(text), true);
      await breath();
    }
  zip.end();
  return new Uint8Array(Buffer.concat(parts));
}
