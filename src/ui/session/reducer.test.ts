/** Whatever happens, and in whatever order: every change ends stored, kept for sending, refused, or in a conflict. */
import fc from 'fast-check';
import equal from 'fast-deep-equal';
import { applyEdits, editsCollide, emptyDesign, setField } from '../../core/design';
import type { Design, Edit } from '../../core/design';
import { SessionServer } from '../../../tests/support/session-server';
import { runs } from '../../../tests/support/runs';
import { standing } from './entry';
import { NOTHING } from './kept';
import { pauseAfter, reduce } from './reducer';
import { initialState, keptOf, savingOf } from './state';
import type { Effect, Event, Kept, State } from './state';
import { Refusal } from './types';

const SWITCHES = ['a', 'b', 'c'];
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

class World {
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

type Action = readonly [what: string, window: number, n: number];
const ACTIONS = [
  ...Array<string>(6).fill('edit'),
  'remove',
  'undo',
  'undo',
  'redo',
  ...Array<string>(6).fill('answer'),
  'lose',
  'drop',
  'retry',
  'retry',
  'told',
  'told',
  'foreign',
  'refuse',
  'reload',
  'close',
  'adopt',
  'mine',
  'theirs',
  'dismiss',
  'full',
] as const;
const actions: fc.Arbitrary<Action[]> = fc.array(
  fc.tuple(fc.constantFrom(...ACTIONS), fc.nat({ max: 3 }), fc.nat({ max: 40 })),
  { minLength: 5, maxLength: 60 },
);

const someEdit = (n: number): Edit[] => [
  n % 4 === 0
    ? setField('switch', SWITCHES[n % 3]!, 'name', `n${n}`)
    : setField('switch', SWITCHES[n % 3]!, 'priority', (n % 15) * 4096),
];

async function act(world: World, [what, at, n]: Action): Promise<void> {
  const w = world.windows[at % world.windows.length]!;
  const { state, server } = { state: w.state, server: world.server };
  switch (what) {
    case 'edit':
    case 'remove': {
      const edits: Edit[] = what === 'edit' ? someEdit(n) : [{ type: 'remove', kind: 'switch', id: SWITCHES[n % 3]! }];
      const applied = applyEdits(state.design, edits);
      return applied.ok ? world.edit(w, edits, applied.design) : undefined;
    }
    case 'undo':
    case 'redo':
      if (what === 'undo') world.undos++;
      return world.happen(w, { type: what, key: world.key() });
    case 'answer':
      return world.answer(w, 'delivered');
    case 'lose':
      return world.answer(w, 'lost');
    case 'drop':
      return world.answer(w, 'dropped');
    case 'retry':
      w.waiting = false;
      return world.happen(w, { type: 'retry' });
    case 'told':
      return world.happen(w, { type: 'told', revision: server.steps.length });
    case 'foreign':
      try {
        server.elsewhere(
          'foreign',
          n % 7 === 0 ? [{ type: 'remove', kind: 'switch', id: SWITCHES[n % 3]! }] : someEdit(n),
        );
      } catch {
        // The switch is gone.
      }
      return;
    case 'refuse':
      server.refusal = 'not today';
      return;
    case 'reload':
      if (state.notKept === null) world.open(world.close(w));
      return;
    case 'close':
      if (world.windows.length > 1 && state.notKept === null) world.left.push(world.close(w));
      return;
    case 'adopt': {
      const kept = world.left.pop();
      return kept ? world.happen(w, { type: 'resume', kept }) : undefined;
    }
    case 'mine':
    case 'theirs':
      return world.resolve(w, what);
    case 'dismiss':
      return world.dismiss(w);
    case 'full':
      w.full = !w.full;
      return;
  }
}

const keysOf = (kept: Kept) => [
  ...kept.left.flatMap((l) => l.entries.map((e) => e.key)),
  ...kept.refused.map((r) => r.key),
];

function checkNow(world: World): void {
  const stored = new Set(world.server.steps.flatMap((s) => s.key ?? []));
  const held = new Set([...world.windows.flatMap((w) => keysOf(keptOf(w.state))), ...world.left.flatMap(keysOf)]);
  for (const key of world.made)
    if (!stored.has(key) && !held.has(key) && !world.gone.has(key)) throw new Error(`${key} is lost`);
  for (const w of world.windows) {
    const { state } = w;
    expect(state.stored).toEqual(world.server.designs[state.revision]);
    // What a reload takes up is what the window has, unless the storage takes nothing, and then that is known.
    if (state.notKept === null) expect(new Set(keysOf(w.storage))).toEqual(new Set(keysOf(keptOf(state))));
    if (savingOf(state) !== 'saved') continue;
    expect([state.queue, state.left, state.refused, state.conflict]).toEqual([[], [], [], null]);
    expect(state.design).toEqual(state.stored);
    expect(state.history).toEqual(state.storedHistory);
  }
}

/** No change was set over what another program had written meanwhile, unless its maker was asked. */
function nothingOverwritten({ server: { steps }, seen }: World): void {
  const foreign = steps.filter((s) => s.key === null);
  for (const step of steps) {
    if (step.kind !== 'edit' || step.key === null) continue;
    const unseen = foreign.filter((s) => s.revision > seen.get(step.key!)! && s.revision < step.revision);
    for (const theirs of unseen)
      expect([step.key, theirs.revision, editsCollide(step.edits, theirs.edits)]).toContain(false);
  }
}

/** The network works again: every request is answered until nothing is left to send. */
async function drain(world: World): Promise<void> {
  world.server.refusal = null;
  while (world.left.length > 0) world.happen(world.windows[0]!, { type: 'resume', kept: world.left.pop()! });
  for (let turn = 0; ; turn++) {
    if (turn > 2000) throw new Error('the windows never come to rest');
    const busy = world.windows.filter((w) => w.call);
    for (const w of busy) await world.answer(w, 'delivered');
    if (busy.length > 0) continue;
    const paused = world.windows.filter((w) => w.state.pausing);
    for (const w of paused) world.happen(w, { type: 'retry' });
    for (const w of world.windows)
      if (w.state.revision < world.server.steps.length)
        world.happen(w, { type: 'told', revision: world.server.steps.length });
    if (!world.windows.some((w) => w.call)) return;
  }
}

test('no interleaving of edits, undo, redo, lost answers, refusals, reloads and other windows loses a change', async () => {
  await fc.assert(
    fc.asyncProperty(actions, async (list) => {
      const world = new World();
      for (const action of list) {
        await act(world, action);
        checkNow(world);
      }
      await drain(world);
      checkNow(world);
      nothingOverwritten(world);
      const { steps } = world.server;
      const keys = steps.flatMap((s) => s.key ?? []);
      expect(new Set(keys).size).toBe(keys.length);
      expect(steps.filter((s) => s.kind === 'undo').length).toBeLessThanOrEqual(world.undos);
      for (const { state } of world.windows) {
        expect([state.queue, state.left]).toEqual([[], []]);
        expect(state.design).toEqual(world.server.design);
        expect(savingOf(state)).toBe(state.conflict ? 'conflict' : state.refused.length > 0 ? 'refused' : 'saved');
      }
    }),
    runs(400),
  );
});

test('pauses grow up to half a minute', () => {
  expect([1, 2, 3, 4, 5, 6, 20].map(pauseAfter)).toEqual([1000, 2000, 4000, 8000, 16_000, 30_000, 30_000]);
});
