'use client';
/** The VLAN-to-instance map that is edited: of a region, or of one switch of it alone. */
import { useMemo, useState } from 'react';
import { setField } from '../../../core/design';
import type { Region } from '../../../core/design';
import {
  configurationDigest,
  moveVlans,
  moveVlansAt,
  mstConfigOf,
  mstSwitches,
  regionMap,
} from '../../../core/network';
import { INSTANCE_ID, formatVlanRanges, parseVlanRanges } from '../../../core/standard';
import { useBench, useSession } from '../../session/context';
import { instanceName, vlansIn } from './InstanceColumn';

const NO_VLANS = 'Enter the VLANs: numbers and ranges such as 110-140,199, or pick them on the board.';

/** Which region, which switch, and their map. */
function useChosenMap() {
  const design = useSession((s) => s.design);
  const [regionId, setRegionId] = useState<string | null>(null);
  const [at, setAt] = useState('');
  const region = design.regions.find((r) => r.id === regionId) ?? design.regions[0];
  const members = mstSwitches(design);
  const own = members.find((s) => s.id === at);
  const config = own ? mstConfigOf(design, own) : null;
  const map = useMemo(() => config?.map ?? regionMap(region), [config, region]);
  const columns = useMemo(() => {
    const used = new Set([0, ...Object.keys(region?.map ?? {}).map(Number), ...map]);
    return [...used].sort((a, b) => a - b);
  }, [region, map]);
  const digest = config?.digest ?? (region ? configurationDigest(map) : '');
  return { design, region, setRegionId, members, own, at, setAt, map, columns, digest };
}

export function useRegionMap() {
  const { edit, say } = useBench();
  const chosenMap = useChosenMap();
  const { design, region, setRegionId, own, columns } = chosenMap;
  const [text, setText] = useState('');
  const [to, setTo] = useState(1);
  const chosen = new Set(text === '' ? [] : vlansIn(text));

  const addRegion = (base: Partial<Region> = {}) => {
    const n = design.regions.length + 1;
    const ids = new Set(design.regions.map((r) => r.id));
    let id = `region-${n}`;
    while (ids.has(id)) id += '-a';
    const value = { id, name: `region-${n}`, revision: 0, map: {}, ...base };
    if (edit(`Add region ${value.name}`, [{ type: 'add', kind: 'region', value }])) setRegionId(id);
  };
  const move = (vlans: readonly number[], instance: number) => {
    if (!region) return;
    const edits = own ? moveVlansAt(own, region, vlans, instance) : moveVlans(region, vlans, instance);
    if (edits.length === 0) return say({ text: `They are in ${instanceName(instance)} already.` });
    const words = `${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${formatVlanRanges(vlans)}`;
    if (edit(`${words} to ${instanceName(instance)}${own ? ` on ${own.name} alone` : ''}`, edits)) setText('');
  };
  const moveTyped = () => {
    const parsed = parseVlanRanges(text);
    if (parsed.ok && parsed.vlans.length > 0) return move(parsed.vlans, to);
    const wrong = parsed.ok
      ? NO_VLANS
      : `'${parsed.part}' is not a VLAN: write numbers from 1 to 4094 and ranges such as 110-140,199.`;
    say({ text: wrong, alarm: true });
  };
  const addInstance = () => {
    if (!region) return;
    let next: number = INSTANCE_ID.min;
    while (columns.includes(next)) next++;
    if (edit(`Add instance ${next}`, [setField('region', region.id, `map.${next}`, '')])) setTo(next);
  };
  const toggle = (chip: string) => {
    const vlans = vlansIn(chip);
    const next = new Set(chosen);
    const add = !vlans.every((v) => next.has(v));
    for (const v of vlans)
      if (add) next.add(v);
      else next.delete(v);
    setText(formatVlanRanges(next));
  };
  /** VLANs that were dragged; with them all that are chosen, when they are among these. */
  const drop = (chip: string, instance: number) => {
    const dragged = vlansIn(chip);
    move(dragged.every((v) => chosen.has(v)) ? [...chosen] : dragged, instance);
  };
  return { ...chosenMap, chosen, text, setText, to, setTo, addRegion, moveTyped, addInstance, toggle, drop };
}

export type RegionMapState = ReturnType<typeof useRegionMap>;
