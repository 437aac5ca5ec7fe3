/** One device out of all that was observed of it: the first source that knows a thing is believed, others that contradict it are asked about. */
import type { ObservedQuestion, ObservedSwitch } from '../../design';
import { observeMessages as say } from '../../messages';
import type { Observation, ObservedAggregate, ObservedPort, ObservedTree } from '../model';
import { known } from '../model';
import { treeWordsOf } from '../tree-words';
import type { Device } from './devices';

/** A device put together, with its trees and aggregates, and port names in place of numbers. */
export interface Merged {
  readonly device: Device;
  readonly of: ObservedSwitch;
  readonly ports: ReadonlyMap<string, ObservedPort>;
  readonly aggregates: readonly ObservedAggregate[];
  readonly trees: readonly ObservedTree[];
  /** Name of a port, by the name or the number that a source gave. */
  readonly portName: (given: string) => string;
}

/** The first value that a source has, and a question where a source of the same kind has another one. */
function first<T>(
  device: Device,
  field: string,
  read: (o: Device['of'][number]) => T | null | undefined,
  questions: ObservedQuestion[],
): T | null {
  let found: { value: T; source: Device['of'][number]['source'] } | null = null;
  for (const o of device.of) {
    const value = read(o);
    if (value === null || value === undefined) continue;
    if (!found) found = { value, source: o.source };
    else if (JSON.stringify(found.value) !== JSON.stringify(value))
      questions.push({
        kind: 'contradicts',
        switch: device.name,
        port: null,
        text: say.contradicts({
          name: device.name,
          field,
          a: String(found.value),
          b: String(value),
          from: found.source.name,
          against: o.source.name,
        }),
      });
  }
  return found?.value ?? null;
}

/** Ports of all sources, by name in any case; one known by its number alone is the port with that number. */
function mergePorts(device: Device): { ports: Map<string, ObservedPort>; portName: (given: string) => string } {
  const byKey = new Map<string, ObservedPort>();
  const nameByNumber = new Map<number, string>();
  const all = device.of.flatMap((o) => o.ports);
  for (const p of all)
    if (p.number !== undefined && !p.name.startsWith('#') && !nameByNumber.has(p.number))
      nameByNumber.set(p.number, p.name);
  const portName = (given: string): string => {
    if (given.startsWith('#')) return nameByNumber.get(Number(given.slice(1))) ?? given;
    return byKey.get(given.toLowerCase())?.name ?? given;
  };
  for (const p of all) {
    const name = portName(p.name);
    const key = name.toLowerCase();
    // What an earlier source says goes over what a later one does.
    byKey.set(key, { ...p, ...byKey.get(key), name: byKey.get(key)?.name ?? name });
  }
  for (const o of device.of)
    for (const at of [
      ...o.trees.flatMap((t) => t.ports.map((p) => p.port)),
      ...o.neighbours.map((n) => n.port),
      ...o.aggregates.flatMap((a) => a.members.map((m) => m.port)),
    ]) {
      const name = portName(at);
      if (!byKey.has(name.toLowerCase()))
        byKey.set(
          name.toLowerCase(),
          known<ObservedPort>({ name, number: name.startsWith('#') ? Number(name.slice(1)) : undefined }),
        );
    }
  return { ports: byKey, portName };
}

function mergeTrees(device: Device, portName: (given: string) => string): ObservedTree[] {
  const byId = new Map<string, ObservedTree>();
  for (const tree of device.of.flatMap((o) => o.trees)) {
    const ports = tree.ports.map((p) => ({ ...p, port: portName(p.port) }));
    const before = byId.get(tree.id);
    if (!before) {
      byId.set(tree.id, { ...tree, ports, ...(tree.rootPort ? { rootPort: portName(tree.rootPort) } : {}) });
      continue;
    }
    const told = new Set(before.ports.map((p) => p.port));
    byId.set(tree.id, { ...tree, ...before, ports: [...before.ports, ...ports.filter((p) => !told.has(p.port))] });
  }
  return [...byId.values()];
}

/** Aggregates by name; members of a later source are added where an earlier one has none. */
function mergeAggregates(device: Device, portName: (given: string) => string): ObservedAggregate[] {
  const byName = new Map<string, ObservedAggregate>();
  for (const a of device.of.flatMap((o) => o.aggregates)) {
    const members = a.members.map((m) => ({ ...m, port: portName(m.port) }));
    const before = byName.get(a.name);
    byName.set(
      a.name,
      before ? { ...a, ...before, members: before.members.length > 0 ? before.members : members } : { ...a, members },
    );
  }
  return [...byName.values()];
}

const asSchema = ({ mac, ...port }: ObservedPort): ObservedSwitch['ports'][number] => (void mac, port);

/** Priorities without extensions, by tree as the network calls it. */
function prioritiesOf(
  trees: readonly ObservedTree[],
  treeName: (id: string) => string,
): Pick<ObservedSwitch, 'priority' | 'priorities'> {
  const sorted = [...trees].sort((a, b) => a.id.localeCompare(b.id, 'en', { numeric: true }));
  const priorities = Object.fromEntries(sorted.map((t) => [treeName(t.id), t.bridge.priority & 0xf000]));
  return { priority: Object.values(priorities)[0] ?? null, priorities };
}

/** The one tree of all VLANs is called by what runs it; it is the common one where instances or trees per VLAN meet it. */
export function treeNames(all: readonly Observation[]): (id: string) => string {
  const ids = new Set(all.flatMap((o) => o.trees.map((t) => t.id)));
  const common = ids.has('cist') || (ids.has('single') && [...ids].some((id) => id.startsWith('vlan-')));
  const single = common ? 'cist' : all.some((o) => o.protocol === 'rstp') ? 'rstp' : 'stp';
  return (id) => (id === 'single' || (common && id === 'vlan-1') ? single : id);
}

/** Puts one device together. */
export function merge(device: Device, treeName: (id: string) => string, questions: ObservedQuestion[]): Merged {
  const { ports, portName } = mergePorts(device);
  const trees = mergeTrees(device, portName);
  const aggregates = mergeAggregates(device, portName);
  for (const a of aggregates) if (!ports.has(a.name.toLowerCase())) ports.set(a.name.toLowerCase(), { name: a.name });
  const vlans = new Map<number, string | null>();
  for (const { number, name } of device.of.flatMap((o) => o.vlans)) vlans.set(number, vlans.get(number) ?? name);
  const of: ObservedSwitch = {
    name: device.name,
    mac: device.mac,
    ...prioritiesOf(trees, treeName),
    protocol: first(device, 'protocol', (o) => o.protocol, questions),
    ...(trees.some((t) => t.id.startsWith('vlan-')) ? { perVlan: true } : {}),
    timers: known(Object.assign({}, ...device.of.map((o) => o.timers).reverse()) as ObservedSwitch['timers']),
    region: first(device, 'region', (o) => o.region, []),
    ...(device.of.some((o) => o.maxHops !== null)
      ? { maxHops: device.of.find((o) => o.maxHops !== null)!.maxHops! }
      : {}),
    vlans: [...vlans].sort(([a], [b]) => a - b).map(([number, name]) => ({ number, name })),
    ports: [...ports.values()].map(asSchema),
    ...(device.of.some((o) => o.neighbours.some((n) => n.by === 'lldp')) ? { hears: true } : {}),
    source: [...new Set(device.of.map((o) => o.source.name))],
  };
  for (const { id } of trees) {
    const field = trees.length === 1 ? 'priority' : `priority in ${treeWordsOf([treeName(id)])}`;
    const own = (o: Observation) => o.trees.find((t) => t.id === id)?.bridge.priority;
    first(device, field, (o) => (own(o) === undefined ? null : own(o)! & 0xf000), questions);
  }
  for (const o of device.of)
    for (const text of o.unread) questions.push({ kind: 'incomplete', switch: device.name, port: null, text });
  return { device, of, ports, aggregates, trees, portName };
}
