'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import type { Intake, NetworkIntake, SourceFile } from '../../core/formats';
import type { Design } from '../../core/design';
import { FileChoice } from '../controls/FileChoice';
import { readFiles } from '../controls/files';
import { IntakeList } from '../controls/IntakeList';
import { OneOf } from '../controls/OneOf';
import type { Choice } from '../controls/OneOf';
import { useIntake } from '../controls/useIntake';
import { useNewVariant } from '../controls/useNewVariant';

interface Props {
  readonly design: Design;
  readonly initial: readonly SourceFile[];
  readonly onTake: (intake: Intake) => void;
  readonly onClose: () => void;
}

type How = NetworkIntake | 'variant';
const HOW: readonly Choice<How>[] = [
  { id: 'merge', name: 'merge by name', title: 'What has the same name is the same thing, and becomes as in the file' },
  { id: 'beside', name: 'put beside', title: 'Everything comes in below what is here, with names that are free' },
  { id: 'variant', name: 'new variant', title: 'This variant stays; the file becomes another one of this design' },
];
const SAYS: Record<How, string> = {
  merge:
    'Switches, ports, hosts, bundles and links of the same names become as in the file; the rest is added, nothing is removed. Mode, cost scale, goals and scripts stay those of this variant.',
  beside: 'The whole network comes in below what is here. A name that is taken gets a number.',
  variant: 'This variant stays as it is.',
};

/** What becomes of a design in a file. */
function HowChoice({ file, how, onPick }: { file: string; how: How; onPick: (how: How) => void }) {
  return (
    <>
      <OneOf
        label="What becomes of the design in the file"
        lead={<span>{file}: </span>}
        options={HOW}
        value={how}
        onPick={onPick}
      />
      <p className="quiet small">{SAYS[how]}</p>
    </>
  );
}

/**
 * Files taken into the open variant: rows that it has are changed, the others come in beside them. A whole design in a file is
 * merged, put beside, or becomes a variant of its own.
 */
export function IntakeDialog({ design, initial, onTake, onClose }: Props) {
  const [files, setFiles] = useState<readonly SourceFile[]>(initial);
  const [fault, setFault] = useState<string | null>(null);
  const [how, setHow] = useState<How>('merge');
  const makeVariant = useNewVariant();
  const apart = how === 'variant';
  const { intake, reading, fault: unread } = useIntake(apart ? null : design, files, apart ? 'beside' : how);
  const whole = intake?.files.find((f) => f.kind === 'design' || f.kind === 'graphml');
  const brings =
    intake !== null &&
    (apart ? intake.design.switches.length > 0 : intake.edits.length > 0 || intake.receptions.length > 0);
  const take = () => {
    if (!intake) return;
    if (!apart) return onTake(intake);
    onClose();
    const file = whole?.file ?? 'imported';
    const name = file.replace(/\.[^.]*$/, '') || 'imported';
    void makeVariant(intake.design, name, (made) => `Variant ${made} is made from ${file}.`);
  };
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
          graph (GraphML) or another design (JSON). Rows of tables that name what is here change it; other rows are
          added. One undo reverts all of it.
        </p>
        {whole && design.switches.length > 0 && <HowChoice {...{ file: whole.file, how }} onPick={setHow} />}
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
        <Button variant="contained" disabled={!brings} onClick={take}>
          {apart ? 'Make the variant' : intake?.files.some((f) => f.faults.length > 0) ? 'Import what fits' : 'Import'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
