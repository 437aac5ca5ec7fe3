'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
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
  removeInstance,
} from '../../../core/network';
import { INSTANCE_ID, formatVlanRanges, parseVlanRanges, instanceTreeId } from '../../../core/standard';
import { useBench, useSession } from '../../session/context';
import { Field } from '../../controls/Field';
import { InstanceColumn, instanceName, vlansIn } from './InstanceColumn';

/** The VLAN-to-instance map of a region, or of one switch alone, as a board on which VLANs are moved. */
export function RegionMap() {
  const { edit, say, setView } = useBench();
  const design = useSession((s) => s.design);
  const [regionId, setRegionId] = useState<string | null>(null);
  const [at, setAt] = useState('');
  const [text, setText] = useState('');
  const [to, setTo] = useState(1);
  const region = design.regions.find((r) => r.id === regionId) ?? design.regions[0];
  const members = mstSwitches(design);
  const own = members.find((s) => s.id === at);
  const config = own ? mstConfigOf(design, own) : null;
  const map = useMemo(() => config?.map ?? regionMap(region), [config, region]);
  const digest = config?.digest ?? (region ? configurationDigest(map) : '');
  const columns = useMemo(() => {
    const used = new Set([0, ...Object.keys(region?.map ?? {}).map(Number), ...map]);
    return [...used].sort((a, b) => a - b);
  }, [region, map]);
  const chosen = new Set(text === '' ? [] : vlansIn(text));

  const addRegion = (base: Partial<Region> = {}) => {
    const n = design.regions.length + 1;
    const ids = new Set(design.regions.map((r) => r.id));
    let id = `region-${n}`;
    while (ids.has(id)) id += '-a';
    const value = { id, name: `region-${n}`, revision: 0, map: {}, ...base };
    if (edit(`Add region ${value.name}`, [{ type: 'add', kind: 'region', value: value }])) setRegionId(id);
  };
  const move = (vlans: readonly number[], instance: number) => {
    if (!region) return;
    const edits = own ? moveVlansAt(own, region, vlans, instance) : moveVlans(region, vlans, instance);
    const where = own ? ` on ${own.name} alone` : '';
    if (edits.length === 0) return say({ text: `They are in ${instanceName(instance)} already.` });
    const words = `${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${formatVlanRanges(vlans)}`;
    if (edit(`${words} to ${instanceName(instance)}${where}`, edits)) setText('');
  };
  const moveTyped = () => {
    const parsed = parseVlanRanges(text);
    if (!parsed.ok || parsed.vlans.length === 0)
      return say({
        text: parsed.ok
          ? 'Enter the VLANs: numbers and ranges such as 110-140,199, or pick them on the board.'
          : `'${parsed.part}' is not a VLAN: write numbers from 1 to 4094 and ranges such as 110-140,199.`,
        alarm: true,
      });
    move(parsed.vlans, to);
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
  if (!region)
    return (
      <p className="board-lead">
        No region yet: every switch is its own region, named after its MAC address.{' '}
        <Button variant="contained" onClick={() => addRegion()}>
          Make a region
        </Button>
      </p>
    );
  return (
    <section aria-label="VLAN-to-instance map">
      <div className="region-head">
        {design.regions.length > 1 && (
          <label className="field">
            <span className="quiet">region</span>
            <Select
              value={region.id}
              onChange={(e) => setRegionId(e.target.value)}
              inputProps={{ 'aria-label': 'Region' }}
            >
              {design.regions.map((r) => (
                <MenuItem key={r.id} value={r.id}>
                  {r.name || '(no name)'} · {r.revision}
                </MenuItem>
              ))}
            </Select>
          </label>
        )}
        <Field
          key={`n ${region.id}`}
          label="name"
          width={150}
          value={region.name}
          onSet={(name) => edit(`Region name: ${name}`, [setField('region', region.id, 'name', name)])}
        />
        <Field
          key={`r ${region.id}`}
          label="revision"
          width={70}
          value={String(region.revision)}
          onSet={(v) =>
            edit(`Revision of ${region.name}: ${v}`, [
              setField('region', region.id, 'revision', /^\d+$/.test(v.trim()) ? Number(v) : v),
            ])
          }
        />
        <span className="digest">
          <span className="quiet">digest{own ? ` of ${own.name}` : ''}</span>{' '}
          <span className="mono" title="Configuration digest, as the protocol compares it">
            {digest}
          </span>
        </span>
        <span className="grow" />
        <Button onClick={() => addRegion()}>Add a region</Button>
        {design.regions.length > 1 && (
          <Button
            onClick={() =>
              edit(`Delete region ${region.name}`, [
                ...design.switches.flatMap((s) =>
                  s.region === region.id ? [setField('switch', s.id, 'region', null)] : [],
                ),
                { type: 'remove', kind: 'region', id: region.id },
              ])
            }
          >
            Delete it
          </Button>
        )}
      </div>
      <div className="instance-columns">
        {columns.map((instance) => (
          <InstanceColumn
            key={instance}
            instance={instance}
            vlans={design.vlans.filter((v) => map[v.number] === instance).map((v) => v.number)}
            total={countOf(map, instance)}
            chosen={chosen}
            deviates={own !== undefined && Object.values(own.vlanInstance ?? {}).includes(instance)}
            onToggle={toggle}
            onDrop={(chip) => {
              const dragged = vlansIn(chip);
              move(dragged.every((v) => chosen.has(v)) ? [...chosen] : dragged, instance);
            }}
            onOpen={() => setView({ tree: instanceTreeId(instance), board: 'chart' })}
            onRemove={
              instance === 0 || own
                ? null
                : () => edit(`Delete instance ${instance}: its VLANs go to the CIST`, removeInstance(region, instance))
            }
          />
        ))}
        <button className="plain instance-new" onClick={addInstance} disabled={own !== undefined}>
          + instance
        </button>
      </div>
      <div className="board-commands">
        <TextField
          value={text}
          placeholder="VLANs, such as 110-140,199"
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && moveTyped()}
          sx={{ width: 210 }}
          slotProps={{ htmlInput: { 'aria-label': 'VLANs to move', className: 'mono' } }}
        />
        <span>to</span>
        <Select
          value={columns.includes(to) ? to : 0}
          onChange={(e) => setTo(Number(e.target.value))}
          inputProps={{ 'aria-label': 'Instance to move to' }}
        >
          {columns.map((i) => (
            <MenuItem key={i} value={i}>
              {instanceName(i)}
            </MenuItem>
          ))}
        </Select>
        <span>for</span>
        <Select value={at} onChange={(e) => setAt(e.target.value)} displayEmpty inputProps={{ 'aria-label': 'Map of' }}>
          <MenuItem value="">the whole region</MenuItem>
          {members.map((s) => (
            <MenuItem key={s.id} value={s.id}>
              {s.name} alone
            </MenuItem>
          ))}
        </Select>
        <Button variant="contained" onClick={moveTyped}>
          Move
        </Button>
      </div>
    </section>
  );
}

const countOf = (map: Uint16Array, instance: number): number => {
  let count = 0;
  for (let vlan = 1; vlan < 4095; vlan++) if (map[vlan] === instance) count++;
  return count;
};
