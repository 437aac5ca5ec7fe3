'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { api } from '../session/api';
import type { ImportFiles } from '../session/api';
import { Refusal } from '../session/types';
import type { ApiFault, DesignHead } from '../session/types';

const KINDS = [
  { kind: 'json', label: 'Design (JSON)', accept: '.json,application/json' },
  { kind: 'switches', label: 'Switches (CSV)', accept: '.csv,text/csv' },
  { kind: 'links', label: 'Links (CSV)', accept: '.csv,text/csv' },
  { kind: 'vlans', label: 'VLANs (CSV), if any', accept: '.csv,text/csv' },
] as const;

/** Files larger than this are refused by the server; saying so at once spares the upload. */
const LARGEST = 7_500_000;

const nameOf = (files: Partial<Record<string, File>>) =>
  (files.json ?? files.switches)?.name.replace(/\.(json|csv)$/i, '').slice(0, 100) ?? '';

async function readAll(files: Partial<Record<string, File>>): Promise<ImportFiles> {
  const entries = Object.entries(files).filter((e): e is [string, File] => e[1] !== undefined);
  const read = entries.map(async ([kind, file]) => [kind, { file: file.name, text: await file.text() }] as const);
  return Object.fromEntries(await Promise.all(read));
}

/** A design from a file, or from tables. All of it comes in, or nothing and every refused place is named. */
export function ImportDialog({ onDone, onClose }: { onDone: (head: DesignHead) => void; onClose: () => void }) {
  const [files, setFiles] = useState<Partial<Record<string, File>>>({});
  const [name, setName] = useState<string | null>(null);
  const [faults, setFaults] = useState<readonly ApiFault[]>([]);
  const [busy, setBusy] = useState(false);
  const ready = files.json !== undefined || (files.switches !== undefined && files.links !== undefined);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const large = Object.values(files).find((f) => f && f.size > LARGEST);
    if (large) {
      const sentence = `The file has ${Math.round(large.size / 1e6)} MB; up to ${LARGEST / 1e6} MB are taken in at once.`;
      return setFaults([{ path: large.name, sentence }]);
    }
    setBusy(true);
    try {
      onDone(await api.importDesign((name ?? nameOf(files)) || 'Imported design', await readAll(files)));
    } catch (error) {
      const sentence = error instanceof Error ? error.message : String(error);
      setFaults(error instanceof Refusal && error.faults.length > 0 ? error.faults : [{ path: '', sentence }]);
      setBusy(false);
    }
  };

  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <form onSubmit={submit}>
        <DialogTitle>Import a design</DialogTitle>
        <DialogContent>
          <p className="quiet">Either a design file, or a table of switches together with a table of links.</p>
          {KINDS.map(({ kind, label, accept }) => (
            <label key={kind} className="file-row">
              <span>{label}</span>
              <input
                type="file"
                accept={accept}
                onChange={(e) => {
                  setFiles({ ...files, [kind]: e.target.files?.[0] });
                  setFaults([]);
                }}
              />
            </label>
          ))}
          <label className="file-row">
            <span>Name</span>
            <TextField value={name ?? nameOf(files)} onChange={(e) => setName(e.target.value)} />
          </label>
          {faults.length > 0 && (
            <ul className="fault-list" role="alert" aria-label="Nothing was imported">
              {faults.map((fault, i) => (
                <li key={i}>
                  {fault.path && <b>{fault.path}: </b>}
                  {fault.sentence}
                </li>
              ))}
            </ul>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!ready || busy}>
            {busy ? 'Importing…' : 'Import'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
