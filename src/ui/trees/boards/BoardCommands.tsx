'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useState } from 'react';
import { count } from '../../../core/standard';
import type { SolvedDesign } from '../../../core/trees';

interface CommandsProps {
  design: SolvedDesign['topology']['design'];
  picked: number;
  onTier: (tier: 'core' | 'distribution' | 'access') => void;
  onBalance: (pair: [string, string], by: 'number' | 'load') => void;
}

/** Gestures for many trees at once: a tier out of the race, two-sided balance. */
export function BoardCommands({ design, picked, onTier, onBalance }: CommandsProps) {
  const tiers = (['access', 'distribution', 'core'] as const).filter((t) => design.switches.some((s) => s.tier === t));
  const cores = design.switches.filter((s) => s.tier === 'core');
  const usual = cores.length > 1 ? cores : design.switches;
  const [pair, setPair] = useState<[string, string]>([usual[0]?.id ?? '', usual[1]?.id ?? '']);
  const [by, setBy] = useState<'number' | 'load'>('number');
  const choice = (side: 0 | 1) => (
    <Select
      value={pair[side]}
      onChange={(e) => setPair(side === 0 ? [e.target.value, pair[1]] : [pair[0], e.target.value])}
      inputProps={{ 'aria-label': side === 0 ? 'First root of the balance' : 'Second root of the balance' }}
    >
      {design.switches.map((s) => (
        <MenuItem key={s.id} value={s.id}>
          {s.name}
        </MenuItem>
      ))}
    </Select>
  );
  return (
    <div className="board-commands">
      <span className="quiet">{picked > 0 ? `${count(picked, 'tree')} picked:` : 'all trees:'}</span>
      <span>
        balance over {choice(0)} and {choice(1)} by{' '}
        <Select value={by} onChange={(e) => setBy(e.target.value)} inputProps={{ 'aria-label': 'Balance by' }}>
          <MenuItem value="number">number</MenuItem>
          <MenuItem value="load">load</MenuItem>
        </Select>{' '}
        <Button onClick={() => onBalance(pair, by)}>Balance</Button>
      </span>
      {tiers.length > 0 && (
        <span>
          <span className="quiet">never root: </span>
          {tiers.map((tier) => (
            <Button key={tier} title={`Never root: the ${tier} tier`} onClick={() => onTier(tier)}>
              {tier}
            </Button>
          ))}
        </span>
      )}
    </div>
  );
}
