/** Changes of this window that the server has not confirmed, and what the design is with them. */
import { NO_HISTORY, applyEdits } from '../../core/design';
import type { Design, Edit, Fault, History, HistoryEntry } from '../../core/design';
import type { Step } from './types';

/** A request that waits to be confirmed. */
export type Entry =
  | { readonly kind: 'edit'; readonly key: string; readonly label: string; readonly edits: readonly Edit[] }
  | {
      readonly kind: 'undo' | 'redo';
      readonly key: string;
      readonly label: string;
      /** Key, or revision for want of one, of the edit that is undone or redone. */
      readonly target: string | number;
    };
export type EditEntry = Extract<Entry, { kind: 'edit' }>;

/** A change that the server, or the design as it is now, does not take. */
export interface RefusedEdit {
  readonly key: string;
  readonly label: string;
  readonly edits: readonly Edit[];
  /** What is wrong, and what would be right. */
  readonly sentence: string;
}

/** What a stored step did, kept so that undoing it shows at once. */
export interface Done {
  readonly edits: readonly Edit[];
  readonly inverse: readonly Edit[];
}

export interface Base {
  readonly design: Design;
  readonly history: History;
  /** By revision. */
  readonly done: ReadonlyMap<number, Done>;
}

export interface Replayed {
  readonly design: Design;
  /** The history as it will be when everything is confirmed. */
  readonly history: History;
  /** Entries that apply, in order. */
  readonly fitting: readonly Entry[];
  readonly refused: readonly { readonly entry: EditEntry; readonly fault: Fault }[];
  /** Undos and redos whose step is no longer the next one. */
  readonly void: readonly Entry[];
}

const named = (entry: HistoryEntry | undefined, target: string | number) =>
  entry !== undefined && (entry.revision === target || (typeof entry.key === 'string' && entry.key === target));

/**
 * The stored design with all entries on top. Undo and redo of what this window has seen done show at once; others
 * change nothing before the server has answered.
 */
export function replay(base: Base, entries: readonly Entry[]): Replayed {
  let { design, history } = base;
  const local = new Map<string, Done>();
  const doneOf = (e: HistoryEntry) =>
    (typeof e.key === 'string' ? local.get(e.key) : undefined) ?? base.done.get(e.revision);
  const fitting: Entry[] = [];
  const refused: { entry: EditEntry; fault: Fault }[] = [];
  const gone: Entry[] = [];
  for (const entry of entries) {
    if (entry.kind === 'edit') {
      const applied = applyEdits(design, entry.edits);
      if (!applied.ok) {
        refused.push({ entry, fault: applied.faults[0]! });
        continue;
      }
      design = applied.design;
      local.set(entry.key, { edits: entry.edits, inverse: applied.inverse });
      // Not stored yet: it has no revision.
      history = withEdit(history, { revision: -1, label: entry.label, key: entry.key });
    } else {
      const top = history[entry.kind].at(-1);
      if (!top || !named(top, entry.target)) {
        gone.push(entry);
        continue;
      }
      const known = doneOf(top);
      const applied = known ? applyEdits(design, entry.kind === 'undo' ? known.inverse : known.edits) : null;
      if (applied?.ok) design = applied.design;
      history = withMove(history, entry.kind, top);
    }
    fitting.push(entry);
  }
  return { design, history, fitting, refused, void: gone };
}

/** A history with one more edit. */
export const withEdit = (history: History, entry: HistoryEntry): History => ({
  ...history,
  undo: [...history.undo, entry],
  redo: [],
  redoBelow: NO_HISTORY.redoBelow,
});

/** A history in which the edit on top of one stack is on the other. */
export const withMove = (history: History, kind: 'undo' | 'redo', top: HistoryEntry): History =>
  kind === 'undo'
    ? { ...history, undo: history.undo.slice(0, -1), redo: [...history.redo, top] }
    : { ...history, redo: history.redo.slice(0, -1), undo: [...history.undo, top] };

/** The edits among entries that no undo among them takes back. */
export function standing(entries: readonly Entry[]): EditEntry[] {
  const [undo, redo]: [EditEntry[], EditEntry[]] = [[], []];
  for (const entry of entries) {
    if (entry.kind === 'edit') {
      undo.push(entry);
      redo.length = 0;
      continue;
    }
    const [from, to] = entry.kind === 'undo' ? [undo, redo] : [redo, undo];
    if (from.at(-1)?.key === entry.target) to.push(from.pop()!);
  }
  return undo;
}

export interface Conflict {
  /** Not stored. */
  readonly mine: readonly EditEntry[];
  readonly theirs: readonly Step[];
  /** Newest revision that mine were made on. */
  readonly since: number;
}
