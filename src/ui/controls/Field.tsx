'use client';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Label } from './Term';

/** A text field that keeps what is typed until it is left. */
export function Field({
  label,
  value,
  width,
  usual = '',
  onSet,
}: {
  label: string;
  value: string;
  width: number;
  /** What an empty field means, shown in it. */
  usual?: string;
  onSet: (text: string) => boolean;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const commit = () => {
    if (draft !== null && draft !== value && !onSet(draft)) return;
    setDraft(null);
  };
  return (
    <label className="field">
      <span className="quiet">
        <Label text={label} />
      </span>
      <TextField
        value={draft ?? value}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') setDraft(null);
        }}
        sx={{ width }}
        placeholder={usual}
        slotProps={{ htmlInput: { 'aria-label': label, className: 'mono' } }}
      />
    </label>
  );
}
