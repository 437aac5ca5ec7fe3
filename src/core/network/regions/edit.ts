/** Edits of VLAN-to-instance maps: VLANs are moved, so that none is ever in two instances. */
import { setField } from '../../design';
import type { Edit, Region, Switch } from '../../design';
import { formatVlanRanges, vlanMembership } from '../../standard';
import { regionMap } from './config';

const rangesOf = (vlans: string): number[] => {
  const held = vlanMembership(vlans);
  return [...held.keys()].filter((vlan) => held[vlan]);
};

/** Moves VLANs of a region into an instance (0: back to the CIST); entries of instances that do not change stay as written. */
export function moveVlans(region: Region, vlans: readonly number[], instance: number): Edit[] {
  const moving = new Set(vlans);
  const edits: Edit[] = [];
  for (const [key, text] of Object.entries(region.map)) {
    if (Number(key) === instance) continue;
    const now = rangesOf(text);
    const left = now.filter((vlan) => !moving.has(vlan));
    if (left.length < now.length)
      edits.push(setField('region', region.id, `map.${Number(key)}`, formatVlanRanges(left)));
  }
  if (instance !== 0) {
    const now = rangesOf(region.map[String(instance)] ?? '');
    const next = formatVlanRanges([...now, ...moving]);
    if (next !== region.map[String(instance)]) edits.push(setField('region', region.id, `map.${instance}`, next));
  }
  return edits;
}

/** Moves VLANs on one switch alone: an entry that agrees with the region's map again goes away. */
export function moveVlansAt(s: Switch, region: Region | undefined, vlans: readonly number[], instance: number): Edit[] {
  const map = regionMap(region);
  return vlans.flatMap((vlan) => {
    const value = map[vlan] === instance ? null : instance;
    const now = s.vlanInstance?.[String(vlan)] ?? null;
    return value === now ? [] : [setField('switch', s.id, `vlanInstance.${vlan}`, value)];
  });
}

/** Takes an instance out of a region; its VLANs go back to the CIST. */
export const removeInstance = (region: Region, instance: number): Edit[] => [
  setField('region', region.id, `map.${instance}`, null),
];
