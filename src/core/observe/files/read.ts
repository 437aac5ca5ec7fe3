/** Files of any kind that tells of a network, recognised by what is in them; those of one device are read together. */
import { jsonTextFault } from '../../design';
import { isNeighbourJson } from '../../formats';
import { documentMessages, observeMessages as say } from '../../messages';
import { CaptureReader } from '../capture/read';
import { isCapture } from '../capture/packets';
import type { CaptureStory } from '../capture/story';

import type { Observation, Source } from '../model';
import { readSnmp } from '../snmp/read';
import { isWalkText, readWalkText } from '../snmp/walk-text';
import { isBondText, readBond } from './bond';
import { isPlain } from './json';
import type { Plain } from './json';
import { linuxListKind, readLinux } from './linux';
import type { LinuxLists } from './linux';
import { isKeyValueText, isNeighbourTable, readKeyValues, readLldpJson, readNeighbourTable } from './lldp';
import { deviceOfFile, partOfFile } from './names';
import type { PlacedFile } from './names';
import { isOpenConfigJson, isTopologyJson, readOpenConfig, readTopology } from './yang';

export interface ObservedFile extends PlacedFile {
  readonly octets: Uint8Array;
  /** When it was written; ISO 8601, null for not known. */
  readonly at: string | null;
}

export interface FileRead {
  readonly path: string;
  /** What it was taken for, in words. */
  readonly kind: string;
  readonly fault: string | null;
}

export interface FilesRead {
  readonly observations: readonly Observation[];
  readonly files: readonly FileRead[];
  readonly stories: readonly { readonly path: string; readonly story: CaptureStory }[];
}

const LIST_OF = { links: 'links', ports: 'ports', vlans: 'vlans', addresses: 'addresses' } as const;
const KIND_WORDS = {
  links: 'links of a Linux device',
  ports: 'bridge ports of a Linux device',
  vlans: 'VLANs of a Linux device',
  addresses: 'MAC table of a Linux device',
} as const;

interface LinuxDevice {
  readonly source: Source;
  readonly name: string | null;
  readonly lists: { -readonly [K in keyof LinuxLists]: Plain[] };
}

class Reading {
  readonly observations: Observation[] = [];
  readonly files: FileRead[] = [];
  readonly stories: { path: string; story: CaptureStory }[] = [];
  private readonly linux = new Map<string, LinuxDevice>();

  private read(file: ObservedFile, kind: string, observations: readonly Observation[]): void {
    this.observations.push(...observations);
    this.files.push({ path: file.path, kind, fault: null });
  }

  private refuse(file: ObservedFile, fault: string): void {
    this.files.push({ path: file.path, kind: 'not readable', fault });
  }

  take(file: ObservedFile): void {
    if (isCapture(file.octets)) return this.capture(file);
    const text = new TextDecoder().decode(file.octets).replace(/^\uFEFF/, '');
    const name = deviceOfFile(file);
    const source = (kind: Source['kind']): Source => ({ kind, name: file.path, at: file.at });
    if (isWalkText(text)) {
      const walked = readSnmp(readWalkText(text).rows, source('snmp'));
      this.read(file, 'answers of an SNMP agent', [{ ...walked, name: walked.name ?? name }]);
    } else if (isBondText(text))
      this.read(file, 'state of a bond', [readBond(text, source('linux'), name, partOfFile(file))]);
    else if (isKeyValueText(text)) this.read(file, 'LLDP neighbours', [readKeyValues(text, source('lldp'), name)]);
    else if (/^\s*[[{]/.test(text)) this.json(file, text, name);
    else if (isNeighbourTable(text)) this.table(file, text, source('lldp'));
    else this.refuse(file, say['unknown-source']({ file: file.path }));
  }

  private table(file: ObservedFile, text: string, source: Source): void {
    const { of, fault } = readNeighbourTable(text, source);
    this.observations.push(...of);
    this.files.push({ path: file.path, kind: 'table of LLDP neighbours', fault });
  }

  private capture(file: ObservedFile): void {
    const reader = new CaptureReader({ kind: 'capture', name: file.path, at: file.at });
    reader.push(file.octets);
    this.read(file, 'capture', reader.end());
    this.stories.push({ path: file.path, story: reader.story });
  }

  private json(file: ObservedFile, text: string, name: string | null): void {
    const broken = jsonTextFault(text);
    if (broken && 'breaks' in broken)
      return this.refuse(
        file,
        say['broken-source']({ file: file.path, where: documentMessages.brokenJson(broken.breaks) }),
      );
    const value: unknown = JSON.parse(text);
    const source = (kind: Source['kind']): Source => ({ kind, name: file.path, at: file.at });
    if (isNeighbourJson(value)) return this.read(file, 'LLDP neighbours', [readLldpJson(value, source('lldp'), name)]);
    if (isTopologyJson(value))
      return this.read(file, 'topology after RFC 8345', readTopology(value, source('topology')));
    const lists = Array.isArray(value)
      ? [value]
      : isPlain(value)
        ? Object.values(value).filter((v) => Array.isArray(v))
        : [];
    const known = lists.flatMap((l) => {
      const kind = linuxListKind(l);
      return kind ? [{ kind, list: l as Plain[] }] : [];
    });
    // An empty list is what a device prints that has nothing of the kind.
    if (known.length > 0 || (Array.isArray(value) && value.length === 0)) return this.linuxLists(file, name, known);
    if (isOpenConfigJson(value))
      return this.read(file, 'settings after OpenConfig', readOpenConfig(value, source('openconfig'), name));
    this.refuse(file, say['unknown-source']({ file: file.path }));
  }

  private linuxLists(
    file: ObservedFile,
    name: string | null,
    lists: readonly { kind: keyof typeof LIST_OF; list: Plain[] }[],
  ): void {
    const key = name ?? file.path;
    const device = this.linux.get(key) ?? {
      source: { kind: 'linux' as const, name: name ?? file.path, at: file.at },
      name,
      lists: { links: [], ports: [], vlans: [], addresses: [] },
    };
    this.linux.set(key, device);
    for (const { kind, list } of lists) device.lists[LIST_OF[kind]].push(...list);
    this.files.push({ path: file.path, kind: lists[0] ? KIND_WORDS[lists[0].kind] : 'an empty list', fault: null });
  }

  end(): FilesRead {
    const linux = [...this.linux.values()].flatMap(({ lists, source, name }) =>
      Object.values(lists).every((l) => l.length === 0) ? [] : readLinux(lists, source, name),
    );
    return { observations: [...this.observations, ...linux], files: this.files, stories: this.stories };
  }
}

/** Reads files; one that cannot be read gets a sentence, and the others are read. */
export function readObservedFiles(files: readonly ObservedFile[]): FilesRead {
  const reading = new Reading();
  for (const file of files) reading.take(file);
  return reading.end();
}

/** A capture that is too long to be held: to be fed chunk by chunk. */
export const captureReader = (path: string, at: string | null): CaptureReader =>
  new CaptureReader({ kind: 'capture', name: path, at });
