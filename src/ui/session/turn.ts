/** One turn of the session: the changes that an event makes to the state, and the effects that follow from them. */
import equal from 'fast-deep-equal';
import { replay } from './entry';
import type { EditEntry } from './entry';
import { keptOf } from './state';
import type { ChangeKind, Effect, State } from './state';

/** The next state, and what is to be done. */
export type Outcome = readonly [State, readonly Effect[]];

/** Entries left on a stack when the next page is asked for. */
const FEW = 10;

/** Collects effects while a state goes through several changes. */
export class Turn {
  readonly effects: Effect[] = [];
  constructor(public s: State) {}

  set(change: Partial<State>): void {
    this.s = { ...this.s, ...change };
  }

  complain(sentence: string): void {
    this.effects.push({ type: 'complain', sentence });
  }

  refuse(entry: EditEntry, sentence: string): void {
    const { key, label, edits } = entry;
    this.set({ refused: [...this.s.refused.filter((r) => r.key !== key), { key, label, edits, sentence }] });
  }

  /** Shows the stored design with the queue on top; what no longer applies is refused, and undos of other steps are dropped. */
  show(label?: string, kind?: ChangeKind): void {
    const { stored, storedHistory, done, queue, design } = this.s;
    const seen = replay({ design: stored, history: storedHistory, done }, queue);
    for (const { entry, fault } of seen.refused) this.refuse(entry, fault.sentence);
    for (const entry of seen.void)
      this.complain(
        `${entry.kind === 'undo' ? 'Undo' : 'Redo'} of '${entry.label}' was not done: the design changed in another window. Try again.`,
      );
    this.set({ queue: seen.fitting, design: seen.design, history: seen.history });
    if (label !== undefined && kind && seen.design !== design) this.effects.push({ type: 'changed', label, kind });
  }

  /** Starts the next request, if one is needed and none is on its way. */
  next(): void {
    const { s } = this;
    this.loadHistory();
    if (s.call || s.pausing || s.stale) return;
    const since = Math.min(s.revision, ...s.left.map((l) => l.since));
    if (s.left.length > 0 || s.told > s.revision) {
      this.set({ call: 'steps' });
      this.effects.push({ type: 'fetch-steps', since });
    } else if (s.queue[0]) {
      this.set({ call: 'send' });
      this.effects.push({ type: 'send', entry: s.queue[0], revision: s.revision });
    }
  }

  /** Asks for more of a stack of which little is left. */
  private loadHistory(): void {
    const { history, storedHistory, loadingHistory, failures } = this.s;
    if (loadingHistory || failures > 0) return;
    for (const kind of ['undo', 'redo'] as const) {
      const from = storedHistory[kind === 'undo' ? 'undoBelow' : 'redoBelow'];
      if (typeof from !== 'number' || history[kind].length > FEW) continue;
      this.set({ loadingHistory: true });
      return void this.effects.push({ type: 'fetch-history', kind, from });
    }
  }

  end(before: State): Outcome {
    this.next();
    // An equal design stays the same object, so that nothing made from it (a tree, a preview) is thrown away.
    if (this.s.design !== before.design && equal(this.s.design, before.design)) this.set({ design: before.design });
    const { s } = this;
    const differs = (['queue', 'left', 'conflict', 'refused'] as const).some((k) => before[k] !== s[k]);
    // The revision is part of what is kept: it says which steps the queue was made on.
    const again = before.notKept !== null && s.notKept !== null;
    if (differs || again || (s.queue.length > 0 && before.revision !== s.revision))
      this.effects.push({ type: 'keep', kept: keptOf(s) });
    return [s, this.effects];
  }
}
