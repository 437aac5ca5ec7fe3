/** Writing notes: what a new one would be about, and the layers that there are. */
import { addElement, bundleById, linkAt, noteById, portById, setField } from '../../core/design';
import type { Design, Note, NoteForm } from '../../core/design';
import type { Action } from './actions';
import { newId } from './new-id';
import type { Ref } from './view';

/** A note that is being written: a new one, or one that is there. */
export type NoteDraft = Pick<Note, 'about' | 'x' | 'y' | 'toX' | 'toY'> & {
  readonly id: string | null;
  readonly form: NoteForm;
};

/** Things that a note can be about, of what is selected: a port stands for its cable, or its switch. */
function aboutOf(design: Design, { kind, id }: Ref): string[] {
  if (kind === 'note') return [];
  if (kind === 'bundle') return (bundleById(design, id)?.members ?? []).flatMap((m) => linkAt(design, m)?.id ?? []);
  if (kind !== 'port') return [id];
  const port = portById(design, id);
  return port ? [linkAt(design, id)?.id ?? port.switch] : [];
}

/** The note that is selected, or a new one about what is selected: a frame round several things where `framed`. */
export function draftOf(design: Design, selection: readonly Ref[], framed = false): NoteDraft {
  const [first] = selection;
  const known = first?.kind === 'note' ? noteById(design, first.id) : undefined;
  if (known) return { ...known, form: known.form ?? 'text' };
  const about = [...new Set(selection.flatMap((ref) => aboutOf(design, ref)))];
  return { id: null, about, form: framed && about.length > 1 ? 'box' : 'text' };
}

/** The note as it was written; of one that is there, what differs. */
export function noteAction(
  design: Design,
  draft: NoteDraft,
  written: { readonly text: string; readonly form: NoteForm; readonly layer: string },
): Action & { readonly id: string } {
  const form = written.form === 'text' ? null : written.form;
  const layer = written.layer.trim() || null;
  const label = draft.id === null ? 'Write a note' : 'Change a note';
  const known = draft.id === null ? undefined : noteById(design, draft.id);
  if (known) {
    const wanted = { text: written.text.trim(), form, layer } as const;
    const edits = (['text', 'form', 'layer'] as const)
      .filter((field) => (known[field] ?? null) !== wanted[field])
      .map((field) => setField('note', known.id, field, wanted[field]));
    return { label, edits, id: known.id };
  }
  const { about, x, y, toX, toY } = draft;
  const value: Note = {
    id: newId('n'),
    text: written.text,
    about,
    ...(form ? { form } : {}),
    ...(layer ? { layer } : {}),
    ...(x === undefined ? {} : { x }),
    ...(y === undefined ? {} : { y }),
    ...(toX === undefined ? {} : { toX }),
    ...(toY === undefined ? {} : { toY }),
  };
  return { label, edits: [addElement('note', value)], id: value.id };
}

export interface Layer {
  /** Empty: the notes that are in none. */
  readonly name: string;
  readonly notes: readonly Note[];
  readonly shown: 'all' | 'some' | 'none';
}

/** The layers of a design by name, those in none first. */
export function layersOf({ notes }: Design): Layer[] {
  const names = [...new Set(notes.map((n) => n.layer ?? ''))].sort((a, b) => a.localeCompare(b));
  return names.map((name) => {
    const own = notes.filter((n) => (n.layer ?? '') === name);
    const hidden = own.filter((n) => n.hidden).length;
    return { name, notes: own, shown: hidden === 0 ? 'all' : hidden < own.length ? 'some' : 'none' };
  });
}

export const layerWords = (name: string): string => (name === '' ? 'in no layer' : name);

/** Shows a layer whole, or hides it. */
export function layerAction({ name, notes, shown }: Layer): Action {
  const hidden = shown === 'all' ? true : null;
  return {
    label: `${hidden ? 'Hide' : 'Show'} notes: ${layerWords(name)}`,
    edits: notes.filter((n) => (n.hidden ?? null) !== hidden).map((n) => setField('note', n.id, 'hidden', hidden)),
  };
}
