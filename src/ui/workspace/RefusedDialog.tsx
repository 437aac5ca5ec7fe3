'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { z } from 'zod';
import { editSchema, faultsOf } from '../../core/design';
import type { Edit } from '../../core/design';
import type { RefusedEdit } from '../session/entry';
import { ChangeLines } from './ChangeLines';
import { useBench, useSession } from '../session/context';

/** Edits from text, or the sentence that says why they are none. */
export function editsOf(text: string): readonly Edit[] | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return 'The text is not complete JSON: a list of edits such as [{"type": "set", …}] belongs here.';
  }
  const parsed = z.array(editSchema).min(1).safeParse(value);
  return parsed.success ? parsed.data : (faultsOf(parsed.error)[0]?.sentence ?? 'These are no edits.');
}

/** What can be done with a refused change: made again, changed as JSON, copied. */
function useRefused(refused: RefusedEdit) {
  const { session, say } = useBench();
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const make = (edits: readonly Edit[]) => {
    const faults = session.edit(refused.label, edits);
    if (faults[0]) return setFault(faults[0].sentence);
    session.dismiss(refused.key);
  };
  const change = () => {
    const edits = editsOf(text ?? '');
    if (typeof edits === 'string') setFault(edits);
    else make(edits);
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(JSON.stringify(refused.edits, null, 2));
      say({ text: 'Copied as JSON.' });
    } catch {
      setText(JSON.stringify(refused.edits, null, 2));
      setFault('The browser forbids copying: select the text and copy it by key.');
    }
  };
  const open = () => setText(JSON.stringify(refused.edits, null, 2));
  return { text, setText, fault, make, change, copy, open };
}

function Refused({ refused }: { refused: RefusedEdit }) {
  const { session } = useBench();
  const design = useSession((s) => s.design);
  const { text, setText, fault, make, change, copy, open } = useRefused(refused);
  return (
    <section className="refused" aria-label={refused.label}>
      <p className="alarm">{refused.sentence}</p>
      <ul>
        <ChangeLines design={design} label={refused.label} edits={refused.edits} />
      </ul>
      {text !== null && (
        <TextField
          multiline
          fullWidth
          maxRows={10}
          label="The change as JSON"
          value={text}
          onChange={(e) => setText(e.target.value)}
          slotProps={{ htmlInput: { className: 'mono' } }}
        />
      )}
      {fault && (
        <p className="alarm" role="alert">
          {fault}
        </p>
      )}
      <div className="row">
        {text === null ? (
          <>
            <Button onClick={() => make(refused.edits)}>Try again</Button>
            <Button onClick={open}>Change…</Button>
          </>
        ) : (
          <Button onClick={change}>Apply the change</Button>
        )}
        <Button onClick={() => void copy()}>Copy</Button>
        <Button onClick={() => session.dismiss(refused.key)}>Discard</Button>
      </div>
    </section>
  );
}

/** Changes that the server refused: reason and content, to be tried again, changed, copied or discarded. */
export function RefusedDialog({ onClose }: { onClose: () => void }) {
  const refused = useSession((s) => s.refused);
  if (refused.length === 0) return null;
  return (
    <Dialog open fullWidth maxWidth="sm" onClose={onClose}>
      <DialogTitle>
        {refused.length === 1 ? 'A change was refused' : `${refused.length} changes were refused`}
      </DialogTitle>
      <DialogContent>
        <p className="quiet">
          {refused.length === 1
            ? 'It is not part of the design, and stays'
            : 'They are not part of the design, and stay'}{' '}
          here, also over a reload, until you decide.
        </p>
        {refused.map((r) => (
          <Refused key={r.key} refused={r} />
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
