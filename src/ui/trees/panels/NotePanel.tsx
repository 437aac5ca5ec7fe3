'use client';
import Button from '@mui/material/Button';
import { aboutName, noteById, removeAll, setField, switchById } from '../../../core/design';
import type { Design } from '../../../core/design';
import { useBench, useSession } from '../../session/context';
import type { Ref } from '../../session/view';

const refTo = (design: Design, id: string): Ref => {
  const kind = switchById(design, id)
    ? 'switch'
    : design.hosts.some((h) => h.id === id)
      ? 'host'
      : design.segments.some((s) => s.id === id)
        ? 'segment'
        : 'link';
  return { kind, id };
};

/** A note: its words, what it is about, its layer. */
export function NotePanel({ id }: { id: string }) {
  const { edit, select, openDialog } = useBench();
  const design = useSession((s) => s.design);
  const note = noteById(design, id)!;
  const about = note.about.flatMap((a) => {
    const name = aboutName(design, a);
    return name === null ? [] : [{ id: a, name }];
  });
  return (
    <>
      <h2>Note</h2>
      <p style={{ whiteSpace: 'pre-wrap' }}>{note.text}</p>
      <p className="quiet">
        {note.form ?? 'text'}
        {note.layer && `, layer ${note.layer}`}
      </p>
      {about.length > 0 && (
        <table className="rows">
          <caption>About</caption>
          <tbody>
            {about.map(({ id: thing, name }) => (
              <tr key={thing}>
                <th scope="row">
                  <button className="plain" onClick={() => select(refTo(design, thing))}>
                    {name}
                  </button>
                </th>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="buttons">
        <Button onClick={() => openDialog('note')}>Change…</Button>
        <Button onClick={() => edit('Hide a note', [setField('note', id, 'hidden', true)]) && select(null)}>
          Hide
        </Button>
        <Button onClick={() => edit('Delete a note', removeAll(design, [{ kind: 'note', id }])) && select(null)}>
          Delete
        </Button>
      </div>
    </>
  );
}
