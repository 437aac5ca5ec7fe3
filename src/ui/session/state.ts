/** What the session of one open variant knows, what can happen to it, and what it then asks its driver to do. */
import type { Design, Edit, History, HistoryEntry } from '../../core/design';
import { NO_HISTORY } from '../../core/design';
import type { Conflict, Done, Entry, RefusedEdit } from './entry';
import type { LoadedVariant, Step } from './types';

/** Entries of an earlier page, and the newest revision that page knew. */
export interface LeftOver {
  readonly since: number;
  readonly entries: readonly Entry[];
}

/** What is kept in the browser, so that a reload loses nothing. */
export interface Kept {
  readonly left: readonly LeftOver[];
  readonly refused: readonly RefusedEdit[];
}

export interface State {
  readonly variantId: string;
  readonly designId: string;
  readonly epoch: string;
  /** The design as stored at `revision`. */
  readonly stored: Design;
  readonly revision: number;
  /** History as stored. */
  readonly storedHistory: History;
  /** What the newest steps did, by revision. */
  readonly done: ReadonlyMap<number, Done>;
  /** Requests that wait to be confirmed, the first of them perhaps on its way. */
  readonly queue: readonly Entry[];
  /** What earlier pages left, not yet compared with the steps that were made meanwhile. */
  readonly left: readonly LeftOver[];
  readonly conflict: Conflict | null;
  readonly refused: readonly RefusedEdit[];
  /** The one request on its way. */
  readonly call: 'send' | 'steps' | null;
  /** Newest revision that the server has told of. */
  readonly told: number;
  /** Requests in a row that did not reach the server; waits for the next attempt while `pausing`. */
  readonly failures: number;
  readonly pausing: boolean;
  readonly reason: string | null;
  /** Why the browser's storage does not hold what waits; null while it does. */
  readonly notKept: string | null;
  /** The database is another one, or does not fit what this page knows: the page has to be loaded again. */
  readonly stale: boolean;
  readonly loadingHistory: boolean;
  /** What is shown: the stored design with everything that waits. */
  readonly design: Design;
  readonly history: History;
}

export type Event =
  | {
      readonly type: 'edit';
      readonly key: string;
      readonly label: string;
      readonly edits: readonly Edit[];
      readonly design: Design;
    }
  | { readonly type: 'undo' | 'redo'; readonly key: string }
  /** The first of the queue is stored. */
  | { readonly type: 'stored'; readonly key: string; readonly step: Step }
  | {
      readonly type: 'refused';
      readonly key: string;
      readonly code: string;
      readonly sentence: string;
      readonly steps: readonly Step[];
    }
  /** All steps after a revision. */
  | { readonly type: 'steps'; readonly since: number; readonly steps: readonly Step[] }
  | { readonly type: 'failed'; readonly reason: string; readonly retryAfter: number | null }
  | { readonly type: 'retry' }
  | { readonly type: 'told'; readonly revision: number }
  | { readonly type: 'epoch'; readonly epoch: string }
  | { readonly type: 'resume'; readonly kept: Kept }
  | { readonly type: 'resolve'; readonly choice: 'mine' | 'theirs' }
  | { readonly type: 'dismiss'; readonly key: string }
  | { readonly type: 'kept'; readonly fault: string | null }
  | {
      readonly type: 'history';
      readonly kind: 'undo' | 'redo';
      readonly from: number;
      readonly entries: readonly HistoryEntry[];
      readonly below: number | null;
    };

/** How what is shown came to change. */
export type ChangeKind = 'edit' | 'undo' | 'redo' | 'theirs' | 'refused';

/** What the driver does after an event. */
export type Effect =
  | { readonly type: 'send'; readonly entry: Entry; readonly revision: number }
  | { readonly type: 'fetch-steps'; readonly since: number }
  | { readonly type: 'fetch-history'; readonly kind: 'undo' | 'redo'; readonly from: number }
  | { readonly type: 'wait'; readonly ms: number }
  | { readonly type: 'keep'; readonly kept: Kept }
  | { readonly type: 'complain'; readonly sentence: string }
  /** What is shown has changed by this. */
  | { readonly type: 'changed'; readonly label: string; readonly kind: ChangeKind }
  | { readonly type: 'reload' };

export function initialState(variant: LoadedVariant): State {
  return {
    variantId: variant.id,
    designId: variant.designId,
    epoch: variant.epoch,
    stored: variant.design,
    revision: variant.revision,
    storedHistory: { ...NO_HISTORY, ...variant.history },
    done: new Map(),
    queue: [],
    left: [],
    conflict: null,
    refused: [],
    call: null,
    told: variant.revision,
    failures: 0,
    pausing: false,
    reason: null,
    notKept: null,
    stale: false,
    loadingHistory: false,
    design: variant.design,
    history: variant.history,
  };
}

/** Changes that are neither stored, nor refused, nor in a conflict. */
export const waitingCount = (s: Pick<State, 'queue' | 'left'>): number =>
  s.queue.length + s.left.reduce((n, l) => n + l.entries.length, 0);

export type Saving = 'saved' | 'saving' | 'unreachable' | 'refused' | 'conflict';

/** The one word for the state of saving: `saved` only when every change is stored. */
export function savingOf(s: State): Saving {
  if (s.conflict) return 'conflict';
  if (s.failures > 0 || s.stale) return 'unreachable';
  if (waitingCount(s) > 0) return 'saving';
  return s.refused.length > 0 ? 'refused' : 'saved';
}

/** What of a state a reload would lose if it were not kept. */
export function keptOf(s: State): Kept {
  const { conflict } = s;
  return {
    left: [
      ...s.left,
      ...(conflict ? [{ since: conflict.since, entries: conflict.mine }] : []),
      ...(s.queue.length > 0 ? [{ since: s.revision, entries: s.queue }] : []),
    ],
    refused: s.refused,
  };
}
