/** What keeps two switches out of one region: name, revision, or single VLANs of their maps. */
import { analysisMessages as say } from '../../messages';
import { formatVlanRanges, VLAN_ID } from '../../standard';
import type { InstanceMap, MstConfig } from './config';

/** VLANs that the one has in this instance and the other in that one. */
export interface MapDifference {
  readonly vlans: string;
  readonly count: number;
  readonly a: number;
  readonly b: number;
}

export interface ConfigDifference {
  readonly name: boolean;
  readonly revision: boolean;
  readonly digest: boolean;
  readonly vlans: readonly MapDifference[];
}

/** VLANs mapped differently, those with the same pair of instances together. */
export function mapDifferences(a: InstanceMap, b: InstanceMap): MapDifference[] {
  const pairs = new Map<number, number[]>();
  for (let vlan = VLAN_ID.min; vlan <= VLAN_ID.max; vlan++) {
    if (a[vlan] === b[vlan]) continue;
    const pair = a[vlan]! * 4096 + b[vlan]!;
    const list = pairs.get(pair);
    if (list) list.push(vlan);
    else pairs.set(pair, [vlan]);
  }
  return [...pairs].map(([pair, vlans]) => ({
    vlans: formatVlanRanges(vlans),
    count: vlans.length,
    a: Math.floor(pair / 4096),
    b: pair % 4096,
  }));
}

/** Compares two configurations as the protocol does, and says what the digest hides. */
export function compareConfigs(a: MstConfig, b: MstConfig): ConfigDifference {
  return {
    name: a.name !== b.name,
    revision: a.revision !== b.revision,
    digest: a.digest !== b.digest,
    vlans: a.digest === b.digest ? [] : mapDifferences(a.map, b.map),
  };
}

/** One sentence a difference, with the names of the two switches; one sentence when there is none. */
export function differenceSentences(nameA: string, a: MstConfig, nameB: string, b: MstConfig): string[] {
  const found = compareConfigs(a, b);
  const sentences: string[] = [];
  if (found.name) sentences.push(say['region-name']({ a: nameA, b: nameB, nameA: a.name, nameB: b.name }));
  if (found.revision)
    sentences.push(say['region-revision']({ a: nameA, b: nameB, revisionA: a.revision, revisionB: b.revision }));
  for (const { vlans, count, a: one, b: other } of found.vlans)
    sentences.push(say['region-map']({ a: nameA, b: nameB, vlans, one: count === 1, mapA: one, mapB: other }));
  if (sentences.length === 0) return [say['same-region']({ a: nameA, b: nameB })];
  return sentences;
}
