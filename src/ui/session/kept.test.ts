import { setField } from '../../core/design';
import { findKept, forget, isNothing, keeperFor, keptLabels, NOTHING } from './kept';
import type { Store } from './kept';
import { savingWords } from './saving-words';

/** A storage in memory, which can be made to refuse. */
function storage(): Store & { refuse: string | null; entries: Map<string, string> } {
  const entries = new Map<string, string>();
  const self = {
    entries,
    refuse: null as string | null,
    get length() {
      return entries.size;
    },
    key: (i: number) => [...entries.keys()][i] ?? null,
    getItem: (key: string) => entries.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (self.refuse) throw Object.assign(new Error('no'), { name: self.refuse });
      entries.set(key, value);
    },
    removeItem: (key: string) => void entries.delete(key),
  };
  return self;
}
let n = 0;
const newKey = () => `new${++n}`;
const edits = [setField('switch', 'gate', 'priority', 4096)];
const kept = {
  left: [{ since: 3, entries: [{ kind: 'edit' as const, key: 'k', label: 'mine', edits }] }],
  refused: [{ key: 'r', label: 'no', edits, sentence: 'Not so.' }],
};

test('what one window keeps is found by the next, and gone when there is nothing left', () => {
  const store = storage();
  const keeper = keeperFor(
    () => store,
    'v',
    'w1',
    () => NOTHING,
  );
  expect(keeper.write(kept)).toBeNull();
  const [found] = findKept(() => store, 'v', newKey, fail);
  expect(found).toMatchObject({ window: 'w1', kept });
  expect(keptLabels(found!.kept)).toEqual(['mine', 'no']);
  expect(findKept(() => store, 'other', newKey, fail)).toEqual([]);
  expect(keeper.write(NOTHING)).toBeNull();
  expect(store.entries.size).toBe(0);
});

function fail(): never {
  throw new Error('nothing was to be set aside');
}

test('a storage that is full, forbidden or gone has a sentence and throws nothing', () => {
  const store = storage();
  const keeper = keeperFor(
    () => store,
    'v',
    'w',
    () => NOTHING,
  );
  store.refuse = 'QuotaExceededError';
  expect(keeper.write(kept)).toMatch(/storage is full: a reload of this page would lose/);
  store.refuse = 'SecurityError';
  expect(keeper.write(kept)).toMatch(/forbids this page its storage/);
  expect(keeper.write(NOTHING)).toBeNull();
  const none = () => {
    throw new Error('denied');
  };
  expect(findKept(none, 'v', newKey, fail)).toEqual([]);
  expect(() => forget(none, 'x')).not.toThrow();
});

test.each([
  ['half written', '{"v":1,"left":[{"since":0,"entr'],
  ['foreign', '"<b>"'],
  ['of a later version', '{"v":2,"left":[]}'],
  [
    'with edits that are none',
    JSON.stringify({
      v: 1,
      left: [{ since: 0, entries: [{ kind: 'edit', key: 'k', label: 'x', edits: [{}] }] }],
      refused: [],
    }),
  ],
])('an entry that is %s is set aside and reported, and hides no other', (_, text) => {
  const store = storage();
  store.entries.set('knot-path.kept.v.bad', text);
  store.entries.set('knot-path.kept.v.good', JSON.stringify({ v: 1, ...kept }));
  const aside: string[] = [];
  const found = findKept(
    () => store,
    'v',
    newKey,
    (key) => aside.push(key),
  );
  expect(found.map((f) => f.window)).toEqual(['good']);
  expect(aside).toEqual(['knot-path.set-aside.knot-path.kept.v.bad']);
  expect(store.entries.get(aside[0]!)).toBe(text);
});

test('what an earlier release kept is read, each change with a key of its own', () => {
  const store = storage();
  const old = [{ label: 'x'.repeat(400), edits, client: 'c', since: 2 }];
  store.entries.set('knot-path.pending.v.tab', JSON.stringify(old));
  const [found] = findKept(() => store, 'v', newKey, fail);
  const [left] = found!.kept.left;
  expect([left!.since, left!.entries[0]!.label.length]).toEqual([2, 300]);
  expect(left!.entries[0]!.key).toMatch(/^new/);
  expect(isNothing(found!.kept)).toBe(false);
});

test('the words for the state of saving say how many changes wait and what a reload would lose', () => {
  const state = { saving: 'saved', waiting: 0, reason: null, notKept: null, refused: [] } as const;
  const words = (change: object) => savingWords({ ...state, ...change });
  expect(words({})).toEqual({ text: 'saved', alarm: false, detail: null });
  expect(words({ saving: 'saving', waiting: 1 }).text).toBe('saving…');
  expect(words({ saving: 'unreachable', waiting: 1, reason: 'No.' })).toEqual({
    text: '1 change not saved: server not reached',
    alarm: true,
    detail: 'No.',
  });
  expect(words({ saving: 'unreachable', waiting: 3, notKept: 'Full.' }).text).toBe(
    '3 changes not saved: server not reached, a reload would lose them',
  );
  expect(words({ saving: 'unreachable' }).text).toBe('server not reached');
  expect(words({ saving: 'refused', refused: kept.refused }).text).toBe('1 change refused');
  expect(words({ saving: 'conflict' })).toMatchObject({ text: 'conflict: choose a version', alarm: true });
});
