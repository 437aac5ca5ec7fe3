/** Neighbours as an LLDP daemon prints them: JSON in both shapes, and lines of keys and values. */
import { canonicalMac } from '../../standard';
import { NEIGHBOUR_COLUMNS, formatTableFault, readNeighbourCsv, readNeighbourJson } from '../../formats';
import { known, nothingOf } from '../model';
import type { Observation, ObservedNeighbour, Source } from '../model';
import { neighbourList, observationsOf } from '../receptions';

export const isKeyValueText = (text: string): boolean =>
  /^lldp\.\S+\.(?:via|rid|chassis|port)\S*=/m.test(text.slice(0, 4000));

/** JSON in the shape with lists or without. */
export function readLldpJson(value: unknown, source: Source, name: string | null): Observation {
  const read = readNeighbourJson(source.name, value, name ?? '?');
  if (!read.ok) return { ...nothingOf(source), name, unread: read.faults.map((f) => f.sentence) };
  const [own = neighbourList(source, name, [])] = observationsOf(read.receptions, source);
  return { ...own, name, unread: read.refused.map((f) => f.sentence) };
}

/** Whether a text is a table of neighbours of many switches. */
export const isNeighbourTable = (text: string): boolean =>
  NEIGHBOUR_COLUMNS.required.every((c) => text.slice(0, 2000).split(/\r?\n/)[0]!.toLowerCase().includes(c));

/** A table of neighbours; a row that cannot be read is said, and the others are read. */
export function readNeighbourTable(text: string, source: Source): { of: Observation[]; fault: string | null } {
  const read = readNeighbourCsv(source.name, text);
  const [fault] = read.ok ? read.refused : read.faults;
  return {
    of: read.ok ? observationsOf(read.receptions, source) : [],
    fault: fault ? formatTableFault(fault) : null,
  };
}

const LINE = /^lldp\.(\S+?)\.(via|rid|age|chassis|port|vlan|lldp-med|unknown-tlvs|ppvid|pi)(?:\.(\S+?))?=(.*)$/;

/** Lines of keys and values; a neighbour begins where its first key comes again. */
export function readKeyValues(text: string, source: Source, name: string | null): Observation {
  const found: { port: string; keys: Map<string, string[]> }[] = [];
  for (const line of text.split(/\r?\n/)) {
    const match = LINE.exec(line);
    if (!match) continue;
    const [, port, group, rest, value] = match as unknown as [string, string, string, string | undefined, string];
    if (group === 'via' || found.at(-1)?.port !== port) found.push({ port, keys: new Map() });
    const key = [group, rest].filter(Boolean).join('.');
    const { keys } = found.at(-1)!;
    keys.set(key, [...(keys.get(key) ?? []), value]);
  }
  const neighbours = found.flatMap(({ port, keys }): ObservedNeighbour[] => {
    const first = (key: string) => keys.get(key)?.[0] ?? null;
    const mac = canonicalMac(first('chassis.mac') ?? '');
    const far = first('port.ifname') ?? first('port.local') ?? first('port.ifalias');
    if (mac === null && first('chassis.name') === null) return [];
    const bridge = first('chassis.Bridge.enabled');
    return [
      known<ObservedNeighbour>({
        port,
        by: 'lldp',
        name: first('chassis.name'),
        mac,
        farPort: far,
        farDescription: first('port.descr'),
        farMac: canonicalMac(first('port.mac') ?? ''),
        bridge: bridge === null ? null : bridge === 'on',
        management: [...(keys.get('chassis.mgmt-ip') ?? [])],
      }),
    ];
  });
  return neighbourList(source, name, neighbours);
}
