/** Which observations are of one device: by the address of the bridge, by other addresses of its own, and by name. */
import { observeMessages as say } from '../../messages';
import type { ObservedQuestion } from '../../design';
import type { Observation } from '../model';

/** One device with everything that was observed of it, the most trusted first. */
export interface Device {
  readonly name: string;
  readonly mac: string | null;
  readonly addresses: ReadonlySet<string>;
  readonly of: readonly Observation[];
}

/** A device's own word before what it sends to its neighbours, and both before files of settings and drawings. */
const TRUST = ['snmp', 'linux', 'lldp', 'capture', 'openconfig', 'topology'] as const;
const trust = (o: Observation): number => TRUST.indexOf(o.source.kind);

/** `quay-1.example.net` is `quay-1`. */
export const shortName = (name: string): string => name.toLowerCase().split('.')[0]!;

/** Sets of observations of one device. Two addresses of bridges are two devices, whatever else they have in common. */
class Groups {
  private readonly parent: number[];
  private readonly mac: (string | null)[];
  constructor(all: readonly Observation[]) {
    this.parent = all.map((_, i) => i);
    this.mac = all.map((o) => o.mac);
  }
  find(i: number): number {
    while (this.parent[i] !== i) i = this.parent[i]!;
    return i;
  }
  /** False where the two are two devices. */
  join(a: number, b: number): boolean {
    const [x, y] = [this.find(a), this.find(b)];
    const [m, n] = [this.mac[x]!, this.mac[y]!];
    if (m !== null && n !== null && m !== n) return false;
    this.mac[y] = n ?? m;
    this.parent[x] = y;
    return true;
  }
  macOf(i: number): string | null {
    return this.mac[this.find(i)] ?? null;
  }
}

/** Joins observations that share a key. */
function joinBy(groups: Groups, all: readonly Observation[], keys: (o: Observation) => readonly string[]): void {
  const first = new Map<string, number>();
  all.forEach((o, i) => {
    for (const key of keys(o)) {
      const other = first.get(key);
      if (other === undefined) first.set(key, i);
      else groups.join(i, other);
    }
  });
}

const grouped = (groups: Groups, count: number): number[][] => {
  const byRoot = new Map<number, number[]>();
  for (let i = 0; i < count; i++) byRoot.set(groups.find(i), [...(byRoot.get(groups.find(i)) ?? []), i]);
  return [...byRoot.values()];
};

/** Joins what has one name, unless two bridge addresses say that they are two devices. */
function joinByName(groups: Groups, all: readonly Observation[], questions: ObservedQuestion[]): void {
  const byName = new Map<string, number[]>();
  all.forEach((o, i) => {
    if (o.name !== null) byName.set(shortName(o.name), [...(byName.get(shortName(o.name)) ?? []), i]);
  });
  for (const same of byName.values()) {
    const macs = new Set(same.flatMap((i) => groups.macOf(i) ?? []));
    if (macs.size <= 1) same.slice(1).forEach((i) => groups.join(i, same[0]!));
    else
      questions.push({
        kind: 'contradicts',
        switch: all[same[0]!]!.name,
        port: null,
        text: say['one-name']({ name: all[same[0]!]!.name!, macs: [...macs].sort() }),
      });
  }
}

/** Names that are each once: a second device of a name has its address behind it. */
function named(devices: readonly Device[]): Device[] {
  const count = new Map<string, number>();
  for (const d of devices) count.set(d.name, (count.get(d.name) ?? 0) + 1);
  return devices.map((d) =>
    count.get(d.name)! > 1 && d.mac !== null && d.mac !== d.name ? { ...d, name: `${d.name} ${d.mac}` } : d,
  );
}

/** The devices that observations are of, in the order of their names. */
export function devicesOf(all: readonly Observation[]): { devices: Device[]; questions: ObservedQuestion[] } {
  const questions: ObservedQuestion[] = [];
  const groups = new Groups(all);
  joinBy(groups, all, (o) => (o.mac ? [o.mac] : []));
  joinBy(groups, all, (o) => [...(o.mac ? [o.mac] : []), ...o.addresses]);
  joinByName(groups, all, questions);
  const devices = grouped(groups, all.length).map((indices): Device => {
    const of = indices.map((i) => all[i]!).sort((a, b) => trust(a) - trust(b));
    const mac = of.find((o) => o.mac !== null)?.mac ?? null;
    return {
      name: of.find((o) => o.name !== null)?.name ?? mac ?? of[0]!.source.name,
      mac,
      addresses: new Set([...(mac ? [mac] : []), ...of.flatMap((o) => o.addresses)]),
      of,
    };
  });
  return { devices: named(devices.sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))), questions };
}
