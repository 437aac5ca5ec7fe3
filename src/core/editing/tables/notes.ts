/** The table of notes: words on the drawing, what they are about, and the layer in which they are shown. */
import { NOTE_FORMS, aboutName, addElement, noteById, setField } from '../../design';
import type { Design, Edit, Note } from '../../design';
import { clipped, tableMessages as say } from '../../messages';
import { choiceCell, isFault, unlessFault, yesCell } from './column';
import type { CellFault, Column, Table } from './column';

/** What a note may be about, by the name that it has in the table. */
function byName(design: Design, text: string): string | CellFault {
  const named = (list: readonly { id: string; name: string }[]) => list.find((e) => e.name === text)?.id;
  const found = named(design.switches) ?? named(design.hosts) ?? named(design.segments);
  if (found) return found;
  const link = design.links.find((l) => aboutName(design, l.id) === text);
  return link ? link.id : { fault: say['nothing-for-note']({ text: clipped(text) }) };
}

function aboutCell(design: Design, text: string): readonly string[] | CellFault {
  const names = text
    .split(/[,;]/)
    .map((n) => n.trim())
    .filter(Boolean);
  const found = names.map((n) => byName(design, n));
  return found.find((f) => typeof f === 'object') ?? (found as string[]);
}

const aboutText = (design: Design, note: Note): string =>
  note.about.flatMap((id) => aboutName(design, id) ?? []).join(', ');

const columns: Column<Note>[] = [
  {
    id: 'text',
    title: 'Note',
    width: 320,
    stays: true,
    text: (_, n) => n.text,
    set: (_, n, text) => [setField('note', n.id, 'text', text)],
  },
  {
    id: 'form',
    title: 'Form',
    width: 90,
    choices: NOTE_FORMS,
    text: (_, n) => n.form ?? 'text',
    set: (_, n, text) =>
      unlessFault(choiceCell('Form', text, NOTE_FORMS), (v) => [
        setField('note', n.id, 'form', v === 'text' ? null : v),
      ]),
  },
  {
    id: 'about',
    title: 'About',
    also: ['things'],
    width: 300,
    text: aboutText,
    set: ({ design }, n, text) =>
      unlessFault(aboutCell(design, text), (v) => [
        setField('note', n.id, 'about', v),
        // A place on the sheet is none beside a thing, and the other way.
        ...(((v as string[]).length === 0) === (n.about.length === 0)
          ? []
          : (['x', 'y'] as const).map((f) => setField('note', n.id, f, null))),
      ]),
  },
  {
    id: 'layer',
    title: 'Layer',
    width: 130,
    text: (_, n) => n.layer ?? '',
    set: (_, n, text) => [setField('note', n.id, 'layer', text.trim() || null)],
  },
  {
    id: 'hidden',
    title: 'Hidden',
    width: 70,
    choices: ['', 'yes'],
    text: (_, n) => (n.hidden ? 'yes' : ''),
    set: (_, n, text) => unlessFault(yesCell(text), (v) => [setField('note', n.id, 'hidden', v)]),
  },
];

export const NOTES: Table<Note> = {
  id: 'notes',
  title: 'Notes',
  one: 'note',
  kind: 'note',
  columns,
  naming: ['text'],
  fields: {},
  rows: (design) => design.notes,
  find: noteById,
  create: (wiring, cells) => {
    const text = cells.get('text')?.trim();
    if (!text) return { column: 'text', fault: say['note-needs-words']() };
    const about = aboutCell(wiring.design, cells.get('about') ?? '');
    if ('fault' in about) return { column: 'about', fault: about.fault };
    const element: Note = { id: wiring.newId('n'), text, about: [...about] };
    const edits: Edit[] = [addElement('note', element)];
    for (const column of columns) {
      const cell = cells.get(column.id);
      if (cell === undefined || column.id === 'text' || column.id === 'about') continue;
      const own = column.set!(wiring, element, cell);
      if (isFault(own)) return { column: column.id, fault: own.fault };
      edits.push(...own);
    }
    return { edits, id: element.id };
  },
};
