import { asCabled } from '../../demo/brackwater';
import { applyEdits, setField } from '../../core/design';
import type { Design, Edit } from '../../core/design';
import type { Api } from './api';
import { createSession } from './session';
import type { PendingEdit } from './session';
import { Refusal } from './types';
import type { Step } from './types';

const priority = (id: string, value: number): Edit[] => [setField('switch', id, 'priority', value)];
const of = (design: Design, id: string) => design.switches.find((s) => s.id === id)!.priority;

/** A server in memory, with a switch to cut it off and a way for somebody else to make changes. */
function server() {
  let design = asCabled();
  const steps: (Step & { inverse: Edit[] })[] = [];
  const state = { reachable: true, loseAnswers: false };
  const store = (kind: Step['kind'], target: number | null, label: string, edits: readonly Edit[], client: string) => {
    const applied = applyEdits(design, edits);
    if (!applied.ok) throw new Refusal(422, applied.faults[0]!.code, applied.faults[0]!.sentence, [], []);
    design = applied.design;
    const step = { revision: steps.length + 1, kind, target, label, edits, client, inverse: applied.inverse };
    steps.push(step);
    return step;
  };
  const at = (revision: number) => {
    if (!state.reachable) throw new TypeError('fetch failed');
    if (revision !== steps.length) throw new Refusal(409, 'conflict', 'changed', [], steps.slice(revision));
  };
  const api = {
    step: async (_: string, revision: number, label: string, edits: readonly Edit[], client: string) => {
      at(revision);
      const step = store('edit', null, label, edits, client);
      if (state.loseAnswers) {
        state.loseAnswers = false;
        throw new TypeError('the answer got lost');
      }
      return step;
    },
    undo: async (_: string, revision: number, client: string) => {
      at(revision);
      const last = steps.filter((s) => s.kind === 'edit').at(-1)!;
      return store('undo', last.revision, last.label, last.inverse, client);
    },
    steps: async (_: string, since: number) => steps.slice(since),
  } as unknown as Api;
  const kept: { pending: readonly PendingEdit[] } = { pending: [] };
  const drawer = {
    read: () => kept.pending,
    write: (pending: readonly PendingEdit[]) => void (kept.pending = pending),
  };
  const variant = () => ({
    id: 'v',
    designId: 'd',
    name: 'n',
    revision: steps.length,
    design,
    history: { undo: [], redo: [] },
  });
  return {
    api,
    state,
    steps,
    kept,
    open: (client = 'me') => createSession(api, variant(), client, drawer),
    elsewhere: (id: string, value: number) => store('edit', null, `theirs ${id}`, priority(id, value), 'other'),
    design: () => design,
  };
}

test('an edit shows at once and is stored behind it', async () => {
  const s = server();
  const session = s.open();
  expect(session.edit('mine', priority('gate', 4096))).toEqual([]);
  expect(of(session.store.getState().design, 'gate')).toBe(4096);
  expect(session.store.getState().saving).toBe('saving');
  await session.settled();
  expect(session.store.getState()).toMatchObject({ saving: 'saved', revision: 1 });
  expect(of(s.design(), 'gate')).toBe(4096);
});

test('an edit that does not fit is refused and changes nothing', () => {
  const session = server().open();
  expect(session.edit('mine', priority('gate', 2478))[0]!.sentence).toContain('the nearest is 4096');
  expect(of(session.store.getState().design, 'gate')).toBeUndefined();
});

test('steps of others come in under what is pending here', async () => {
  const s = server();
  const session = s.open();
  s.elsewhere('quay-a', 8192);
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  expect(session.store.getState()).toMatchObject({ revision: 2, conflict: null });
  expect([of(s.design(), 'quay-a'), of(s.design(), 'gate')]).toEqual([8192, 4096]);
});

test('two changes of one field are both kept until one is chosen', async () => {
  const s = server();
  const session = s.open();
  s.elsewhere('gate', 8192);
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  const { conflict, design } = session.store.getState();
  expect(conflict).toMatchObject({ mine: [{ label: 'mine' }], theirs: [{ label: 'theirs gate' }] });
  expect([of(design, 'gate'), of(conflict!.myDesign, 'gate')]).toEqual([8192, 4096]);
  session.resolve('mine');
  await session.settled();
  expect(of(s.design(), 'gate')).toBe(4096);
});

test('what is stored can be kept, and mine is then gone from here and there', async () => {
  const s = server();
  const session = s.open();
  s.elsewhere('gate', 8192);
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  session.resolve('theirs');
  await session.settled();
  expect(session.store.getState()).toMatchObject({ conflict: null, revision: 1, saving: 'saved' });
  expect([of(s.design(), 'gate'), of(session.store.getState().design, 'gate'), s.kept.pending]).toEqual([
    8192,
    8192,
    [],
  ]);
});

test('what was made while the server was away is stored when it is back', async () => {
  const s = server();
  const session = s.open();
  s.state.reachable = false;
  session.edit('one', priority('gate', 4096));
  session.edit('two', priority('quay-b', 0));
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(session.store.getState().saving).toBe('unreachable');
  expect(s.kept.pending.map((p) => p.label)).toEqual(['one', 'two']);
  s.state.reachable = true;
  await session.settled();
  expect(s.kept.pending).toEqual([]);
  expect([of(s.design(), 'gate'), of(s.design(), 'quay-b')]).toEqual([4096, 0]);
});

test('an edit whose answer got lost is stored once', async () => {
  const s = server();
  const session = s.open();
  s.state.loseAnswers = true;
  session.edit('mine', priority('gate', 4096));
  await session.settled();
  expect(s.steps).toHaveLength(1);
  expect(session.store.getState()).toMatchObject({ revision: 1, conflict: null, saving: 'saved' });
});

test('edits of an earlier visit are taken up again', async () => {
  const s = server();
  s.kept.pending = [{ label: 'left over', edits: priority('gate', 4096), client: 'before', since: 0 }];
  const session = s.open();
  session.resume();
  await session.settled();
  expect(of(s.design(), 'gate')).toBe(4096);
});

test('an edit that was stored although the page was left before it heard so is not made twice', async () => {
  const s = server();
  const first = s.open('before');
  s.state.loseAnswers = true;
  first.edit('split', [{ type: 'remove', kind: 'bundle', id: 'quay-b:lag102' }]);
  await new Promise((resolve) => setTimeout(resolve));
  first.close();
  expect([s.steps.length, s.kept.pending.length]).toEqual([1, 1]);
  const session = s.open('after');
  session.resume();
  await session.settled();
  expect(s.steps).toHaveLength(1);
  expect(s.kept.pending).toEqual([]);
  expect(session.store.getState()).toMatchObject({ revision: 1, conflict: null, saving: 'saved' });
});

test('undo waits for what is pending, and says what moved', async () => {
  const s = server();
  const session = s.open();
  session.edit('mine', [setField('switch', 'gate', 'vlanPriority.110', 0)]);
  await session.undo();
  expect(of(s.design(), 'gate')).toBeUndefined();
  const { last, design } = session.store.getState();
  expect(design).toEqual(asCabled());
  expect(last).toMatchObject({
    kind: 'undo',
    label: 'mine',
    moved: [{ tree: 'vlan-110', rootBefore: 'gate', rootAfter: 'core-east' }],
  });
});

test('a step that is told of is taken in once, gaps are filled, own ones are known already', async () => {
  const s = server();
  const session = s.open();
  const one = s.elsewhere('quay-a', 4096);
  const two = s.elsewhere('quay-b', 4096);
  session.receive(two);
  await session.settled();
  expect(session.store.getState().revision).toBe(2);
  session.receive(one);
  session.receive({ ...two, revision: 3, client: 'me' });
  expect(session.store.getState().revision).toBe(2);
});
