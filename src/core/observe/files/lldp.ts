/** Neighbours as an LLDP daemon prints them: JSON in both shapes, and lines of keys and values. */
import { canonicalMac } from '../../standard';
import { readNeighbourJson } from '../../formats';
import { known, nothingOf } from '../model';
import type { Observation, ObservedNeighbour, ObservedPort, Source } from '../model';

export const isKeyValueText = (text: string): boolean =>
  /^lldp\.\S+\.(?:via|rid|chassis|port)\S*=/m.test(text.slice(0, 4000));

/** Ports that heard something are up. */
const observation = (source: Source, name: string | null, neighbours: readonly ObservedNeighbour[]): Observation => ({
  ...nothingOf(source),
  name,
  ports: [...new Set(neighbours.map((n) => n.port))].map((port): ObservedPort => ({ name: port })),
  neighbours,
});

/** JSON in the shape with lists or without. */
export function readLldpJson(value: unknown, source: Source, name: string | null): Observation {
  const read = readNeighbourJson(source.name, value, name ?? '?');
  if (!read.ok) return { ...nothingOf(source), name, unread: read.faults.map((f) => f.sentence) };
  const neighbours = read.receptions.map((r): ObservedNeighbour => ({
    port: r.fromPort,
    by: 'lldp',
    name: canonicalMac(r.to) === null ? r.to : null,
    mac: canonicalMac(r.toMac ?? r.to),
    farPort: canonicalMac(r.toPort) === null ? r.toPort : null,
    farMac: canonicalMac(r.toPort),
    farDescription: null,
    bridge: r.toBridge ?? null,
    management: [],
  }));
  return { ...observation(source, name, neighbours), unread: read.refused.map((f) => f.sentence) };
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
  return observation(source, name, neighbours);
}
