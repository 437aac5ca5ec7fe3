import fc from 'fast-check';
import { emptyDesign, historyOf, setField } from '../core/design';
import type { HistoryEntry } from '../core/design';
import { openDatabase } from './database';
import { createDesign } from './designs';
import { historyAt, stackFrom, STACK_PAGE } from './history';
import type { Db } from './db';
import { applyStep, loadVariant, moveStep, stepsSince } from './variants';

let n = 0;
function fresh(): { db: Db; id: string } {
  const db = openDatabase(':memory:');
  const design = { ...emptyDesign('x'), switches: [{ id: 'a', name: 'a', mac: '00:00:5e:00:53:01' }] };
  const head = createDesign(db, 'x', [{ name: 'v', design }], () => `h${++n}`, 1);
  return { db, id: head.variants[0]!.id };
}
const edit = (db: Db, id: string, revision: number) =>
  applyStep(
    db,
    id,
    { revision, client: 'c', key: `k${revision}` },
    `e${revision}`,
    [setField('switch', 'a', 'priority', (revision % 15) * 4096)],
    revision,
  );

/** A whole stack, page by page. */
function whole(db: Db, id: string, kind: 'undo' | 'redo', from: number | null): HistoryEntry[] {
  if (from === null) return [];
  const { entries, below } = stackFrom(db, id, kind, from);
  return [...whole(db, id, kind, below), ...entries];
}

test('the stacks walked to in the table are those of all steps in memory', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('edit', 'edit', 'undo', 'undo', 'redo'), { maxLength: 60 }), (moves) => {
      const { db, id } = fresh();
      let revision = 0;
      for (const kind of moves)
        try {
          if (kind === 'edit') edit(db, id, revision);
          else moveStep(db, id, kind, { revision, client: 'c' }, 1);
          revision++;
        } catch {
          // There was nothing to undo or redo.
        }
      const expected = historyOf(stepsSince(db, id, 0));
      const { undo, redo, undoBelow, redoBelow } = historyAt(db, id, revision);
      expect([...whole(db, id, 'undo', undoBelow ?? null), ...undo]).toEqual(expected.undo);
      expect([...whole(db, id, 'redo', redoBelow ?? null), ...redo]).toEqual(expected.redo);
    }),
    { numRuns: 60 },
  );
});

test('only the upper part of a long stack is sent, and the rest page by page', () => {
  const { db, id } = fresh();
  for (let i = 0; i < 130; i++) edit(db, id, i);
  const { history } = loadVariant(db, id);
  expect([history.undo.length, history.undo.at(-1)!.label, history.undoBelow]).toEqual([STACK_PAGE, 'e129', 80]);
  expect(whole(db, id, 'undo', history.undoBelow!).map((e) => e.revision)).toEqual(
    Array.from({ length: 80 }, (_, i) => i + 1),
  );
});
