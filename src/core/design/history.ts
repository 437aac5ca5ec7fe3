/** What can be undone and redone. Only the top of each stack is held; the rest is loaded when it is needed. */

export interface StepMark {
  readonly revision: number;
  readonly kind: 'edit' | 'undo' | 'redo';
  /** Revision of the edit that an undo or redo is about; null for an edit. */
  readonly target: number | null;
  readonly label: string;
  readonly key?: string | null;
}

export interface HistoryEntry {
  readonly revision: number;
  readonly label: string;
  /** Idempotency key of the request that made the edit; null for edits made before there were keys. */
  readonly key?: string | null;
}

export interface History {
  /** The next edit to be undone is the last of the list. */
  readonly undo: readonly HistoryEntry[];
  readonly redo: readonly HistoryEntry[];
  /** Revision of the edit below the first of the list; null or absent when the list is complete. */
  readonly undoBelow?: number | null;
  readonly redoBelow?: number | null;
}

export const NO_HISTORY: History = { undo: [], redo: [], undoBelow: null, redoBelow: null };

/** A step added to a history: an edit clears what could be redone, an undo moves the last edit over, a redo back. */
export function advance(history: History, step: StepMark): History {
  const { undo, redo } = history;
  const entry = (from: readonly HistoryEntry[]): HistoryEntry =>
    from.find((e) => e.revision === step.target) ?? { revision: step.target ?? step.revision, label: step.label };
  switch (step.kind) {
    case 'edit': {
      const made = {
        revision: step.revision,
        label: step.label,
        ...(typeof step.key === 'string' ? { key: step.key } : {}),
      };
      return { ...history, undo: [...undo, made], redo: [], redoBelow: null };
    }
    case 'undo':
      return { ...history, undo: undo.slice(0, -1), redo: [...redo, entry(undo)] };
    case 'redo':
      return { ...history, undo: [...undo, entry(redo)], redo: redo.slice(0, -1) };
  }
}

/** The history after all steps. */
export function historyOf(steps: Iterable<StepMark>): History {
  let history = NO_HISTORY;
  for (const step of steps) history = advance(history, step);
  return history;
}

/** Revisions of the edits on top of both stacks after a step, from those after the steps before; 0 for an empty stack. */
export interface StackTops {
  readonly undoTop: number;
  readonly redoTop: number;
}

/**
 * The tops after one more step. `before(revision)` gives the tops after an earlier step: the edit below edit `n` on the
 * undo stack is the top after step `n - 1`, and what lies below on the redo stack is the top before the undo.
 */
export function topsAfter(
  tops: StackTops,
  step: Pick<StepMark, 'revision' | 'kind' | 'target'>,
  before: (revision: number) => StackTops,
  undoneAt: (target: number) => number,
): StackTops {
  const { target } = step;
  if (step.kind === 'edit' || target === null) return { undoTop: step.revision, redoTop: 0 };
  if (step.kind === 'undo') return { undoTop: before(target - 1).undoTop, redoTop: target };
  return { undoTop: target, redoTop: before(undoneAt(target) - 1).redoTop };
}
