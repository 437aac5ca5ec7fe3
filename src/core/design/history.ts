/** What can be undone and redone, read off the list of steps. */

export interface StepMark {
  readonly revision: number;
  readonly kind: 'edit' | 'undo' | 'redo';
  readonly target: number | null;
  readonly label: string;
}

export interface HistoryEntry {
  readonly revision: number;
  readonly label: string;
}

export interface History {
  /** Last first to be undone is the last of the list. */
  readonly undo: readonly HistoryEntry[];
  readonly redo: readonly HistoryEntry[];
}

/** A step added to a history: an edit clears what could be redone, an undo moves the last edit over, a redo back. */
export function advance(history: History, step: StepMark): History {
  const entry = { revision: step.target ?? step.revision, label: step.label };
  switch (step.kind) {
    case 'edit':
      return { undo: [...history.undo, entry], redo: [] };
    case 'undo':
      return { undo: history.undo.slice(0, -1), redo: [...history.redo, entry] };
    case 'redo':
      return { undo: [...history.undo, entry], redo: history.redo.slice(0, -1) };
  }
}

/** The history after all steps, in one pass. */
export function historyOf(steps: Iterable<StepMark>): History {
  const undo: HistoryEntry[] = [];
  let redo: HistoryEntry[] = [];
  for (const step of steps) {
    const entry = { revision: step.target ?? step.revision, label: step.label };
    if (step.kind === 'undo') {
      undo.pop();
      redo.push(entry);
    } else {
      undo.push(entry);
      if (step.kind === 'edit') redo = [];
      else redo.pop();
    }
  }
  return { undo, redo };
}
