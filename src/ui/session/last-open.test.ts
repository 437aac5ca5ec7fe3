import { byLastOpen, noteOpened } from './last-open';

const stored = new Map<string, string>();
beforeEach(() => {
  stored.clear();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, text: string) => void stored.set(key, text),
    },
  });
});

const rows = [
  { id: 'a', changedAt: 30 },
  { id: 'b', changedAt: 20 },
  { id: 'c', changedAt: 10 },
];
const order = () => byLastOpen(rows).map((r) => r.id);

test('what was open last comes before what was changed before that', () => {
  expect(order()).toEqual(['a', 'b', 'c']);
  noteOpened('c', 25);
  expect(order()).toEqual(['a', 'c', 'b']);
  noteOpened('b', 40);
  expect(order()).toEqual(['b', 'a', 'c']);
});

test('what another program wrote there is left out, and only so many are remembered', () => {
  stored.set('knot-path:opened', '{"a": "yesterday"');
  expect(order()).toEqual(['a', 'b', 'c']);
  for (let n = 0; n < 100; n++) noteOpened(`d${n}`, n);
  expect(Object.keys(JSON.parse(stored.get('knot-path:opened')!))).toHaveLength(60);
});
