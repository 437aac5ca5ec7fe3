'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { makePair, pairOf } from '../../core/design';
import { newId } from '../session/new-id';
import { useSession } from '../session/context';
import { useBundleEdits } from './useBundleEdits';
import styles from './MakePair.module.css';

/** Two switches to be presented to all others as one. */
export function MakePair({ onMade }: { onMade: (id: string) => void }) {
  const design = useSession((s) => s.design);
  const run = useBundleEdits();
  const [ends, setEnds] = useState<readonly [string, string]>(['', '']);
  const free = design.switches.filter((s) => !pairOf(design, s.id));
  if (free.length < 2) return null;
  const choice = (side: 0 | 1, label: string) => (
    <select
      aria-label={label}
      value={ends[side]}
      onChange={(e) => setEnds(side === 0 ? [e.target.value, ends[1]] : [ends[0], e.target.value])}
    >
      <option value="">{label}</option>
      {free.map((s) => (
        <option key={s.id} value={s.id} disabled={ends[1 - side] === s.id}>
          {s.name}
        </option>
      ))}
    </select>
  );
  const make = () => {
    const result = makePair(design, ends[0], ends[1], newId);
    if (!run('Make a pair', result) || !result.ok) return;
    const [edit] = result.edits;
    if (edit?.type === 'add') onMade(edit.value.id);
    setEnds(['', '']);
  };
  return (
    <div className={styles.makePair}>
      {choice(0, 'primary')}
      {choice(1, 'second')}
      <Button disabled={ends.includes('')} onClick={make}>
        Make a pair
      </Button>
    </div>
  );
}
