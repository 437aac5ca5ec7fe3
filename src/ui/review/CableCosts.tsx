'use client';
import Button from '@mui/material/Button';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { addElement, setField, switchById } from '../../core/design';
import type { CableCost, CablePlace, Design } from '../../core/design';
import { PORT_COST } from '../../core/review';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import styles from './CableCosts.module.css';

const TIERS = ['core', 'distribution', 'access'] as const;

/** A place by what a choice calls it. */
function placeOf(key: string): CablePlace {
  const [kind, ...rest] = key.split(' ');
  const name = rest.join(' ');
  if (kind === 'switch') return { switch: name };
  return kind === 'tier' ? { tier: name as (typeof TIERS)[number] } : { group: name };
}

const placeWords = (design: Design, place: CablePlace): string => {
  if ('switch' in place) return switchById(design, place.switch)?.name ?? 'a switch that is gone';
  return 'tier' in place ? `any ${place.tier} switch` : place.group;
};

function PlaceField({ label, value, onSet }: { label: string; value: string; onSet: (value: string) => void }) {
  const design = useSession((s) => s.design);
  const groups = [...new Set(design.switches.flatMap((s) => s.group ?? []))].sort();
  return (
    <Select
      displayEmpty
      value={value}
      onChange={(e) => onSet(e.target.value)}
      inputProps={{ 'aria-label': label }}
      MenuProps={{ slotProps: { paper: { sx: { maxHeight: 420 } } } }}
    >
      <MenuItem value="">{label}…</MenuItem>
      {TIERS.map((tier) => (
        <MenuItem key={tier} value={`tier ${tier}`}>
          any {tier} switch
        </MenuItem>
      ))}
      {groups.length > 0 && <ListSubheader>groups</ListSubheader>}
      {groups.map((group) => (
        <MenuItem key={group} value={`group ${group}`}>
          {group}
        </MenuItem>
      ))}
      <ListSubheader>switches</ListSubheader>
      {design.switches.map((s) => (
        <MenuItem key={s.id} value={`switch ${s.id}`}>
          {s.name}
        </MenuItem>
      ))}
    </Select>
  );
}

/** A cost as it is typed: nothing for a cable that cannot be laid. */
function CostField({
  cost,
  label,
  onSet,
}: {
  cost: number | undefined;
  label: string;
  onSet: (text: string) => boolean;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    // What is refused stays as it was typed.
    if (typed !== null && onSet(typed.trim())) setTyped(null);
  };
  return (
    <TextField
      value={typed ?? cost ?? ''}
      placeholder="none"
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === 'Enter' && done()}
      slotProps={{ htmlInput: { 'aria-label': label, className: `mono ${styles.number}` } }}
    />
  );
}

/** A typed cost as the document has it: none where nothing is typed; what is no number is left for the document to refuse. */
const costValue = (text: string): number | string | null =>
  text === '' ? null : Number.isNaN(Number(text)) ? text : Number(text);

function CostRow({ row }: { row: CableCost }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const words = `${placeWords(design, row.from)} – ${placeWords(design, row.to)}`;
  return (
    <li className={styles.row}>
      <span>{words}</span>
      <CostField
        cost={row.cost}
        label={`Cost of a cable ${words}`}
        onSet={(text) => edit(`Cost of a cable ${words}`, [setField('cableCost', row.id, 'cost', costValue(text))])}
      />
      <span className="quiet small">{row.cost === undefined ? 'cannot be laid' : ''}</span>
      <button
        className="plain quiet"
        aria-label={`Delete the cost of a cable ${words}`}
        onClick={() => edit(`No cost of a cable ${words}`, [{ type: 'remove', kind: 'cableCost', id: row.id }])}
      >
        ×
      </button>
    </li>
  );
}

function NewCost() {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [cost, setCost] = useState('');
  const add = () => {
    const value = costValue(cost.trim());
    const row = {
      id: newId('cable'),
      from: placeOf(from),
      to: placeOf(to),
      ...(value === null ? {} : { cost: value }),
    };
    const words = `${placeWords(design, row.from)} – ${placeWords(design, row.to)}`;
    if (!edit(`Cost of a cable ${words}`, [addElement('cableCost', row as CableCost)])) return;
    setFrom('');
    setTo('');
    setCost('');
  };
  return (
    <form
      className={styles.row}
      aria-label="New cost of a cable"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <span className={styles.places}>
        <PlaceField label="from" value={from} onSet={setFrom} />
        <PlaceField label="to" value={to} onSet={setTo} />
      </span>
      <TextField
        value={cost}
        placeholder="none"
        onChange={(e) => setCost(e.target.value)}
        slotProps={{ htmlInput: { 'aria-label': 'Cost', className: `mono ${styles.number}` } }}
      />
      <Button type="submit" disabled={!from || !to}>
        Add
      </Button>
    </form>
  );
}

/** What new cables cost, and where none can be laid: kept in the design. */
export function CableCosts() {
  const rows = useSession((s) => s.design.cableCosts);
  return (
    <section aria-label="What cables cost">
      <h3>What cables cost</h3>
      <p className="quiet small">
        Of the fewest cables the cheapest are found. A cable costs 1 unless a row says otherwise; no number: none can be
        laid there. Two named switches say more than their groups or tiers. An end without a free port adds {PORT_COST}.
      </p>
      <ul className={styles.rows}>
        {rows.map((row) => (
          <CostRow key={row.id} row={row} />
        ))}
      </ul>
      <NewCost />
    </section>
  );
}
