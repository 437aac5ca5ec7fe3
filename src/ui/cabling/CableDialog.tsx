'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import type { Design } from '../../core/design';
import type { Chosen } from '../../core/editing';
import { documentMessages as say } from '../../core/messages';
import { speedCell } from '../../core/editing/tables';
import { cableAction, thingName } from './actions';
import { newId } from '../session/new-id';
import type { Cabling } from './useCabling';
import styles from './CableDialog.module.css';

interface Far extends Chosen {
  readonly label: string;
}

/** What a cable from a thing can lead to: switches, and from a switch hosts and segments too. */
function farsOf(design: Design, from: Chosen): Far[] {
  return [
    ...design.switches.map((s) => ({
      kind: 'switch' as const,
      id: s.id,
      label: s.id === from.id ? `${s.name} (itself)` : s.name,
    })),
    ...design.hosts.map((h) => ({ kind: 'host' as const, id: h.id, label: `${h.name} (host)` })),
    ...design.segments.map((s) => ({ kind: 'segment' as const, id: s.id, label: `${s.name} (segment)` })),
  ].filter((o) => from.kind === 'switch' || o.kind === 'switch');
}

/** A cable from the selected thing, by name: for those who do not drag. */
export function CableDialog({ cabling, from, onClose }: { cabling: Cabling; from: Chosen; onClose: () => void }) {
  const { design, make, speed } = cabling;
  const [to, setTo] = useState<Far | null>(null);
  const [count, setCount] = useState('1');
  const [rate, setRate] = useState(String(speed));
  const n = Number(count);
  const mbps = speedCell(rate);
  const countFault = Number.isInteger(n) && n >= 1 && n <= 64 ? null : 'From 1 to 64 cables.';
  const speedFault =
    Number.isInteger(mbps) && (mbps as number) >= 1 && (mbps as number) <= 1_000_000 ? null : say.speed(rate);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!to || countFault || speedFault) return;
    make(cableAction(design, from, [to], mbps as number, newId, n));
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <form onSubmit={submit}>
        <DialogTitle>Cable from {thingName(design, from)}</DialogTitle>
        <DialogContent>
          <div className={styles.cableForm}>
            <Autocomplete
              options={farsOf(design, from)}
              value={to}
              onChange={(_, value) => setTo(value)}
              openOnFocus
              autoHighlight
              isOptionEqualToValue={(a, b) => a.kind === b.kind && a.id === b.id}
              getOptionKey={(o) => `${o.kind} ${o.id}`}
              renderInput={(params) => <TextField {...params} label="To" autoFocus />}
            />
            <TextField
              label="Cables"
              value={count}
              onChange={(e) => setCount(e.target.value)}
              error={countFault !== null}
              helperText={countFault}
            />
            <TextField
              label="Speed, Mb/s"
              value={rate}
              onChange={(e) => setRate(e.target.value)}
              error={speedFault !== null}
              helperText={speedFault}
            />
          </div>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!to || countFault !== null || speedFault !== null}>
            Lay the cable
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
