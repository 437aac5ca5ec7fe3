/** The route handlers, called as the framework calls them, on a database in memory. */
import { GET as listDesigns, POST as createDesign } from '@/app/api/designs/route';
import { DELETE as deleteDesign, GET as getDesign, PATCH as renameDesign } from '@/app/api/designs/[design]/route';
import { POST as duplicateDesign } from '@/app/api/designs/[design]/duplicate/route';
import { POST as restoreDesign } from '@/app/api/designs/[design]/restore/route';
import { POST as copyVariant } from '@/app/api/designs/[design]/variants/route';
import { POST as importDesign } from '@/app/api/import/route';
import { GET as exportVariant } from '@/app/api/variants/[variant]/export/route';
import { POST as redo } from '@/app/api/variants/[variant]/redo/route';
import { GET as getVariant } from '@/app/api/variants/[variant]/route';
import { GET as getSteps, POST as postStep } from '@/app/api/variants/[variant]/steps/route';
import { GET as getTrees } from '@/app/api/variants/[variant]/trees/route';
import { POST as undo } from '@/app/api/variants/[variant]/undo/route';
import { asCabled } from '@/demo/brackwater';
import { openDatabase } from '@/server/database';

beforeEach(() => {
  (globalThis as { knotPathDb?: unknown }).knotPathDb = openDatabase(':memory:');
});

const request = (body?: unknown, query = '') =>
  new Request(`http://localhost/${query}`, {
    method: body === undefined ? 'GET' : 'POST',
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
  });
const at = <K extends string>(name: K, id: string) => ({
  params: Promise.resolve({ [name]: id } as Record<K, string>),
});
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const read = async (response: Response): Promise<any> => response.json();
const priority = (value: number) => [{ type: 'set', kind: 'switch', id: 'gate', field: 'priority', value }];

async function demo() {
  const head = await read(await createDesign(request({ name: 'Harbour', design: asCabled() })));
  return { design: head.id as string, variant: head.variants[0].id as string };
}

test('a design is made, listed, renamed, duplicated, deleted and brought back', async () => {
  const { design } = await demo();
  expect((await read(await listDesigns())).designs).toMatchObject([{ id: design, switches: 10, trees: 7 }]);
  expect(await read(await renameDesign(request({ name: 'Port' }), at('design', design)))).toMatchObject({
    name: 'Port',
  });
  const copy = await duplicateDesign(request({}), at('design', design));
  expect([copy.status, (await read(copy)).name]).toEqual([201, 'Port copy']);
  await deleteDesign(request({}), at('design', design));
  const gone = await getDesign(request(), at('design', design));
  expect([gone.status, (await read(gone)).error.code]).toEqual([404, 'not-found']);
  expect((await restoreDesign(request({}), at('design', design))).status).toBe(200);
});

test('steps are made, undone and redone, and an old revision is answered with what it missed', async () => {
  const { variant } = await demo();
  const step = (revision: number, value: number) =>
    postStep(request({ revision, label: `to ${value}`, edits: priority(value), client: 'c' }), at('variant', variant));
  expect((await step(0, 4096)).status).toBe(201);
  const late = await step(0, 8192);
  expect(late.status).toBe(409);
  expect((await read(late)).error).toMatchObject({ code: 'conflict', revision: 1, steps: [{ label: 'to 4096' }] });
  expect(await read(await undo(request({ revision: 1, client: 'c' }), at('variant', variant)))).toMatchObject({
    kind: 'undo',
    target: 1,
  });
  expect(await read(await redo(request({ revision: 2, client: 'c' }), at('variant', variant)))).toMatchObject({
    kind: 'redo',
    target: 1,
  });
  const now = await read(await getVariant(request(), at('variant', variant)));
  expect([now.revision, now.history.undo.length]).toEqual([3, 1]);
  const { steps } = await read(await getSteps(request(undefined, '?since=1'), at('variant', variant)));
  expect(steps.map((s: { kind: string }) => s.kind)).toEqual(['undo', 'redo']);
});

test('what does not fit is refused with path and sentence', async () => {
  const { variant } = await demo();
  const bad = await postStep(
    request({ revision: 0, label: '', edits: priority(2478), client: 'c' }),
    at('variant', variant),
  );
  expect(bad.status).toBe(422);
  expect((await read(bad)).error.faults).toEqual([
    { path: 'switches[5].priority', sentence: expect.stringContaining('the nearest is 4096') },
  ]);
  const shape = await postStep(request({ revision: -1, label: '', edits: [], client: 'c' }), at('variant', variant));
  expect(shape.status).toBe(422);
  const design = await createDesign(request({ name: 'x', design: { format: 'other' } }));
  expect((await read(design)).error.sentence).toContain('no Knot Path design');
});

test('trees are listed with what folds together, and one is solved in full', async () => {
  const { variant } = await demo();
  const { trees } = await read(await getTrees(request(), at('variant', variant)));
  expect(trees[0].fold).toBe(trees[1].fold);
  expect(trees[0].fold).not.toBe(trees[6].fold);
  const one = await read(await getTrees(request(undefined, '?tree=vlan-199'), at('variant', variant)));
  expect(one.root).toBe('workshop');
  expect((await getTrees(request(undefined, '?tree=vlan-1'), at('variant', variant))).status).toBe(404);
});

test('a design goes out and comes in again, and a variant starts from a document', async () => {
  const { design, variant } = await demo();
  const file = await (await exportVariant(request(undefined, '?format=json'), at('variant', variant))).text();
  const back = await importDesign(request({ name: 'Back', json: { file: 'h.json', text: file } }));
  expect(back.status).toBe(201);
  const { id } = (await read(back)).variants[0];
  expect((await read(await getVariant(request(), at('variant', id)))).design).toEqual({
    ...asCabled(),
    name: 'Harbour',
  });
  const changed = { ...asCabled(), mode: 'rstp' };
  const head = await read(
    await copyVariant(request({ from: variant, name: 'single', design: changed }), at('design', design)),
  );
  const single = await read(await getVariant(request(), at('variant', head.variants[1].id)));
  expect(single.design.mode).toBe('rstp');
  const refused = await importDesign(request({ name: 'x', json: { file: 'h.json', text: file.slice(0, 900) } }));
  expect((await read(refused)).error.sentence).toContain('not complete JSON');
});
