/** Plans that the engineer arranges: steps split in their settings, joined at one device, in an order of choice. */
import type { Edit } from '../design';
import type { Work } from './gather';

/** Whether an edit says what a switch runs: its mode, and its region. */
const setsRun = (edit: Extract<Edit, { type: 'set' }>): boolean =>
  edit.kind === 'switch' && /^(protocol|region|mstName|mstRevision|vlanInstance)\b/.test(edit.field);

/** What is set together even when a step is split: one table of one element, one element that comes or goes. */
const partOf = (edit: Edit): string => {
  if (edit.type === 'settings') return edit.field;
  const id = edit.type === 'add' ? edit.value.id : edit.id;
  if (edit.type !== 'set') return `${edit.kind} ${id}`;
  return setsRun(edit) ? 'mode' : `${edit.kind} ${id} ${edit.field.split('.')[0]}`;
};

/** A step of settings as one step a setting; any other stays as it is. */
export function splitWork(work: Work): readonly Work[] {
  if (work.kind !== 'settings' && work.kind !== 'mode') return [work];
  const parts = new Map<string, Edit[]>();
  for (const edit of work.edits) parts.set(partOf(edit), [...(parts.get(partOf(edit)) ?? []), edit]);
  if (parts.size < 2) return [work];
  return [...parts].map(([part, edits]) => ({
    ...work,
    kind: part === 'mode' ? 'mode' : 'settings',
    id: `${work.id}, ${part}`,
    edits,
  }));
}

/** Two steps at one device as one; null where they are at two. */
export function joinWorks(a: Work, b: Work): Work | null {
  if (a.device !== b.device || a.other !== b.other) return null;
  const kind = a.kind === b.kind ? a.kind : a.kind === 'mode' || b.kind === 'mode' ? 'mode' : 'settings';
  return { ...a, id: `${a.id} + ${b.id}`, kind, edits: [...a.edits, ...b.edits] };
}

/** Kinds that are typed at a switch without a pause between them. */
const IN_ONE_GO: ReadonlySet<Work['kind']> = new Set(['mode', 'region', 'settings']);

/** Steps at one switch that follow each other as one, those in `apart` left alone; null where there are none. */
export function worksInOneGo(works: readonly Work[], apart: ReadonlySet<string>): readonly Work[] | null {
  const joined: Work[] = [];
  for (const work of works) {
    const last = joined.at(-1);
    const fits = last && [last, work].every((w) => IN_ONE_GO.has(w.kind) && !apart.has(w.id) && !w.pause);
    const both = fits ? joinWorks(last, work) : null;
    if (both) joined[joined.length - 1] = both;
    else joined.push(work);
  }
  return joined.length < works.length ? joined : null;
}
