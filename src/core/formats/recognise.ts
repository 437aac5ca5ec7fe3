/** What a file is, by what is in it and not by its name. */
import { jsonTextFault, readDesign } from '../design';
import { documentMessages as say, fileMessages } from '../messages';
import type { FILE_KINDS } from '../messages';
import type { Design } from '../design';
import type { Reception } from '../editing';
import { LINK_COLUMNS, SWITCH_COLUMNS, VLAN_COLUMNS } from './csv-columns';
import { readGraphml } from './graphml';
import { NEIGHBOUR_COLUMNS, isNeighbourJson, readNeighbourCsv, readNeighbourJson, switchNames } from './neighbours';
import { readTable } from './table';
import type { TableFault, TableRow } from './table';

export interface SourceFile {
  readonly file: string;
  readonly text: string;
}

export type FileKind = keyof typeof FILE_KINDS;

const TABLE_KINDS = [
  { kind: 'neighbours', columns: NEIGHBOUR_COLUMNS, telling: 'neighbour' },
  { kind: 'links', columns: LINK_COLUMNS, telling: 'a_switch' },
  { kind: 'switches', columns: SWITCH_COLUMNS, telling: 'mac' },
  { kind: 'vlans', columns: VLAN_COLUMNS, telling: 'vlan' },
] as const;

const headerOf = (text: string) =>
  text
    .replace(/^\uFEFF/, '')
    .slice(0, 4000)
    .split(/\r|\n/)[0]!
    .toLowerCase()
    .split(/[,;\t]/)
    .map((h) => h.replace(/"/g, '').trim());

/** A file as it was recognised. */
export type Read =
  | { readonly kind: 'design' | 'graphml'; readonly file: string; readonly design: Design }
  | {
      readonly kind: 'neighbours';
      readonly file: string;
      readonly receptions: readonly Reception[];
      readonly faults: readonly TableFault[];
    }
  | {
      readonly kind: 'switches' | 'links' | 'vlans';
      readonly file: string;
      readonly text: string;
      readonly rows: readonly TableRow[];
    }
  | { readonly kind: 'unknown'; readonly file: string; readonly faults: readonly TableFault[] };

/** Recognises files by what is in them; lists of neighbours are of the switch that their file, or its folder, is named after. */
export function readAll(sources: readonly SourceFile[]): Read[] {
  const names = switchNames(sources.map((s) => s.file));
  return sources.map((source, i) => readOne(source, names[i]!));
}

function readOne({ file, text }: SourceFile, name: string): Read {
  const unknown = (sentence: string, more: Partial<TableFault> = {}): Read => ({
    kind: 'unknown',
    file,
    faults: [{ file, row: null, column: null, sentence, ...more }],
  });
  const start = text.replace(/^\uFEFF/, '').trimStart();
  if (start === '') return unknown(fileMessages.empty());
  if (text.includes('\uFFFD')) return unknown(say.notUtf8());
  if (start.startsWith('<')) {
    const read = readGraphml(file, text);
    return read.ok ? { kind: 'graphml', file, design: read.design } : { kind: 'unknown', file, faults: read.faults };
  }
  if (/^[{[]/.test(start)) return readJson(file, start, name, unknown);
  const header = headerOf(text);
  const found = TABLE_KINDS.find(({ telling }) => header.includes(telling));
  if (!found) return unknown(fileMessages['unknown-kind']());
  if (found.kind === 'neighbours') {
    const read = readNeighbourCsv(file, text);
    return read.ok
      ? { kind: 'neighbours', file, receptions: read.receptions, faults: read.refused }
      : { kind: 'unknown', file, faults: read.faults };
  }
  const { rows, faults } = readTable(file, text, found.columns);
  return faults.length > 0 ? { kind: 'unknown', file, faults } : { kind: found.kind, file, text, rows };
}

function readJson(
  file: string,
  text: string,
  name: string,
  unknown: (sentence: string, more?: Partial<TableFault>) => Read,
): Read {
  const fault = jsonTextFault(text);
  if (fault) return unknown('breaks' in fault ? say.brokenJson(fault.breaks) : say.duplicateKey(fault.twice));
  const value: unknown = JSON.parse(text);
  if (isNeighbourJson(value)) {
    const read = readNeighbourJson(file, value, name);
    return read.ok
      ? { kind: 'neighbours', file, receptions: read.receptions, faults: read.refused }
      : { kind: 'unknown', file, faults: read.faults };
  }
  const read = readDesign(value);
  if (read.ok) return { kind: 'design', file, design: read.design };
  return {
    kind: 'unknown',
    file,
    faults: read.faults.map((f) => ({ file, row: null, column: f.path.join('.') || null, sentence: f.sentence })),
  };
}
