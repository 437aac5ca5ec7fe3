'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { NOTE_LENGTH, aboutName, noteById } from '../../core/design';
import type { Design, NoteForm } from '../../core/design';
import { someNames } from '../../core/standard';
import { useBench, useSession } from '../session/context';
import { layersOf, noteAction } from '../session/notes';
import type { NoteDraft } from '../session/notes';
import { OneOf } from './OneOf';
import styles from './NoteDialog.module.css';

const FORMS: readonly { readonly id: NoteForm; readonly name: string; readonly title: string }[] = [
  { id: 'text', name: 'Text', title: 'Words beside the first of them' },
  { id: 'box', name: 'Box', title: 'A frame round them all, with the words as its title' },
  { id: 'distance', name: 'Distance', title: 'A dimension line between two of them, or along a link' },
];

/** Forms that a note can have: on the sheet the one that it was drawn in. */
function formsFor(draft: NoteDraft, design: Design) {
  const measures = draft.about.length === 2 || design.links.some((l) => draft.about.includes(l.id));
  return draft.about.length === 0
    ? FORMS.filter((f) => (draft.form === 'text') === (f.id === 'text'))
    : FORMS.filter((f) => f.id !== 'distance' || measures || f.id === draft.form);
}

/** The words themselves; Ctrl+Enter is done with them. */
function Words({ text, onText, onDone }: { text: string; onText: (text: string) => void; onDone: () => void }) {
  return (
    <TextField
      autoFocus
      fullWidth
      multiline
      minRows={2}
      maxRows={8}
      value={text}
      placeholder="What is to be known here"
      onChange={(e) => onText(e.target.value.slice(0, NOTE_LENGTH))}
      onKeyDown={(e) => {
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) onDone();
      }}
      slotProps={{ htmlInput: { 'aria-label': 'Words of the note' } }}
    />
  );
}

/** Words of a note, new or there, its form and its layer. */
export function NoteDialog({ draft, onClose }: { draft: NoteDraft; onClose: () => void }) {
  const { edit, select } = useBench();
  const design = useSession((s) => s.design);
  const known = draft.id === null ? undefined : noteById(design, draft.id);
  const [text, setText] = useState(known?.text ?? '');
  const [form, setForm] = useState(draft.form);
  const [layer, setLayer] = useState(known?.layer ?? '');
  const names = draft.about.flatMap((id) => aboutName(design, id) ?? []);
  const forms = formsFor(draft, design);
  const submit = (event?: FormEvent) => {
    event?.preventDefault();
    const { id, label, edits } = noteAction(design, draft, { text, form, layer });
    if (edits.length === 0) return onClose();
    if (!edit(label, edits)) return;
    select({ kind: 'note', id });
    onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <form onSubmit={submit}>
        <DialogTitle>{known ? 'Note' : 'New note'}</DialogTitle>
        <DialogContent className={styles.fields}>
          <p className="quiet">
            {names.length > 0
              ? `About ${someNames(names)}.`
              : 'On the sheet, where you put it: shown where things stand as cabled.'}
          </p>
          <Words text={text} onText={setText} onDone={submit} />
          {forms.length > 1 && (
            <OneOf label="Form" options={forms} value={form} onPick={setForm}>
              {form !== 'text' && <span className="quiet small">drawn where things stand as cabled</span>}
            </OneOf>
          )}
          <label>
            <span className="quiet">Layer</span>
            <TextField
              fullWidth
              placeholder="none"
              value={layer}
              onChange={(e) => setLayer(e.target.value)}
              slotProps={{ htmlInput: { list: 'note-layers', 'aria-label': 'Layer' } }}
            />
          </label>
          <datalist id="note-layers">
            {layersOf(design).map((l) => l.name !== '' && <option key={l.name} value={l.name} />)}
          </datalist>
        </DialogContent>
        <DialogActions>
          <span className={`quiet ${styles.key}`}>Ctrl+Enter</span>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={text.trim() === ''}>
            {known ? 'Change' : 'Write'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
