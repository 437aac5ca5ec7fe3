'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import type { Intake, SourceFile } from '../../core/formats';
import { api } from '../session/api';
import type { DesignHead } from '../session/types';
import { FileChoice } from '../controls/FileChoice';
import { readFiles } from '../controls/files';
import { IntakeList } from '../controls/IntakeList';
import { useIntake } from '../controls/useIntake';

interface Props {
  /** Files that were dropped on the page. */
  readonly initial: readonly SourceFile[];
  readonly onDone: (head: DesignHead) => void;
  readonly onClose: () => void;
}

/** What the files are still short of to make a network; null for nothing. */
function lackOf(intake: Intake | null): string | null {
  const whole = intake?.files.some((f) => f.kind === 'design' || f.kind === 'graphml') ?? false;
  const tables = intake?.files.map((f) => f.kind) ?? [];
  if (!intake || whole || tables.includes('switches')) return null;
  return tables.includes('links')
    ? 'Links name switches: add the table of switches (switch,mac) too.'
    : 'Nothing in these files makes a network: add a design, a graph, or tables of switches and links.';
}

/** Files that are chosen, what they come to, and the design that is made of them. */
function useImport({ initial, onDone }: Pick<Props, 'initial' | 'onDone'>) {
  const [files, setFiles] = useState<readonly SourceFile[]>(initial);
  const [name, setName] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { intake, reading, fault: unread } = useIntake(null, files);
  const proposed =
    intake && intake.design.name !== 'Imported design'
      ? intake.design.name
      : (files[0]?.file.replace(/\.[^.]*$/, '').slice(0, 100) ?? '');
  const lacks = lackOf(intake);
  const add = async (chosen: File[]) => {
    const read = await readFiles(chosen);
    if (!read.ok) return setFault(read.sentence);
    setFault(null);
    setFiles((was) => [...was.filter((f) => !read.files.some((g) => g.file === f.file)), ...read.files]);
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!intake || lacks) return;
    setBusy(true);
    try {
      const called = (name ?? proposed).trim() || 'Imported design';
      onDone(await api.createDesign(called, { ...intake.design, name: called }));
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
      setBusy(false);
    }
  };
  return {
    files,
    clear: () => setFiles([]),
    add,
    submit,
    name: name ?? proposed,
    setName,
    intake,
    reading,
    ready: intake !== null && lacks === null && !busy,
    busy,
    fault: fault ?? unread ?? lacks,
  };
}

/** A new design from files; what comes in and what stays out is shown before anything happens. */
export function ImportDialog({ initial, onDone, onClose }: Props) {
  const { files, clear, add, submit, name, setName, intake, reading, ready, busy, fault } = useImport({
    initial,
    onDone,
  });
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <form onSubmit={submit}>
        <DialogTitle>Import a design</DialogTitle>
        <DialogContent>
          <p className="quiet">
            A design (JSON) or a graph (GraphML), or tables as CSV: switches, links and, optionally, VLANs. The kind of
            each file is detected from its content.
          </p>
          <FileChoice chosen={files.length} onFiles={(chosen) => void add(chosen)} />
          <label className="file-row">
            <span>Name</span>
            <TextField value={name} onChange={(e) => setName(e.target.value)} />
          </label>
          {intake && <IntakeList files={intake.files} />}
          {reading && (
            <p className="quiet" role="status">
              Reading the files…
            </p>
          )}
          {fault && (
            <p className="alarm" role="alert">
              {fault}
            </p>
          )}
        </DialogContent>
        <DialogActions>
          {files.length > 0 && <Button onClick={clear}>Other files</Button>}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!ready}>
            {busy ? 'Importing…' : intake?.files.some((f) => f.faults.length > 0) ? 'Import what fits' : 'Import'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
