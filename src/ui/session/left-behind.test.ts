import type { Found } from './kept';
import { LeftBehind } from './left-behind';

const entryOf = (window: string): Found => ({ window, storageKey: `kept.${window}`, kept: { left: [], refused: [] } });

function world(kept: string[], open: string[], more: { before?: string; stored?: string[] } = {}) {
  const entries = new Set(kept);
  const opened = new Set(open);
  const adopted: string[] = [];
  const left = new LeftBehind({
    find: () => [...entries].map(entryOf),
    isOpen: (window) => Promise.resolve(opened.has(window)),
    unsaved: (found) => Promise.resolve(more.stored?.includes(found.window) ? null : found),
    thisWindow: 'this',
    before: more.before ?? null,
    adopt: (found) => {
      adopted.push(found.window);
      entries.delete(found.window);
    },
  });
  const look = async () => (await left.look()).map((f) => f.window);
  return { left, look, entries, opened, adopted };
}

test('what windows left that are closed already is offered at once, not what open ones keep', async () => {
  const { look } = world(['closed', 'open', 'this'], ['open', 'this']);
  expect(await look()).toEqual(['closed']);
});

test('a window that closes later is offered when it is still gone at the next look', async () => {
  const { look, opened } = world(['a'], ['a']);
  expect(await look()).toEqual([]);
  opened.delete('a');
  expect(await look()).toEqual([]);
  expect(await look()).toEqual(['a']);
});

test('a window that is loaded again takes up its own: nothing is offered here', async () => {
  const { look, opened, entries } = world(['a'], ['a']);
  await look();
  opened.delete('a');
  await look();
  entries.delete('a');
  expect(await look()).toEqual([]);
});

test('a window found closed, then open, then closed has to be seen closed twice again', async () => {
  const { look, opened } = world(['a'], ['a']);
  await look();
  for (const isOpen of [false, true, false]) {
    if (isOpen) opened.add('a');
    else opened.delete('a');
    expect(await look()).toEqual([]);
  }
  expect(await look()).toEqual(['a']);
});

test('what another window took, discarded or stored meanwhile is offered no more', async () => {
  const { look, entries } = world(['a', 'b'], [], { stored: ['b'] });
  expect(await look()).toEqual(['a']);
  entries.delete('a');
  expect(await look()).toEqual([]);
});

test('what was answered is not offered again by this page', async () => {
  const { left, look } = world(['a', 'b'], []);
  await look();
  left.answer(left.left[0]!);
  expect(left.left.map((f) => f.window)).toEqual(['b']);
  expect(await look()).toEqual(['b']);
});

test('what the page before left is taken up without a question, also when it goes a little late', async () => {
  const at = world(['a', 'other'], ['a'], { before: 'a' });
  expect(await at.look()).toEqual(['other']);
  at.opened.delete('a');
  await at.look();
  expect(at.adopted).toEqual(['a']);
});

test('the original of a duplicated tab that closes much later is offered like any other window', async () => {
  const at = world(['a'], ['a'], { before: 'a' });
  for (let i = 0; i < 5; i++) await at.look();
  at.opened.delete('a');
  await at.look();
  expect(await at.look()).toEqual(['a']);
  expect(at.adopted).toEqual([]);
});
