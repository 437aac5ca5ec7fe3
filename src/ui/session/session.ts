/** One open variant: drives the reducer, sends what it asks for, and shows what it knows. */
import { createStore } from 'zustand/vanilla';
import { LABEL_LENGTH } from '../../api/contract';
import { applyEdits } from '../../core/design';
import type { Design, Edit, Fault, History } from '../../core/design';
import { movedBetween, solveDesign } from '../../core/trees';
import type { MovedTree, SolvedDesign } from '../../core/trees';
import type { Api, Sender } from './api';
import type { Conflict, Entry, RefusedEdit } from './entry';
import { reduce } from './reducer';
import { initialState, savingOf, waitingCount } from './state';
import type { ChangeKind, Effect, Event, Kept, Saving, State } from './state';
import { Refusal, Unreached } from './types';
import type { LoadedVariant } from './types';

export interface LastChange {
  readonly label: string;
  readonly kind: ChangeKind;
  readonly moved: readonly MovedTree[];
  /** The network as it was before. */
  readonly before: SolvedDesign;
}

export interface SessionState {
  readonly variantId: string;
  readonly designId: string;
  /** Newest revision that this window knows to be stored. */
  readonly revision: number;
  readonly design: Design;
  readonly solved: SolvedDesign;
  readonly history: History;
  readonly saving: Saving;
  /** Changes that wait to be sent. */
  readonly waiting: number;
  /** Why the server could not be reached, and why the browser does not keep what waits; null when it was, or does. */
  readonly reason: string | null;
  readonly notKept: string | null;
  readonly last: LastChange | null;
  readonly conflict: Conflict | null;
  readonly refused: readonly RefusedEdit[];
  /** A refusal to show; with a number so that the same sentence shows again. */
  readonly complaint: { readonly sentence: string; readonly n: number } | null;
  readonly stale: boolean;
}

/** Where changes wait that are not stored yet. `write` says why it could not; null when it could. */
export interface Keeper {
  read(): Kept;
  write(kept: Kept): string | null;
}

export interface SessionOptions {
  readonly client: string;
  readonly keeper: Keeper;
  readonly newKey: () => string;
  /** Name that goes with changes; asked for each of them. */
  readonly author?: () => string;
  /** Loads the page again. */
  readonly reload?: () => void;
  readonly wait?: (ms: number) => Promise<void>;
}

export type Session = ReturnType<typeof createSession>;

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
const HISTORY_RETRY = 5000;

/** A label as long as the server takes it. */
export const shortLabel = (label: string): string =>
  label.length > LABEL_LENGTH ? `${label.slice(0, LABEL_LENGTH - 1)}…` : label;
/** The reducer at work: events one after the other, and what is shown after each. */
class Driver {
  readonly store;
  private state: State;
  private closed = false;
  private readonly queue: Event[] = [];
  private handling = false;

  constructor(
    private readonly api: SessionApi,
    private readonly variant: LoadedVariant,
    private readonly options: Required<SessionOptions>,
  ) {
    this.state = initialState(variant);
    this.store = createStore<SessionState>(() => ({
      ...shown(this.state),
      solved: solveDesign(variant.design),
      last: null,
      complaint: null,
    }));
  }

  get now(): State {
    return this.state;
  }

  readonly complain = (sentence: string): void =>
    this.store.setState((s) => ({ complaint: { sentence, n: (s.complaint?.n ?? 0) + 1 } }));

  close(): void {
    this.closed = true;
  }

  /** Shows the present state; `change` is what brought another design about. */
  private publish(change: Extract<Effect, { type: 'changed' }> | undefined): void {
    const { store, state } = this;
    const { design, solved: before } = store.getState();
    if (design === state.design) return store.setState(shown(state));
    const solved = solveDesign(state.design, before);
    const last = change
      ? { last: { label: change.label, kind: change.kind, before, moved: movedBetween(before, solved) } }
      : {};
    store.setState({ ...shown(state), solved, ...last });
  }

  readonly dispatch = (event: Event): void => {
    this.queue.push(event);
    if (this.handling) return;
    this.handling = true;
    try {
      for (let next = this.queue.shift(); next; next = this.queue.shift()) {
        const [after, effects] = reduce(this.state, next);
        this.state = after;
        for (const effect of effects) this.perform(effect);
        this.publish(effects.find((e) => e.type === 'changed'));
      }
    } finally {
      this.handling = false;
    }
  };

  private readonly failed = (error: unknown): void => {
    if (this.closed) return;
    const passing = error instanceof Unreached ? error : null;
    const reason = passing?.message ?? (error instanceof Error ? error.message : String(error));
    this.dispatch({ type: 'failed', reason, retryAfter: passing?.retryAfter ?? null });
  };

  private async send(entry: Entry, revision: number): Promise<void> {
    const { api, variant, options } = this;
    const sender: Sender = {
      key: entry.key,
      client: options.client,
      author: options.author(),
      epoch: this.state.epoch,
    };
    try {
      const step =
        entry.kind === 'edit'
          ? await api.step(variant.id, revision, entry.label, entry.edits, sender)
          : await api.move(entry.kind, variant.id, revision, entry.target, sender);
      if (!this.closed) this.dispatch({ type: 'stored', key: entry.key, step });
    } catch (error) {
      if (!(error instanceof Refusal)) return this.failed(error);
      const { code, message: sentence, steps } = error;
      if (!this.closed) this.dispatch({ type: 'refused', key: entry.key, code, sentence, steps });
    }
  }

  private async fetchHistory(kind: 'undo' | 'redo', from: number): Promise<void> {
    try {
      this.dispatch({ type: 'history', kind, from, ...(await this.api.stack(this.variant.id, kind, from)) });
    } catch {
      await this.options.wait(HISTORY_RETRY);
      if (!this.closed) this.dispatch({ type: 'history', kind, from, entries: [], below: from });
    }
  }

  private perform(effect: Effect): void {
    const { api, variant, options } = this;
    switch (effect.type) {
      case 'send':
        return void this.send(effect.entry, effect.revision);
      case 'fetch-steps':
        return void api
          .steps(variant.id, effect.since)
          .then((steps) => this.closed || this.dispatch({ type: 'steps', since: effect.since, steps }), this.failed);
      case 'fetch-history':
        return void this.fetchHistory(effect.kind, effect.from);
      case 'wait':
        return void options.wait(effect.ms).then(() => this.closed || this.dispatch({ type: 'retry' }));
      case 'keep':
        return this.dispatch({ type: 'kept', fault: options.keeper.write(effect.kept) });
      case 'complain':
        return this.complain(effect.sentence);
      case 'reload':
        return this.state.notKept === null ? options.reload() : undefined;
      case 'changed':
        return;
    }
  }
}

type SessionApi = Pick<Api, 'step' | 'move' | 'steps' | 'stack'>;

export function createSession(
  api: SessionApi,
  variant: LoadedVariant,
  { author = () => '', reload = () => {}, wait = pause, ...needed }: SessionOptions,
) {
  const driver = new Driver(api, variant, { ...needed, author, reload, wait });
  const { store, complain, dispatch } = driver;
  const { newKey, keeper } = needed;
  return {
    store,
    complain,
    /**
     * Makes a change; the faults when it is refused. Nothing happens for an empty list. `known`: what the edits lead to
     * from the design in view, for those who have applied them already.
     */
    edit(label: string, edits: readonly Edit[], known?: { from: Design; to: Design }): readonly Fault[] {
      const { design } = driver.now;
      if (edits.length === 0) return [];
      const applied = known?.from === design ? { ok: true as const, design: known.to } : applyEdits(design, edits);
      if (!applied.ok) return applied.faults;
      dispatch({ type: 'edit', key: newKey(), label: shortLabel(label), edits, design: applied.design });
      return [];
    },
    undo: () => dispatch({ type: 'undo', key: newKey() }),
    redo: () => dispatch({ type: 'redo', key: newKey() }),
    /** The server tells of a new revision of this variant. */
    told: (revision: number) => revision > driver.now.revision && dispatch({ type: 'told', revision }),
    /** The server tells which life of the database it serves. */
    epoch: (epoch: string) => dispatch({ type: 'epoch', epoch }),
    /** Takes up what the page before this one left. */
    resume: () => dispatch({ type: 'resume', kept: keeper.read() }),
    /** Takes up what a window that is gone left. */
    adopt: (kept: Kept) => dispatch({ type: 'resume', kept }),
    tryNow: () => dispatch({ type: 'retry' }),
    /** Ends a conflict: my edits on top of theirs where they still fit, or theirs alone. */
    resolve: (choice: 'mine' | 'theirs') => dispatch({ type: 'resolve', choice }),
    dismiss: (key: string) => dispatch({ type: 'dismiss', key }),
    /** What waits is stored, or known not to be, when this settles. */
    settled: (): Promise<void> =>
      new Promise((resolve) => {
        if (savingOf(driver.now) !== 'saving') return resolve();
        const stop = store.subscribe((s) => {
          if (s.saving === 'saving') return;
          stop();
          resolve();
        });
      }),
    close: () => driver.close(),
  };
}

const shown = (s: State): Omit<SessionState, 'solved' | 'last' | 'complaint'> => ({
  variantId: s.variantId,
  designId: s.designId,
  revision: s.revision,
  design: s.design,
  history: s.history,
  saving: savingOf(s),
  waiting: waitingCount(s),
  reason: s.reason,
  notKept: s.notKept,
  conflict: s.conflict,
  refused: s.refused,
  stale: s.stale,
});
