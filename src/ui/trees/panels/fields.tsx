'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';
import type { InForce } from '../../../core/design';
import { COST_RANGE, grouped } from '../../../core/standard';
import type { CostScale } from '../../../core/standard';

import { useBench } from '../../session/context';

/** A change is tried out once typing rests. */
const TRY_AFTER_MS = 250;

const SOURCE = {
  default: 'default',
  'all-trees': 'set for all trees',
  vlan: 'set for this VLAN',
  instance: 'set for this instance',
} as const;

export const sourceWord = (inForce: InForce, otherwise: string = SOURCE.default): string =>
  inForce.source === 'default' ? otherwise : SOURCE[inForce.source];

interface StepsProps {
  label: string;
  inForce: InForce;
  steps: readonly number[];
  disabled?: boolean;
  /** Of many things that differ: none of the steps is shown as theirs. */
  mixed?: boolean;
  onPick: (value: number | null) => void;
  /** Told of a step that is looked at before it is picked; null when none is any more. */
  onTry?: (value: number | null) => void;
}

const MIXED = 'mixed';

/** A priority, picked from its legal steps. */
export function StepPicker({ label, inForce, steps, disabled, mixed = false, onPick, onTry }: StepsProps) {
  const { dropDraft } = useBench();
  const tried = useRef(false);
  // A list that closes still passes under the pointer for a moment: that is no look at a step.
  const open = useRef(false);
  const look = (value: number | null) => {
    if (!onTry || !open.current || (value === inForce.value && !mixed)) return;
    tried.current = true;
    onTry(value);
  };
  return (
    <Select
      className="mono"
      value={mixed ? MIXED : String(inForce.value)}
      disabled={disabled}
      onOpen={() => void (open.current = true)}
      onClose={() => {
        open.current = false;
        if (tried.current) dropDraft();
        tried.current = false;
      }}
      onChange={(e) => onPick(e.target.value === '' ? null : Number(e.target.value))}
      inputProps={{ 'aria-label': label }}
      renderValue={(value) => <span className="mono">{value}</span>}
      displayEmpty
      MenuProps={{ slotProps: { paper: { sx: { maxHeight: 420 } } } }}
    >
      {mixed && (
        <MenuItem value={MIXED} disabled className="mono">
          {MIXED}
        </MenuItem>
      )}
      {steps.map((step) => (
        <MenuItem
          key={step}
          value={String(step)}
          className="mono"
          onFocus={() => look(step)}
          onMouseEnter={() => look(step)}
        >
          {step}
        </MenuItem>
      ))}
      <MenuItem value="">back to the default</MenuItem>
    </Select>
  );
}

interface CostProps {
  label: string;
  inForce: InForce;
  scale: CostScale;
  disabled?: boolean;
  /** Told of a legal value while it is typed. */
  onTry?: (value: number | null) => void;
  onSet: (value: number | null) => void;
}

/** What is wrong with a typed cost; null when it is right. */
export function costFault(text: string, scale: CostScale): string | null {
  const { min, max } = COST_RANGE[scale];
  const value = Number(text.replace(/[\s\u00a0]/g, ''));
  if (text.trim() === '' || (Number.isInteger(value) && value >= min && value <= max)) return null;
  const near = Number.isFinite(value)
    ? `; the nearest is ${grouped(Math.min(max, Math.max(min, Math.round(value))))}`
    : '';
  return `${text} is not a legal cost: a whole number from ${min} to ${grouped(max)} on the ${scale === 'long' ? '32-bit' : '16-bit'} scale${near}.`;
}

/** A port path cost, typed; empty gives it back to the speed. */
export function CostField({ label, inForce, scale, disabled, onSet, onTry }: CostProps) {
  const { draft: trial, dropDraft } = useBench();
  const tried = useRef(false);
  const [draft, setDraft] = useState<string | null>(null);
  const fault = draft === null ? null : costFault(draft, scale);
  const shown = draft ?? (inForce.source === 'default' ? '' : String(inForce.value));
  // Dropped at the bar below: what was typed goes with it.
  useEffect(() => {
    if (trial || !tried.current) return;
    tried.current = false;
    setDraft(null);
  }, [trial]);
  useEffect(() => {
    if (draft === null || fault || !onTry) return;
    const timer = setTimeout(() => {
      const text = draft.replace(/[\s\u00a0]/g, '');
      const value = text === '' ? null : Number(text);
      if (value === (inForce.source === 'default' ? null : inForce.value)) return;
      tried.current = true;
      onTry(value);
    }, TRY_AFTER_MS);
    return () => clearTimeout(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [draft, fault]);
  const commit = () => {
    if (draft === null || fault) return;
    tried.current = false;
    const text = draft.replace(/[\s\u00a0]/g, '');
    const next = text === '' ? null : Number(text);
    const now = inForce.source === 'default' ? null : inForce.value;
    if (next !== now) onSet(next);
    setDraft(null);
  };
  return (
    <TextField
      fullWidth
      value={shown}
      disabled={disabled}
      placeholder={`${grouped(inForce.value)} by speed`}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={(e) => {
        // Whoever goes to the bar below looks at the change first.
        if (!e.relatedTarget?.closest('.draft')) commit();
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter') commit();
        if (e.key !== 'Escape') return;
        setDraft(null);
        if (tried.current) dropDraft();
        tried.current = false;
      }}
      error={fault !== null}
      helperText={fault}
      slotProps={{ htmlInput: { 'aria-label': label, inputMode: 'numeric', className: 'mono' } }}
    />
  );
}
