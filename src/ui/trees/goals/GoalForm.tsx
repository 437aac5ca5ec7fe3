'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { linkById, switchById } from '../../../core/design';
import type { Design, Goal, PlaceRef } from '../../../core/design';
import { formatVlanRanges } from '../../../core/standard';
import { useBench, useSession, useTree } from '../../session/context';
import type { Ref } from '../../session/view';
import { Label } from '../../controls/Term';
import styles from './GoalForm.module.css';

const TYPES: Record<Goal['type'], string> = {
  root: 'A switch is root',
  cut: 'A port is the blocked one',
  carries: 'A link carries VLANs',
  path: 'Two places communicate within limits',
  'never-root': 'A tier never becomes root',
  load: 'No link carries too much',
  'stays-connected': 'Connected after any failure',
  outage: 'No failure interrupts for long',
  'load-left': 'No link too full after any failure',
};

interface Draft {
  readonly type: Goal['type'];
  readonly vlans: string;
  readonly switch: string;
  readonly next: string;
  readonly port: string;
  readonly only: boolean;
  readonly from: string;
  readonly to: string;
  readonly atMost: string;
  readonly avoid: string;
  readonly tier: 'core' | 'distribution' | 'access';
  readonly percent: string;
  readonly among: string;
  readonly seconds: string;
}

const placeKey = (p: { kind: string; id: string }) => `${p.kind} ${p.id}`;
const placeOf = (key: string): PlaceRef => {
  const [kind, ...id] = key.split(' ');
  return kind === 'host' ? { host: id.join(' ') } : { switch: id.join(' ') };
};

/** A draft as a goal, or a sentence about what is missing. */
function goalOf(draft: Draft): Goal | string {
  const base = { id: `goal-${nanoid(6)}`, vlans: draft.vlans.trim() || 'all' };
  switch (draft.type) {
    case 'root':
      if (!draft.switch) return 'Choose the switch that should be root.';
      return { ...base, type: 'root', switch: draft.switch, ...(draft.next ? { next: draft.next } : {}) };
    case 'cut':
    case 'carries':
      if (!draft.port) return 'Choose the port, or select it on the chart first.';
      if (draft.type === 'cut') return { ...base, type: 'cut', port: draft.port };
      return { ...base, type: 'carries', port: draft.port, ...(draft.only ? { only: true } : {}) };
    case 'path': {
      if (!draft.from || !draft.to) return 'Choose both ends of the path.';
      if (draft.from === draft.to) return 'Both ends are the same: choose two different places.';
      if (draft.atMost.trim() === '' && !draft.avoid) return 'Give a limit: hops at most, or a switch to avoid.';
      const hops = draft.atMost.trim() === '' ? {} : { atMost: Number(draft.atMost) };
      const avoid = draft.avoid ? { avoid: draft.avoid } : {};
      return { ...base, type: 'path', from: placeOf(draft.from), to: placeOf(draft.to), ...hops, ...avoid };
    }
    case 'never-root':
      return { ...base, type: 'never-root', tier: draft.tier };
    case 'load':
      return { ...base, vlans: 'all', type: 'load', percent: Number(draft.percent) };
    case 'stays-connected': {
      if (draft.among !== 'pair')
        return { ...base, type: 'stays-connected', among: draft.among === 'hosts' ? 'hosts' : 'switches' };
      if (!draft.from || !draft.to) return 'Choose both places.';
      if (draft.from === draft.to) return 'Both places are the same: choose two different ones.';
      return { ...base, type: 'stays-connected', among: { from: placeOf(draft.from), to: placeOf(draft.to) } };
    }
    case 'outage':
      return { ...base, vlans: 'all', type: 'outage', atMost: Number(draft.seconds) };
    case 'load-left':
      return { ...base, vlans: 'all', type: 'load-left', percent: Number(draft.percent) };
  }
}

/** Ports and bundles of switch-to-switch links, by name. */
function portOptions(design: Design): { id: string; name: string }[] {
  const bundled = new Set(design.bundles.flatMap((b) => b.members));
  const linked = new Set(
    design.links
      .flatMap((l) => ('port' in l.a && 'port' in l.b ? [l.a.port, l.b.port] : []))
      .concat(design.segments.flatMap((s) => s.ports)),
  );
  return [
    ...design.bundles.map((b) => ({ id: b.id, name: `${switchById(design, b.switch)?.name} ${b.name}` })),
    ...design.ports
      .filter((p) => linked.has(p.id) && !bundled.has(p.id))
      .map((p) => ({ id: p.id, name: `${switchById(design, p.switch)?.name} ${p.name}` })),
  ];
}

/** A draft filled in from what is selected and from the tree in view. */
function draftFrom(design: Design, selection: readonly Ref[], vlans: readonly number[]): Draft {
  const picked = (kind: string) => selection.find((r) => r.kind === kind)?.id ?? '';
  const link = linkById(design, picked('link'));
  const end = link && ('port' in link.a ? link.a.port : 'port' in link.b ? link.b.port : '');
  const places = selection.filter((r) => r.kind === 'switch' || r.kind === 'host').map(placeKey);
  const port = picked('port') || picked('bundle') || end || '';
  return {
    type: port ? 'cut' : places.length === 2 ? 'path' : 'root',
    vlans: formatVlanRanges(vlans) || 'all',
    switch: picked('switch'),
    next: '',
    port,
    only: false,
    from: places[0] ?? '',
    to: places[1] ?? '',
    atMost: '',
    avoid: '',
    tier: 'access',
    percent: '80',
    among: places.length === 2 ? 'pair' : 'switches',
    seconds: '1',
  };
}

interface Option {
  readonly id: string;
  readonly name: string;
}

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly onSet: (value: string) => void;
}

function ChoiceField({
  label,
  value,
  onSet,
  options,
  none,
}: FieldProps & { options: readonly Option[]; none?: string }) {
  return (
    <label className={styles.goalField}>
      <span className="quiet">
        <Label text={label} />
      </span>
      <Select
        displayEmpty
        value={options.some((o) => o.id === value) ? value : ''}
        onChange={(e) => onSet(e.target.value)}
        inputProps={{ 'aria-label': label }}
        MenuProps={{ slotProps: { paper: { sx: { maxHeight: 420 } } } }}
      >
        <MenuItem value="">{none ?? 'choose…'}</MenuItem>
        {options.map((o) => (
          <MenuItem key={o.id} value={o.id}>
            {o.name}
          </MenuItem>
        ))}
      </Select>
    </label>
  );
}

function TypedField({ label, value, onSet }: FieldProps) {
  return (
    <label className={styles.goalField}>
      <span className="quiet">
        <Label text={label} />
      </span>
      <TextField
        value={value}
        onChange={(e) => onSet(e.target.value)}
        slotProps={{ htmlInput: { 'aria-label': label, className: 'mono' } }}
      />
    </label>
  );
}

/** A new goal, filled in from what is selected and from the tree in view. */
export function GoalForm({ onAdd, onCancel }: { onAdd: (goal: Goal) => void; onCancel: (() => void) | null }) {
  const { view } = useBench();
  const design = useSession((s) => s.design);
  const of = useTree();
  const [fault, setFault] = useState('');
  const [draft, setDraft] = useState(() => draftFrom(design, view.selection, of?.tree.vlans ?? []));
  const change = (part: Partial<Draft>) => setDraft((d) => ({ ...d, ...part }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const goal = goalOf(draft);
    if (typeof goal === 'string') return setFault(goal);
    setFault('');
    onAdd(goal);
  };
  return (
    <form className={styles.goalForm} onSubmit={submit} aria-label="New goal">
      <label className={styles.goalField}>
        <span className="quiet">goal</span>
        <Select
          value={draft.type}
          onChange={(e) => change({ type: e.target.value })}
          inputProps={{ 'aria-label': 'Kind of goal' }}
        >
          {Object.entries(TYPES).map(([id, words]) => (
            <MenuItem key={id} value={id}>
              {words}
            </MenuItem>
          ))}
        </Select>
      </label>
      <Asked draft={draft} change={change} />
      {fault && <p className="alarm small">{fault}</p>}
      <div className="buttons">
        <Button type="submit" variant="contained">
          Add the goal
        </Button>
        {onCancel && <Button onClick={onCancel}>Cancel</Button>}
      </div>
    </form>
  );
}

type Text = { [K in keyof Draft]: Draft[K] extends string ? K : never }[keyof Draft];

/** Two places, hosts first. */
function Ends({ design, of }: { design: Design; of: (key: Text) => Pick<FieldProps, 'value' | 'onSet'> }) {
  const places = [
    ...design.hosts.map((h) => ({ id: `host ${h.id}`, name: h.name })),
    ...design.switches.map((s) => ({ id: `switch ${s.id}`, name: s.name })),
  ];
  return (
    <>
      <ChoiceField label="from" options={places} {...of('from')} />
      <ChoiceField label="to" options={places} {...of('to')} />
    </>
  );
}

/** The fields that the kind of goal needs. */
function Asked({ draft, change }: { draft: Draft; change: (part: Partial<Draft>) => void }) {
  const design = useSession((s) => s.design);
  const switches = design.switches.map((s) => ({ id: s.id, name: s.name }));
  const of = (key: Text) => ({ value: draft[key], onSet: (value: string) => change({ [key]: value }) });
  const vlans = <TypedField label="VLANs" {...of('vlans')} />;
  const ends = <Ends design={design} of={of} />;
  switch (draft.type) {
    case 'root':
      return (
        <>
          <ChoiceField label="root" options={switches} {...of('switch')} />
          <ChoiceField label="comes next" options={switches} none="anyone" {...of('next')} />
          {vlans}
        </>
      );
    case 'cut':
    case 'carries':
      return (
        <>
          <ChoiceField label="port or bundle" options={portOptions(design)} {...of('port')} />
          {draft.type === 'carries' && <OnlyField only={draft.only} onSet={(only) => change({ only })} />}
          {vlans}
        </>
      );
    case 'path':
      return (
        <>
          {ends}
          <TypedField label="hops at most" {...of('atMost')} />
          <ChoiceField label="not through" options={switches} none="any" {...of('avoid')} />
          {vlans}
        </>
      );
    case 'never-root':
      return (
        <>
          <ChoiceField label="tier" options={TIERS} {...of('tier')} />
          {vlans}
        </>
      );
    case 'load':
    case 'load-left':
      return <TypedField label="percent of the rate" {...of('percent')} />;
    case 'outage':
      return <TypedField label="seconds at most" {...of('seconds')} />;
    case 'stays-connected':
      return (
        <>
          <ChoiceField label="who" options={WHO} {...of('among')} />
          {draft.among === 'pair' && ends}
          {vlans}
        </>
      );
  }
}

const WHO = [
  { id: 'switches', name: 'all switches' },
  { id: 'hosts', name: 'all hosts' },
  { id: 'pair', name: 'two places' },
];
const TIERS = ['access', 'distribution', 'core'].map((name) => ({ id: name, name }));

function OnlyField({ only, onSet }: { only: boolean; onSet: (only: boolean) => void }) {
  return (
    <label className={styles.goalField}>
      <span className="quiet">other VLANs</span>
      <span>
        <input type="checkbox" checked={only} onChange={(e) => onSet(e.target.checked)} /> as backup only
      </span>
    </label>
  );
}
