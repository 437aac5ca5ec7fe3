'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import type { Design, Goal } from '../../../core/design';
import { useBench, useSession, useTree } from '../../session/context';
import { Label } from '../../controls/Term';
import { TYPES, draftFrom, goalOf, portOptions } from './goal-draft';
import type { Draft } from './goal-draft';
import styles from './GoalForm.module.css';

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
