'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';

interface Props {
  title: string;
  label: string;
  initial: string;
  action: string;
  /** Rejects with the sentence to show. */
  onSubmit: (name: string) => Promise<unknown>;
  onClose: () => void;
}

/** Asks for one name. */
export function NameDialog({ title, label, initial, action, onSubmit, onClose }: Props) {
  const [name, setName] = useState(initial);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await onSubmit(name);
      onClose();
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <form onSubmit={submit}>
        <DialogTitle>{title}</DialogTitle>
        <DialogContent>
          <TextField
            autoFocus
            fullWidth
            value={name}
            onChange={(e) => setName(e.target.value)}
            onFocus={(e) => e.target.select()}
            error={fault !== null}
            helperText={fault}
            slotProps={{ htmlInput: { 'aria-label': label } }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={busy}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
