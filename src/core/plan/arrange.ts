/** Plans that the engineer arranges: steps split in their settings, joined at one device, in an order of choice. */
import type { Edit } from '../design';
import type { Work } from './gather';

/** What is set together even when a step is split: one table of one element, one element that comes or goes. */
const partOf = (edit: Edit): string => {
  if (edit.type === 'settings') return edit.field;
  const id = edit.type === 'add' ? edit.value.id : edit.id;
  return edit.type === 'set' ? `${edit.kind} ${id} ${edit.field.split('.')[0]}` : `${edit.kind} ${id}`;
};

/** A step of settings as one step a setting; any other stays as it is. */
export function splitWork(work: Work): readonly Work[] {
  if (work.kind !== 'settings') return [work];
  const parts = new Map<string, Edit[]>();
  for (const edit of work.edits) parts.set(partOf(edit), [...(parts.get(partOf(edit)) ?? []), edit]);
  if (parts.size < 2) return [work];
  return [...parts].map(([part, edits]) => ({ ...work, id: `${work.id}, ${part}`, edits }));
}

/** Two steps at one device as one; null where they are at two. */
export function joinWorks(a: Work, b: Work): Work | null {
  if (a.device !== b.device || a.other !== b.other) return null;
  const kind = a.kind === b.kind ? a.kind : 'settings';
  return { ...a, id: `${a.id} + ${b.id}`, kind, edits: [...a.edits, ...b.edits] };
}
