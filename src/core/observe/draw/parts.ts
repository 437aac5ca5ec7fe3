/** Parts of a drawing that are worked out from several devices: cost scales, regions, numbers that are free, sets of VLANs. */
import type { ObservedNetwork, ObservedSwitch } from '../../design';
import { PORT_NUMBER, defaultPathCost, parseVlanRanges } from '../../standard';

export type Json = Record<string, unknown>;

/** Fields that are set. */
export const given = (of: Json): Json => Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined));

/** What most have; null where none has any. */
export function prevailing<T>(values: readonly (T | null)[]): T | null {
  const votes = new Map<string, { value: T; count: number }>();
  for (const value of values) {
    if (value === null) continue;
    const vote = votes.get(JSON.stringify(value)) ?? { value, count: 0 };
    vote.count++;
    votes.set(JSON.stringify(value), vote);
  }
  return [...votes.values()].sort((a, b) => b.count - a.count)[0]?.value ?? null;
}

/** The scale that the costs of a switch which go by speed are of; null where nothing tells. */
export function scaleOf(observed: ObservedNetwork, s: ObservedSwitch): 'long' | 'short' | null {
  const cost = new Map(
    observed.trees.flatMap((t) =>
      t.ports.filter((p) => p.switch === s.name && p.cost !== null).map((p) => [p.port, p.cost!] as const),
    ),
  );
  const votes = { long: 0, short: 0 };
  for (const p of s.ports) {
    const told = cost.get(p.name);
    if (told === undefined || !p.speed || (p.adminCost ?? 0) > 0) continue;
    for (const scale of ['long', 'short'] as const) if (defaultPathCost(p.speed, scale) === told) votes[scale]++;
  }
  if ([...cost.values()].some((c) => c > 65_535)) return 'long';
  return votes.long === votes.short ? null : votes.long > votes.short ? 'long' : 'short';
}

/** Regions that are each a name, a revision and a digest. */
export function regionsOf(observed: ObservedNetwork): { list: Json[]; idOf: Map<string, string>; unmapped: string[] } {
  const list: Json[] = [];
  const idOf = new Map<string, string>();
  const byKey = new Map<string, { id: string; entry: Json }>();
  const unmapped: string[] = [];
  for (const s of observed.switches) {
    if (!s.region) continue;
    const key = JSON.stringify([s.region.name, s.region.revision, s.region.digest ?? s.region.map]);
    let found = byKey.get(key);
    if (!found) {
      const entry = given({
        id: `r${byKey.size + 1}`,
        name: s.region.name,
        revision: s.region.revision,
        map: {},
        maxHops: s.maxHops === 20 ? undefined : s.maxHops,
      });
      byKey.set(key, (found = { id: String(entry.id), entry }));
      list.push(entry);
    }
    const map = Object.fromEntries(Object.entries(s.region.map ?? {}).filter(([, vlans]) => vlans !== ''));
    if (Object.keys(map).length > 0) found.entry.map = map;
    else if (s.region.map === null && Object.keys(found.entry.map as Json).length === 0) unmapped.push(s.name);
    idOf.set(s.name, found.id);
  }
  return { list, idOf, unmapped };
}

/** Numbers of ports and bundles of one switch: as observed, else the next that is free. */
export class Numbers {
  private readonly taken = new Set<number>();
  constructor(told: readonly (number | undefined)[]) {
    for (const n of told) if (n !== undefined) this.taken.add(n);
  }
  private readonly given = new Set<number>();
  of(told: number | undefined): number {
    if (told !== undefined && !this.given.has(told) && told >= PORT_NUMBER.min && told <= PORT_NUMBER.max)
      return this.give(told);
    let next = 1;
    while (this.taken.has(next) || this.given.has(next)) next++;
    return this.give(next);
  }
  private give(n: number): number {
    this.given.add(n);
    return n;
  }
}

/** A list of VLANs as a design says it; nothing where it is all there are. */
export function vlansFor(set: string | undefined, all: readonly number[]): string | undefined {
  if (set === undefined) return undefined;
  const parsed = parseVlanRanges(set);
  if (!parsed.ok) return undefined;
  const carried = new Set(parsed.vlans);
  return all.every((v) => carried.has(v)) ? undefined : set === '' ? undefined : set;
}
