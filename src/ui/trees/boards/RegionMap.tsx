'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { setField } from '../../../core/design';
import type { Region } from '../../../core/design';
import { removeInstance } from '../../../core/network';
import { instanceTreeId } from '../../../core/standard';
import { Field } from '../../controls/Field';
import { Term } from '../../controls/Term';
import { useBench } from '../../session/context';
import { InstanceColumn, instanceName } from './InstanceColumn';
import { useRegionMap } from './useRegionMap';
import type { RegionMapState } from './useRegionMap';
import styles from './RegionMap.module.css';

/** The VLAN-to-instance map of a region, or of one switch alone, as a board on which VLANs are moved. */
export function RegionMap() {
  const state = useRegionMap();
  const { region, addRegion } = state;
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
      <RegionHead region={region} state={state} />
      <Columns region={region} state={state} />
      <MoveForm state={state} />
    </section>
  );
}

interface PartProps {
  readonly region: Region;
  readonly state: RegionMapState;
}

function RegionChoice({ region, state: { design, setRegionId } }: PartProps) {
  return (
    <label className="field">
      <span className="quiet">region</span>
      <Select value={region.id} onChange={(e) => setRegionId(e.target.value)} inputProps={{ 'aria-label': 'Region' }}>
        {design.regions.map((r) => (
          <MenuItem key={r.id} value={r.id}>
            {r.name || '(no name)'} · {r.revision}
          </MenuItem>
        ))}
      </Select>
    </label>
  );
}

function RegionHead({ region, state }: PartProps) {
  const { edit } = useBench();
  const { design, own, digest, addRegion } = state;
  const several = design.regions.length > 1;
  const remove = () =>
    edit(`Delete region ${region.name}`, [
      ...design.switches.flatMap((s) => (s.region === region.id ? [setField('switch', s.id, 'region', null)] : [])),
      { type: 'remove', kind: 'region', id: region.id },
    ]);
  const setRevision = (text: string) => {
    const value = /^\d+$/.test(text.trim()) ? Number(text) : text;
    return edit(`Revision of ${region.name}: ${text}`, [setField('region', region.id, 'revision', value)]);
  };
  return (
    <div className={styles.regionHead}>
      {several && <RegionChoice region={region} state={state} />}
      <Field
        key={`n ${region.id}`}
        label="name"
        width={150}
        value={region.name}
        onSet={(name) => edit(`Region name: ${name}`, [setField('region', region.id, 'name', name)])}
      />
      <Field key={`r ${region.id}`} label="revision" width={70} value={String(region.revision)} onSet={setRevision} />
      <span className="digest">
        <span className="quiet">
          <Term id="digest">digest</Term>
          {own ? ` of ${own.name}` : ''}
        </span>{' '}
        <span className="mono">{digest}</span>
      </span>
      <span className="grow" />
      <Button onClick={() => addRegion()}>Add a region</Button>
      {several && <Button onClick={remove}>Delete it</Button>}
    </div>
  );
}

function Columns({ region, state }: PartProps) {
  const { edit, setView } = useBench();
  const { design, own, map, columns, chosen, toggle, drop, addInstance } = state;
  const remove = (instance: number) =>
    edit(`Delete instance ${instance}: its VLANs go to the CIST`, removeInstance(region, instance));
  return (
    <div className={styles.instanceColumns}>
      {columns.map((instance) => (
        <InstanceColumn
          key={instance}
          instance={instance}
          vlans={design.vlans.filter((v) => map[v.number] === instance).map((v) => v.number)}
          total={countOf(map, instance)}
          chosen={chosen}
          deviates={own !== undefined && Object.values(own.vlanInstance ?? {}).includes(instance)}
          onToggle={toggle}
          onDrop={(chip) => drop(chip, instance)}
          onOpen={() => setView({ tree: instanceTreeId(instance), board: 'chart' })}
          onRemove={instance === 0 || own ? null : () => remove(instance)}
        />
      ))}
      <button className={`plain ${styles.instanceNew}`} onClick={addInstance} disabled={own !== undefined}>
        + instance
      </button>
    </div>
  );
}

function MoveForm({ state }: { state: RegionMapState }) {
  const { text, setText, to, setTo, at, setAt, columns, members, moveTyped } = state;
  return (
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
  );
}

/** VLANs that a map puts into an instance, of all 4094. */
const countOf = (map: Uint16Array, instance: number): number => {
  let count = 0;
  for (let vlan = 1; vlan < 4095; vlan++) if (map[vlan] === instance) count++;
  return count;
};
