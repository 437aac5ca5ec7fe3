import { asCabled } from '../../demo/brackwater';
import { setField } from '../../core/design';
import type { Design, Edit } from '../../core/design';
import { SessionServer } from '../../../tests/support/session-server';
import { createSession, shortLabel } from './session';
import { NOTHING } from './kept';
import type { Kept } from './state';
import { Unreached } from './types';

const priority = (id: string, value: number): Edit[] => [setField('switch', id, 'priority', value)];
const of = (design: Design, id: string) => design.switches.find((s) => s.id === id)!.priority;
const turn = () => new Promise((resolve) => setTimeout(resolve));
let keys = 0;

/** A server with a switch to cut it off, a way to lose answers, and a storage for what waits. */
function world() {
  const server = new SessionServer(asCabled());
  const state = { reachable: true, loseAnswers: false, storageFault: null as string | null };
  const kept: { now: Kept } = { now: NOTHING };
  const through =
    <A extends unknown[], R>(run: (...args: A) => Promise<R>) =>
    async (...args: A): Promise<R> => {
      if (!state.reachable) throw new Unreached('The server cannot be reached.');
      const answer = await run(...args);
      if (!state.loseAnswers) return answer;
      state.loseAnswers = false;
      throw new Unreached('The answer got lost.');
    };
  const { step, move, steps, stack } = server.api;
  const api = { step: through(step), move: through(move), steps: through(steps), stack };
  const open = (client = 'me') =>
    createSession(api, server.variant(), {
      client,
      keeper: {
        read: () => kept.now,
        write: (next) => {
          if (state.storageFault === null) kept.now = next;
          return state.storageFault;
        },
      },
      newKey: () => `k${++keys}`,
      wait: () => new Promise((resolve) => setTimeout(resolve, 2)),
    });
  return { server, state, kept, open };
}

const waitingLabels = (kept: Kept) => kept.left.flatMap((l) => l.entries.map((e) => e.label));

test('an edit shows at once and is stored behind it', async () => {
  const w = world();
  const session = w.open();
  expect(session.edit('mine', priority('gate', 4096))).toEqual([]);
  expect(of(session.store.getState().design, 'gate')).toBe(4096);
  expect(session.store.getState().saving).toBe('saving');
  await session.settled();
  expect(session.store.getState()).toMatchObject({ saving: 'saved', revision: 1 });
  expect(of(w.server.design, 'gate')).toBe(4096);
});

test('an edit that does not fit is refused and changes nothing', () => {
  const session = world().open();
  expect(session.edit('mine', priority('gate', 2478))[0]!.sentence).toContain('the nearest is 4096');
  expect(of(session.store.getState().design, 'gate')).toBeUndefined();
});

test('steps of others come in under what is pending here', async () => {
  const w = world();
  const session = w.open();
  w.server.elsewhere('theirs', priority('quay-a', 8192));
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  expect(session.store.getState()).toMatchObject({ revision: 2, conflict: null });
  expect([of(w.server.design, 'quay-a'), of(w.server.design, 'gate')]).toEqual([8192, 4096]);
});

async function inConflict() {
  const w = world();
  const session = w.open();
  w.server.elsewhere('theirs gate', priority('gate', 8192));
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  return { w, session };
}

test('two changes of one field are both kept until one is chosen', async () => {
  const { w, session } = await inConflict();
  const { conflict, design, saving } = session.store.getState();
  expect(conflict).toMatchObject({ mine: [{ label: 'mine' }], theirs: [{ label: 'theirs gate' }], since: 0 });
  expect([of(design, 'gate'), saving]).toEqual([8192, 'conflict']);
  session.resolve('mine');
  await session.settled();
  expect(of(w.server.design, 'gate')).toBe(4096);
});

test('what is stored can be chosen, and mine is then gone from here and there', async () => {
  const { w, session } = await inConflict();
  session.resolve('theirs');
  await session.settled();
  expect(session.store.getState()).toMatchObject({ conflict: null, revision: 1, saving: 'saved' });
  expect([of(w.server.design, 'gate'), of(session.store.getState().design, 'gate')]).toEqual([8192, 8192]);
  expect(w.kept.now).toEqual(NOTHING);
});

test('a reload while the conflict is open keeps both sides', async () => {
  const { w, session } = await inConflict();
  session.close();
  const next = w.open('after');
  next.resume();
  await next.settled();
  expect(next.store.getState().conflict).toMatchObject({
    mine: [{ label: 'mine' }],
    theirs: [{ label: 'theirs gate' }],
  });
  next.resolve('mine');
  await next.settled();
  expect(of(w.server.design, 'gate')).toBe(4096);
});

test('what was made while the server was away is stored when it is back, undo included', async () => {
  const w = world();
  const session = w.open();
  w.state.reachable = false;
  session.edit('one', priority('gate', 4096));
  session.edit('two', priority('quay-b', 0));
  session.edit('three', priority('quay-b', 4096));
  session.undo();
  expect(of(session.store.getState().design, 'quay-b')).toBe(0);
  await turn();
  expect(session.store.getState()).toMatchObject({ saving: 'unreachable', waiting: 4 });
  expect(waitingLabels(w.kept.now)).toEqual(['one', 'two', 'three', 'three']);
  w.state.reachable = true;
  session.tryNow();
  await new Promise<void>((resolve) => session.store.subscribe((s) => s.saving === 'saved' && resolve()));
  expect(w.kept.now).toEqual(NOTHING);
  expect([of(w.server.design, 'gate'), of(w.server.design, 'quay-b')]).toEqual([4096, 0]);
  expect(w.server.steps.map((s) => s.kind)).toEqual(['edit', 'edit', 'edit', 'undo']);
});

/** Until everything is stored, over failed attempts too. */
const untilSaved = (session: ReturnType<ReturnType<typeof world>['open']>) =>
  new Promise<void>((resolve) => {
    if (session.store.getState().saving === 'saved') return resolve();
    session.store.subscribe((s) => s.saving === 'saved' && resolve());
  });

test('an edit and an undo whose answers got lost are made once', async () => {
  const w = world();
  const session = w.open();
  w.state.loseAnswers = true;
  session.edit('mine', priority('gate', 4096));
  await untilSaved(session);
  w.state.loseAnswers = true;
  session.undo();
  await untilSaved(session);
  expect(w.server.steps.map((s) => s.kind)).toEqual(['edit', 'undo']);
  expect(session.store.getState()).toMatchObject({ revision: 2, conflict: null });
  expect(session.store.getState().design).toEqual(asCabled());
});

test('a storage that takes nothing hinders no sending, and is reported', async () => {
  const w = world();
  w.state.storageFault = 'The storage is full.';
  w.state.reachable = false;
  const session = w.open();
  session.edit('mine', priority('gate', 4096));
  await turn();
  expect(session.store.getState()).toMatchObject({ saving: 'unreachable', notKept: 'The storage is full.' });
  w.state.reachable = true;
  await untilSaved(session);
  expect(of(w.server.design, 'gate')).toBe(4096);
});

test('a refused edit stays with its reason and content, also after a reload, until it is dismissed', async () => {
  const w = world();
  const session = w.open();
  w.server.refusal = 'This is not allowed.';
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  const { saving, refused, design } = session.store.getState();
  expect([saving, of(design, 'gate')]).toEqual(['refused', undefined]);
  expect(refused).toMatchObject([{ label: 'mine', edits: priority('gate', 4096), sentence: 'This is not allowed.' }]);
  session.close();
  const next = w.open('after');
  next.resume();
  await next.settled();
  expect(next.store.getState().refused).toEqual(refused);
  next.dismiss(refused[0]!.key);
  expect(next.store.getState().saving).toBe('saved');
  expect(w.kept.now).toEqual(NOTHING);
});

test('what builds on a refused edit is refused with it', async () => {
  const w = world();
  const session = w.open();
  w.server.refusal = 'This is not allowed.';
  session.edit('a VLAN', [{ type: 'add', kind: 'vlan', value: { id: 'v7', number: 7 } }]);
  session.edit('its name', [setField('vlan', 'v7', 'name', 'seven')]);
  await session.settled();
  expect(session.store.getState().refused.map((r) => r.label)).toEqual(['a VLAN', 'its name']);
});

test('an edit that was stored although the page was left before it was confirmed is not made twice', async () => {
  const w = world();
  const first = w.open('before');
  w.state.loseAnswers = true;
  first.edit('split', [{ type: 'remove', kind: 'bundle', id: 'quay-b:lag102' }]);
  await turn();
  first.close();
  expect([w.server.steps.length, waitingLabels(w.kept.now)]).toEqual([1, ['split']]);
  const session = w.open('after');
  session.resume();
  await session.settled();
  expect(w.server.steps).toHaveLength(1);
  expect(w.kept.now).toEqual(NOTHING);
  expect(session.store.getState()).toMatchObject({ revision: 1, conflict: null, saving: 'saved' });
});

test('what is taken up while newer steps are asked for is compared with all steps since it was made', async () => {
  const w = world();
  w.server.elsewhere('theirs', priority('gate', 20480));
  const session = w.open();
  session.told(2);
  const left = {
    since: 0,
    entries: [{ kind: 'edit' as const, key: 'old', label: 'mine', edits: priority('gate', 8192) }],
  };
  session.adopt({ left: [left], refused: [] });
  await session.settled();
  expect(session.store.getState()).toMatchObject({ saving: 'conflict', conflict: { mine: [{ key: 'old' }] } });
  expect(of(w.server.design, 'gate')).toBe(20480);
});

test('undo says what moved, and takes back only what was the last change when it was pressed', async () => {
  const w = world();
  const session = w.open();
  session.edit('mine', [setField('switch', 'gate', 'vlanPriority.110', 0)]);
  session.undo();
  await session.settled();
  expect(session.store.getState().design).toEqual(asCabled());
  expect(session.store.getState().last).toMatchObject({
    kind: 'undo',
    label: 'mine',
    moved: [{ tree: 'vlan-110', rootBefore: 'gate', rootAfter: 'core-east' }],
  });
  session.edit('again', priority('gate', 4096));
  await session.settled();
  w.server.elsewhere('theirs', priority('quay-a', 8192));
  session.undo();
  await session.settled();
  expect([of(w.server.design, 'gate'), of(w.server.design, 'quay-a')]).toEqual([4096, 8192]);
  expect(session.store.getState().complaint?.sentence).toContain("Undo of 'again' was not done");
});

test('a revision that the server reports is fetched once, and an old one asks for nothing', async () => {
  const w = world();
  const session = w.open();
  w.server.elsewhere('one', priority('quay-a', 4096));
  w.server.elsewhere('two', priority('quay-b', 4096));
  session.told(2);
  await turn();
  expect(session.store.getState().revision).toBe(2);
  session.told(1);
  await turn();
  expect(of(session.store.getState().design, 'quay-b')).toBe(4096);
});

test('labels are shortened to what the server takes', () => {
  expect(shortLabel('x'.repeat(400))).toHaveLength(300);
  expect(shortLabel('short')).toBe('short');
});

test('another life of the database makes the page load again, with what waits kept', async () => {
  const w = world();
  let reloads = 0;
  const session = createSession(w.server.api, w.server.variant(), {
    client: 'me',
    keeper: { read: () => w.kept.now, write: (next) => ((w.kept.now = next), null) },
    newKey: () => `k${++keys}`,
    reload: () => void reloads++,
  });
  w.server.epoch = 'second';
  session.edit('mine', priority('gate', 4096));
  await turn();
  expect([reloads, session.store.getState().saving]).toEqual([1, 'unreachable']);
  expect(waitingLabels(w.kept.now)).toEqual(['mine']);
});
