/** Whatever happens, and in whatever order: every change ends stored, kept for sending, refused, or in a conflict. */
import fc from 'fast-check';
import { applyEdits, editsCollide, setField } from '../../core/design';
import type { Edit } from '../../core/design';
import { SWITCHES, World, keysOf } from '../../../tests/support/session-world';
import { runs } from '../../../tests/support/runs';
import { pauseAfter } from './reducer';
import { keptOf, savingOf } from './state';

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
