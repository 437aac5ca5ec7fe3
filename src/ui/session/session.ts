/**
 * One open variant. Edits show at once and are sent one after another; steps of other windows are taken in as they
 * come. Where both sides wrote to the same place, both are kept until the engineer has chosen.
 */
import { createStore } from 'zustand/vanilla';
import { advance, applyEdits, editsCollide } from '../../core/design';
import type { Design, Edit, Fault, History } from '../../core/design';
import { movedBetween, solveDesign } from '../../core/trees';
import type { MovedTree, SolvedDesign } from '../../core/trees';
import type { Api } from './api';
import { Refusal } from './types';
import type { LoadedVariant, Step } from './types';

export interface PendingEdit {
  readonly label: string;
  readonly edits: readonly Edit[];
  /** Window that made it, and the newest revision it knew: they tell whether it reached the server after all. */
  readonly client: string;
  readonly since: number;
}

export interface Conflict {
  readonly mine: readonly PendingEdit[];
  readonly theirs: readonly Step[];
  /** The design as this window had it. */
  readonly myDesign: Design;
}

export interface LastChange {
  readonly label: string;
  readonly kind: Step['kind'] | 'theirs';
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
  readonly saving: 'saved' | 'saving' | 'unreachable';
  readonly last: LastChange | null;
  readonly conflict: Conflict | null;
  /** A refusal to show; with a number so that the same sentence shows again. */
  readonly complaint: { readonly sentence: string; readonly n: number } | null;
}

/** Where edits wait that are not stored yet, so that a reload or a crash of the page loses none. */
export interface Drawer {
  read(): readonly PendingEdit[];
  write(pending: readonly PendingEdit[]): void;
}

const RETRY_MS = 1500;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

export type Session = ReturnType<typeof createSession>;

export function createSession(api: Api, variant: LoadedVariant, client: string, drawer: Drawer) {
  /** The design as stored at `revision`, without what is still on its way. */
  let stored = variant.design;
  let pending: PendingEdit[] = [];
  let running: Promise<void> | null = null;
  /** Nothing is sent before what an earlier visit left is looked through. */
  let lookedThrough: Promise<void> = Promise.resolve();
  let behind = false;
  let closed = false;

  const store = createStore<SessionState>(() => ({
    variantId: variant.id,
    designId: variant.designId,
    revision: variant.revision,
    design: variant.design,
    solved: solveDesign(variant.design),
    history: variant.history,
    saving: 'saved',
    last: null,
    conflict: null,
    complaint: null,
  }));
  const { getState, setState } = store;

  const complain = (sentence: string) => setState((s) => ({ complaint: { sentence, n: (s.complaint?.n ?? 0) + 1 } }));

  /** Shows a design, and what moved from the one shown before. */
  const show = (design: Design, last: Omit<LastChange, 'moved' | 'before'> | null) => {
    const before = getState().solved;
    const solved = solveDesign(design, before);
    setState({ design, solved, ...(last ? { last: { ...last, before, moved: movedBetween(before, solved) } } : {}) });
  };

  const keep = (next: PendingEdit[]) => {
    pending = next;
    drawer.write(pending);
  };

  /** The stored design with everything pending on top; null when that does not fit. */
  const withPending = (base: Design, list: readonly PendingEdit[]): Design | null => {
    const applied = applyEdits(
      base,
      list.flatMap((p) => p.edits),
    );
    return applied.ok ? applied.design : null;
  };

  /** A step of this window whose acknowledgement got lost: it is stored, and no longer pending. */
  const isMyOwn = (step: Step): boolean => {
    const [first] = pending;
    if (step.client !== first?.client || JSON.stringify(step.edits) !== JSON.stringify(first.edits)) return false;
    keep(pending.slice(1));
    return true;
  };

  /** Takes steps of other windows in, under what is pending here. */
  const takeIn = (steps: readonly Step[]) => {
    const fresh = steps.filter((s) => s.revision > getState().revision);
    if (fresh.length === 0) return;
    let base = stored;
    let { history } = getState();
    for (const step of fresh) {
      const applied = applyEdits(base, step.edits);
      if (!applied.ok) throw new Error(`takeIn: step ${step.revision} does not apply`);
      base = applied.design;
      history = advance(history, step);
    }
    stored = base;
    setState({ revision: fresh.at(-1)!.revision, history });
    const foreign = fresh.filter((step) => !isMyOwn(step));
    const theirs = foreign.flatMap((s) => s.edits);
    const rebased = pending.some((p) => editsCollide(p.edits, theirs)) ? null : withPending(base, pending);
    if (rebased === null) {
      setState({ conflict: { mine: pending, theirs: foreign, myDesign: getState().design } });
      keep([]);
    }
    show(rebased ?? base, foreign.length > 0 ? { label: foreign.at(-1)!.label, kind: 'theirs' } : null);
  };

  const catchUp = async () => {
    behind = false;
    takeIn(await api.steps(variant.id, getState().revision));
  };

  /** Runs a call until the server is reached. */
  const persistently = async <T>(run: () => Promise<T>): Promise<T> => {
    for (;;) {
      try {
        return await run();
      } catch (error) {
        if (error instanceof Refusal || closed) throw error;
        setState({ saving: 'unreachable' });
        await wait(RETRY_MS);
      }
    }
  };

  const sendFirst = async () => {
    const [first] = pending;
    if (!first) return;
    try {
      const step = await persistently(() =>
        api.step(variant.id, getState().revision, first.label, first.edits, client),
      );
      const applied = applyEdits(stored, step.edits);
      if (applied.ok) stored = applied.design;
      keep(pending.slice(1));
      setState((s) => ({ revision: step.revision, history: advance(s.history, step) }));
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      if (error.code === 'conflict') return takeIn(error.steps);
      keep(pending.slice(1));
      complain(error.message);
      show(withPending(stored, pending) ?? stored, null);
    }
  };

  /** Drops what was stored although the page was left before it heard so, and shows the rest. */
  const lookThrough = async (since: number): Promise<void> => {
    const steps = await persistently(() => api.steps(variant.id, since ?? variant.revision)).catch(() => []);
    steps.forEach(isMyOwn);
    if (pending.length === 0) return;
    const design = withPending(stored, pending);
    if (design) return show(design, { label: pending.at(-1)!.label, kind: 'edit' });
    setState({ conflict: { mine: pending, theirs: [], myDesign: stored } });
    keep([]);
  };

  /** One thing after another: sends what is pending, then `then`. */
  const run = (then?: () => Promise<void>): Promise<void> => {
    const before = running ?? Promise.resolve();
    setState({ saving: 'saving' });
    const mine: Promise<void> = before
      .catch(() => undefined)
      .then(async () => {
        await lookedThrough;
        while (pending.length > 0 && !closed) await sendFirst();
        if (then && !closed) await then();
        if (behind) await catchUp();
      })
      .finally(() => {
        if (running !== mine) return;
        running = null;
        setState({ saving: 'saved' });
      });
    running = mine;
    return mine;
  };

  const takeBack = (call: Api['undo'], kind: 'undo' | 'redo', attempts = 3): Promise<void> =>
    run(async () => {
      try {
        const step = await persistently(() => call(variant.id, getState().revision, client));
        const applied = applyEdits(stored, step.edits);
        if (!applied.ok) return;
        stored = applied.design;
        setState((s) => ({ revision: step.revision, history: advance(s.history, step) }));
        show(withPending(stored, pending) ?? stored, { label: step.label, kind });
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        if (error.code !== 'conflict') return complain(error.message);
        takeIn(error.steps);
        if (attempts > 1) queueMicrotask(() => void takeBack(call, kind, attempts - 1));
      }
    });

  return {
    store,
    /**
     * Makes a change; the faults when it is refused. Nothing happens for an empty list. `known`: what the edits lead to
     * from the design in view, for those who have applied them already.
     */
    edit(label: string, edits: readonly Edit[], known?: { from: Design; to: Design }): readonly Fault[] {
      if (edits.length === 0) return [];
      const { design } = getState();
      const applied = known?.from === design ? { ok: true as const, design: known.to } : applyEdits(design, edits);
      if (!applied.ok) return applied.faults;
      show(applied.design, { label, kind: 'edit' });
      keep([...pending, { label, edits, client, since: getState().revision }]);
      void run();
      return [];
    },
    undo: () => takeBack(api.undo, 'undo'),
    redo: () => takeBack(api.redo, 'redo'),
    complain,
    /** A step that the server tells of. */
    receive(step: Step): void {
      if (step.revision <= getState().revision || step.client === client) return;
      if (!running && step.revision === getState().revision + 1) return takeIn([step]);
      behind = true;
      if (!running) void run();
    },
    /** Edits of an earlier visit that never reached the server; those that did, unacknowledged, are let go. */
    resume(): void {
      const left = drawer.read();
      if (left.length === 0) return;
      keep([...left]);
      lookedThrough = lookThrough(left[0]!.since);
      void run();
    },
    /** Ends a conflict: my edits on top of theirs, as far as they still fit, or theirs alone. */
    resolve(choice: 'mine' | 'theirs'): void {
      const { conflict } = getState();
      setState({ conflict: null });
      if (!conflict || choice === 'theirs') return;
      for (const { label, edits } of conflict.mine) {
        const faults = this.edit(label, edits);
        if (faults.length > 0) complain(faults[0]!.sentence);
      }
    },
    /** All that is pending is stored when this settles. */
    settled: async (): Promise<void> => {
      while (running) await running;
    },
    close(): void {
      closed = true;
    },
  };
}
