'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import type { Intake, SourceFile } from '../../core/formats';
import type { Design } from '../../core/design';
import { FileChoice } from '../controls/FileChoice';
import { readFiles } from '../controls/files';
import { IntakeList } from '../controls/IntakeList';
import { useIntake } from '../controls/useIntake';

interface Props {
  readonly design: Design;
  readonly initial: readonly SourceFile[];
  readonly onTake: (intake: Intake) => void;
  readonly onClose: () => void;
}

/** Files taken into the open variant: rows that it has are changed, the others come in beside them. */
export function IntakeDialog({ design, initial, onTake, onClose }: Props) {
  const [files, setFiles] = useState<readonly SourceFile[]>(initial);
  const [fault, setFault] = useState<string | null>(null);
  const { intake, reading, fault: unread } = useIntake(design, files);
  const brings = intake !== null && (intake.edits.length > 0 || intake.receptions.length > 0);
  const add = async (chosen: File[]) => {
    const read = await readFiles(chosen);
    if (!read.ok) return setFault(read.sentence);
    setFault(null);
    setFiles((was) => [...was.filter((f) => !read.files.some((g) => g.file === f.file)), ...read.files]);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <DialogTitle>Import files</DialogTitle>
      <DialogContent>
        <p className="quiet">
          Tables of switches, links, VLANs or neighbours (CSV), LLDP neighbours (JSON, one file or folder a switch), a
          graph (GraphML) or another design (JSON). Rows of existing elements change them; other rows are added. One
          undo reverts all of it.
        </p>
        <FileChoice chosen={files.length} onFiles={(chosen) => void add(chosen)} />
        {intake && <IntakeList files={intake.files} />}
        {intake && !brings && <p className="quiet">Nothing in these files differs from this variant.</p>}
        {reading && (
          <p className="quiet" role="status">
            Reading the files…
          </p>
        )}
        {(fault ?? unread) && (
          <p className="alarm" role="alert">
            {fault ?? unread}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!brings} onClick={() => intake && onTake(intake)}>
          {intake?.files.some((f) => f.faults.length > 0) ? 'Import what fits' : 'Import'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
