/** Many small changes at once of which some may be wrong: the good ones are kept, the others named with their reason. */
import { COLLECTIONS, applyEdits } from '../design';
import type { Design, Edit, Fault, Kind } from '../design';

export interface Change<T> {
  /** What the change was asked by: a cell, a row, a button. */
  readonly from: T;
  readonly edits: readonly Edit[];
}

export interface Refused<T> {
  readonly from: T;
  readonly sentence: string;
  /** Field of the element that was refused, when one is to blame. */
  readonly field: string | null;
}

export interface Fitted<T> {
  readonly design: Design;
  /** The edits of every change that was kept, in order: one step. */
  readonly edits: readonly Edit[];
  readonly kept: readonly T[];
  readonly refused: readonly Refused<T>[];
}

const keyOf = (kind: string, id: string) => `${kind} ${id}`;

type Subject = NonNullable<Fault['subject']>;

const fieldOf = (fault: Fault): string | null => {
  const field = fault.path.find((p, i) => i > 1 && typeof p === 'string');
  return field === undefined ? null : String(field);
};

/** Whether an edit gives a field of some element of a kind this value. */
function gives(edit: Edit, kind: Kind, field: string, value: unknown): boolean {
  if (edit.type === 'settings' || edit.kind !== kind || edit.type === 'remove') return false;
  return edit.type === 'add'
    ? (edit.value as Record<string, unknown>)[field] === value
    : edit.field === field && edit.value === value;
}

/**
 * The changes that a fault may come from, the last one being to blame: those that write the field of its element, else
 * those that give another element the value that this one has had all along, else those that write to it at all.
 */
function culprits<T>(
  design: Design,
  changes: readonly Change<T>[],
  writers: ReadonlyMap<string, readonly number[]>,
  fault: Fault,
): readonly number[] {
  const subject: Subject | undefined = fault.subject;
  if (!subject) return [];
  const field = fieldOf(fault);
  const writing = writers.get(keyOf(subject.kind, subject.id)) ?? [];
  const exact = writing.filter((i) =>
    changes[i]!.edits.some(
      (e) => e.type === 'add' || (e.type === 'set' && e.id === subject.id && e.field.split('.')[0] === field),
    ),
  );
  if (exact.length > 0 || field === null) return exact.length > 0 ? exact : writing;
  const list = design[COLLECTIONS[subject.kind].list] as readonly { id: string }[];
  const value = (list.find((e) => e.id === subject.id) as Record<string, unknown> | undefined)?.[field];
  const alike = [...changes.keys()].filter((i) => changes[i]!.edits.some((e) => gives(e, subject.kind, field, value)));
  return alike.length > 0 ? alike : writing;
}

/** How often refused changes are taken out and the rest tried again before each is tried alone. */
const ROUNDS = 12;

/**
 * Applies as many of the changes as fit together. A change fits or not as a whole. Of two that exclude each other the
 * earlier one is kept.
 */
export function applyWhatFits<T>(design: Design, changes: readonly Change<T>[]): Fitted<T> {
  let left = changes.filter((c) => c.edits.length > 0);
  const refused: Refused<T>[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const edits = left.flatMap((c) => c.edits);
    const applied = applyEdits(design, edits);
    if (applied.ok) return { design: applied.design, edits, kept: left.map((c) => c.from), refused };
    const writers = new Map<string, number[]>();
    left.forEach((change, i) => {
      for (const edit of change.edits) {
        if (edit.type === 'settings') continue;
        const key = keyOf(edit.kind, edit.type === 'add' ? edit.value.id : edit.id);
        const list = writers.get(key);
        if (list?.at(-1) === i) continue;
        if (list) list.push(i);
        else writers.set(key, [i]);
      }
    });
    const out = new Map<number, Fault>();
    for (const fault of applied.faults) {
      const found = culprits(design, left, writers, fault).at(-1);
      if (found !== undefined && !out.has(found)) out.set(found, fault);
    }
    if (out.size === 0) break;
    for (const [i, fault] of [...out].sort((a, b) => a[0] - b[0])) refused.push(refusal(left[i]!.from, fault));
    left = left.filter((_, i) => !out.has(i));
  }
  return oneByOne(design, left, refused);
}

function refusal<T>(from: T, fault: Fault): Refused<T> {
  return { from, sentence: fault.sentence, field: fieldOf(fault) };
}

function oneByOne<T>(design: Design, changes: readonly Change<T>[], refused: Refused<T>[]): Fitted<T> {
  let now = design;
  const kept: Change<T>[] = [];
  for (const change of changes) {
    const applied = applyEdits(now, change.edits);
    if (applied.ok) {
      now = applied.design;
      kept.push(change);
    } else refused.push(refusal(change.from, applied.faults[0]!));
  }
  return { design: now, edits: kept.flatMap((c) => c.edits), kept: kept.map((c) => c.from), refused };
}
