import { asMeant } from '../../demo/brackwater';
import { applyEdits } from '../../core/design';
import type { Design, Note } from '../../core/design';
import { draftOf, layerAction, layersOf, noteAction } from './notes';

const demo = asMeant();
const after = (design: Design, edits: Parameters<typeof applyEdits>[1]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};
const withNotes = (notes: Note[]): Design => ({ ...demo, notes });

test('a new note is about what is selected: of a bundle its cables, of a free port its switch', () => {
  const bundle = demo.bundles[0]!;
  expect(draftOf(demo, [{ kind: 'bundle', id: bundle.id }]).about).toHaveLength(bundle.members.length);
  const free = demo.ports.find((p) => !demo.links.some((l) => JSON.stringify(l).includes(`"${p.id}"`)));
  if (free) expect(draftOf(demo, [{ kind: 'port', id: free.id }]).about).toEqual([free.switch]);
  expect(draftOf(demo, [{ kind: 'switch', id: 'gate' }])).toEqual({ id: null, about: ['gate'], form: 'text' });
  const both = [
    { kind: 'switch', id: 'gate' },
    { kind: 'switch', id: 'workshop' },
  ] as const;
  expect([draftOf(demo, both).form, draftOf(demo, both, true).form]).toEqual(['text', 'box']);
  expect(draftOf(demo, []).about).toEqual([]);
});

test('a note that is selected is changed, in what differs alone', () => {
  const design = withNotes([{ id: 'n', text: 'Key with the porter', about: ['gate'], layer: 'access' }]);
  const draft = draftOf(design, [{ kind: 'note', id: 'n' }]);
  const same = noteAction(design, draft, { text: 'Key with the porter', form: 'text', layer: 'access ' });
  expect(same.edits).toEqual([]);
  const { edits } = noteAction(design, draft, { text: 'Key in the safe', form: 'text', layer: '' });
  expect(after(design, edits).notes).toEqual([{ id: 'n', text: 'Key in the safe', about: ['gate'] }]);
});

test('words are asked for', () => {
  const { edits } = noteAction(demo, draftOf(demo, []), { text: '  ', form: 'text', layer: '' });
  expect(applyEdits(demo, edits)).toMatchObject({ ok: false, faults: [{ sentence: 'A note needs words.' }] });
});

test('a layer is hidden and shown whole', () => {
  const notes: Note[] = [
    { id: 'a', text: 'a', about: [], layer: 'ducts', hidden: true },
    { id: 'b', text: 'b', about: [], layer: 'ducts' },
    { id: 'c', text: 'c', about: [] },
  ];
  let design = withNotes(notes);
  expect(layersOf(design).map(({ name, shown }) => [name, shown])).toEqual([
    ['', 'all'],
    ['ducts', 'some'],
  ]);
  design = after(design, layerAction(layersOf(design)[1]!).edits);
  expect(layersOf(design)[1]!.shown).toBe('all');
  design = after(design, layerAction(layersOf(design)[1]!).edits);
  expect(layersOf(design).map((l) => l.shown)).toEqual(['all', 'none']);
});
