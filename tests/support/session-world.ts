/** Windows of one browser that share a server, every event of which is made by hand. */
import equal from 'fast-deep-equal';
import { emptyDesign } from '@/core/design';
import type { Design, Edit } from '@/core/design';
import { standing } from '@/ui/session/entry';
import { NOTHING } from '@/ui/session/kept';
import { reduce } from '@/ui/session/reducer';
import { initialState, keptOf } from '@/ui/session/state';
import type { Effect, Event, Kept, State } from '@/ui/session/state';
import { Refusal } from '@/ui/session/types';
import { SessionServer } from './session-server';

export const SWITCHES = ['a', 'b', 'c'];
const start = (): Design => ({
  ...emptyDesign('three'),
  switches: SWITCHES.map((id, i) => ({ id, name: id, mac: `00:00:5e:00:53:0${i}` })),
});

interface Window {
  state: State;
  /** The one request that waits for its answer. */
  call: Effect | null;
  waiting: boolean;
  storage: Kept;
  full: boolean;
}

export class World {
  readonly server = new SessionServer(start());
  windows: Window[] = [];
  /** What closed windows left in the storage. */
  left: Kept[] = [];
  readonly made: string[] = [];
  /** Given up by a person's own choice, or taken back before it was stored. */
  readonly gone = new Set<string>();
  /** The newest revision that the person who made a change, or set it on top of others in a conflict, had in view. */
  readonly seen = new Map<string, number>();
  undos = 0;
  private keys = 0;

  constructor() {
    this.open();
    this.open();
  }

  key = () => `k${++this.keys}`;

  open(kept: Kept = NOTHING): Window {
    const w: Window = {
      state: initialState(this.server.variant()),
      call: null,
      waiting: false,
      storage: kept,
      full: false,
    };
    this.windows.push(w);
    if (kept !== NOTHING) this.happen(w, { type: 'resume', kept });
    return w;
  }

  happen(w: Window, event: Event): void {
    const before = w.state;
    const [state, effects] = reduce(before, event);
    w.state = state;
    // What did not change is the same object: whatever is made from it, like a change that is tried out, stays.
    if (equal(before.design, state.design) && before.design !== state.design)
      throw new Error(`${event.type} replaced the design by an equal one`);
    // Edits that an undo took back before they were stored are not part of a conflict.
    for (const list of [before.queue, ...before.left.map((l) => l.entries)]) {
      const kept = new Set([...standing(list).map((e) => e.key), ...keysOf(keptOf(state))]);
      for (const e of list) if (e.kind === 'edit' && !kept.has(e.key)) this.gone.add(e.key);
    }
    for (const effect of effects)
      if (effect.type === 'send' || effect.type === 'fetch-steps') w.call = effect;
      else if (effect.type === 'wait') w.waiting = true;
      else if (effect.type === 'keep') {
        if (!w.full) w.storage = effect.kept;
        this.happen(w, { type: 'kept', fault: w.full ? 'full' : null });
      }
  }

  /** What the server makes of the request that is on its way. */
  async perform(call: Effect): Promise<Event> {
    const { server } = this;
    if (call.type === 'fetch-steps')
      return { type: 'steps', since: call.since, steps: await server.api.steps('v', call.since) };
    if (call.type !== 'send') throw new Error('no request');
    const { entry, revision } = call;
    const sender = { key: entry.key, client: 'w', author: '', epoch: server.epoch };
    try {
      const step =
        entry.kind === 'edit'
          ? await server.api.step('v', revision, entry.label, entry.edits, sender)
          : await server.api.move(entry.kind, 'v', revision, entry.target, sender);
      return { type: 'stored', key: entry.key, step };
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      return { type: 'refused', key: entry.key, code: error.code, sentence: error.message, steps: error.steps };
    }
  }

  async answer(w: Window, how: 'delivered' | 'lost' | 'dropped'): Promise<void> {
    const { call } = w;
    if (!call) return;
    const event = how === 'dropped' ? null : await this.perform(call);
    w.call = null;
    if (event && how === 'delivered') this.happen(w, event);
    else this.happen(w, { type: 'failed', reason: 'lost', retryAfter: null });
  }

  edit(w: Window, edits: readonly Edit[], design: Design): void {
    const key = this.key();
    this.made.push(key);
    this.seen.set(key, w.state.revision);
    this.happen(w, { type: 'edit', key, label: key, edits, design });
  }

  close(w: Window): Kept {
    this.windows = this.windows.filter((x) => x !== w);
    return w.storage;
  }

  resolve(w: Window, choice: 'mine' | 'theirs'): void {
    for (const { key } of w.state.conflict?.mine ?? [])
      if (choice === 'theirs') this.gone.add(key);
      else this.seen.set(key, w.state.revision);
    this.happen(w, { type: 'resolve', choice });
  }

  dismiss(w: Window): void {
    const [first] = w.state.refused;
    if (!first) return;
    this.gone.add(first.key);
    this.happen(w, { type: 'dismiss', key: first.key });
  }
}

/** Keys of the changes that are kept. */
export const keysOf = (kept: Kept): string[] => [
  ...kept.left.flatMap((l) => l.entries.map((e) => e.key)),
  ...kept.refused.map((r) => r.key),
];
