/** The API, called as the framework calls it, on a database in memory. */
import { strFromU8, unzipSync } from 'fflate';
import { readDesignText } from '@/core/design';
import { asCabled } from '@/demo/brackwater';
import { openDatabase } from '@/server/database';
import { handleApi } from '@/server/http';
import { directStore, setStore } from '@/server/store';

beforeEach(() => setStore(directStore(openDatabase(':memory:'), ':memory:')));

const call = (method: string, path: string, body?: unknown) =>
  handleApi(
    new Request(`http://localhost/api${path}`, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    }),
  );
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const read = async (response: Response): Promise<any> => response.json();
const priority = (value: number) => [{ type: 'set', kind: 'switch', id: 'gate', field: 'priority', value }];

async function demo() {
  const head = await read(await call('POST', '/designs', { name: 'Harbour', design: asCabled() }));
  return { design: head.id as string, variant: head.variants[0].id as string };
}

test('a design is made, listed, renamed, duplicated, deleted and brought back', async () => {
  const { design } = await demo();
  expect((await read(await call('GET', '/designs'))).designs).toMatchObject([{ id: design, switches: 10, trees: 7 }]);
  expect(await read(await call('PATCH', `/designs/${design}`, { name: 'Port' }))).toMatchObject({
    name: 'Port',
  });
  const copy = await call('POST', `/designs/${design}/duplicate`);
  expect([copy.status, (await read(copy)).name]).toEqual([201, 'Port copy']);
  await call('DELETE', `/designs/${design}`);
  const gone = await call('GET', `/designs/${design}`);
  expect([gone.status, (await read(gone)).error.code]).toEqual([404, 'not-found']);
  expect((await call('POST', `/designs/${design}/restore`)).status).toBe(200);
});

test('steps are made, undone and redone, and an old revision is answered with what it missed', async () => {
  const { variant } = await demo();
  const step = (revision: number, value: number) =>
    call('POST', `/variants/${variant}/steps`, { revision, label: `to ${value}`, edits: priority(value), client: 'c' });
  expect((await step(0, 4096)).status).toBe(201);
  const late = await step(0, 8192);
  expect(late.status).toBe(409);
  expect((await read(late)).error).toMatchObject({ code: 'conflict', revision: 1, steps: [{ label: 'to 4096' }] });
  expect(await read(await call('POST', `/variants/${variant}/undo`, { revision: 1, client: 'c' }))).toMatchObject({
    kind: 'undo',
    target: 1,
  });
  expect(await read(await call('POST', `/variants/${variant}/redo`, { revision: 2, client: 'c' }))).toMatchObject({
    kind: 'redo',
    target: 1,
  });
  const now = await read(await call('GET', `/variants/${variant}`));
  expect([now.revision, now.history.undo.length]).toEqual([3, 1]);
  const { steps } = await read(await call('GET', `/variants/${variant}/steps?since=1`));
  expect(steps.map((s: { kind: string }) => s.kind)).toEqual(['undo', 'redo']);
});

test('what does not fit is refused with path and sentence', async () => {
  const { variant } = await demo();
  const bad = await call('POST', `/variants/${variant}/steps`, {
    revision: 0,
    label: '',
    edits: priority(2478),
    client: 'c',
  });
  expect(bad.status).toBe(422);
  expect((await read(bad)).error.faults).toEqual([
    { path: 'switches[5].priority', sentence: expect.stringContaining('the nearest is 4096') },
  ]);
  const shape = await call('POST', `/variants/${variant}/steps`, { revision: -1, label: '', edits: [], client: 'c' });
  expect(shape.status).toBe(422);
  const design = await call('POST', '/designs', { name: 'x', design: { format: 'other' } });
  expect((await read(design)).error.sentence).toContain('not a Knot Path design');
});

test('trees are listed with what folds together, and one is solved in full', async () => {
  const { variant } = await demo();
  const { trees } = await read(await call('GET', `/variants/${variant}/trees`));
  expect(trees[0].fold).toBe(trees[1].fold);
  expect(trees[0].fold).not.toBe(trees[6].fold);
  const one = await read(await call('GET', `/variants/${variant}/trees?tree=vlan-199`));
  expect(one.root).toBe('workshop');
  expect((await call('GET', `/variants/${variant}/trees?tree=vlan-1`)).status).toBe(404);
});

test('a design goes out and comes in again, and a variant starts from a document', async () => {
  const { design, variant } = await demo();
  const file = await (await call('GET', `/variants/${variant}/export?format=json`)).text();
  const back = await call('POST', '/import', { name: 'Back', json: { file: 'h.json', text: file } });
  expect(back.status).toBe(201);
  const { id } = (await read(back)).variants[0];
  expect((await read(await call('GET', `/variants/${id}`))).design).toEqual({
    ...asCabled(),
    name: 'Harbour',
  });
  const changed = { ...asCabled(), mode: 'rstp' };
  const head = await read(
    await call('POST', `/designs/${design}/variants`, { from: variant, name: 'single', design: changed }),
  );
  const single = await read(await call('GET', `/variants/${head.variants[1].id}`));
  expect(single.design.mode).toBe('rstp');
  const refused = await call('POST', '/import', { name: 'x', json: { file: 'h.json', text: file.slice(0, 900) } });
  expect((await read(refused)).error.sentence).toContain('not complete JSON');
});

test('a request that is sent twice with one key is carried out once, and undo names what it undoes', async () => {
  const { variant } = await demo();
  const step = { revision: 0, label: 'one', edits: priority(4096), client: 'c', key: 'k1', author: 'Mira' };
  const first = await read(await call('POST', `/variants/${variant}/steps`, step));
  expect(await read(await call('POST', `/variants/${variant}/steps`, step))).toEqual(first);
  const undo = { revision: 1, client: 'c', key: 'k2', target: 'k1' };
  const undone = await read(await call('POST', `/variants/${variant}/undo`, undo));
  expect(await read(await call('POST', `/variants/${variant}/undo`, undo))).toEqual(undone);
  expect((await read(await call('GET', `/variants/${variant}`))).revision).toBe(2);
  const redo = await call('POST', `/variants/${variant}/redo`, { revision: 2, client: 'c', target: 'other' });
  expect([redo.status, (await read(redo)).error.code]).toEqual([409, 'not-last']);
});

test('a change made on a database that was replaced since is refused as such', async () => {
  const { variant } = await demo();
  const { epoch } = await read(await call('GET', `/variants/${variant}`));
  const step = (revision: number, of: string) =>
    call('POST', `/variants/${variant}/steps`, {
      revision,
      label: 'x',
      edits: priority(4096),
      client: 'c',
      epoch: of,
    });
  expect((await step(0, epoch)).status).toBe(201);
  const stale = await step(1, 'another');
  expect([stale.status, (await read(stale)).error.code]).toEqual([409, 'restored']);
});

test('history: who and what, a named state, an earlier document, what differs, and the way back', async () => {
  const { design, variant } = await demo();
  for (const [i, value] of [4096, 8192, 12288].entries())
    await call('POST', `/variants/${variant}/steps`, {
      revision: i,
      label: `to ${value}`,
      edits: priority(value),
      client: 'c',
      author: 'Mira',
    });
  expect((await call('POST', `/variants/${variant}/states`, { revision: 1, name: 'reviewed' })).status).toBe(200);
  const past = await read(await call('GET', `/variants/${variant}/history`));
  expect(past.steps.map((s: { label: string }) => s.label)).toEqual(['to 12288', 'to 8192', 'to 4096']);
  expect(past.steps[2]).toMatchObject({ author: 'Mira', name: 'reviewed', kind: 'edit' });
  const taken = await call('POST', `/variants/${variant}/states`, { revision: 2, name: 'reviewed' });
  expect((await read(taken)).error.sentence).toBe("State 1 is called 'reviewed' already: choose another name.");
  const early = await read(await call('GET', `/variants/${variant}/states/0`));
  expect(early.design).toEqual(asCabled());
  expect((await read(await call('GET', `/variants/${variant}/difference?from=0&to=3`))).lines).toEqual([
    'gate: priority 12288',
  ]);
  const back = await read(await call('POST', `/variants/${variant}/go-back`, { revision: 3, to: 1, client: 'c' }));
  expect(back).toMatchObject({ kind: 'edit', label: 'Back to state 1', edits: priority(4096) });
  const head = await read(
    await call('POST', `/designs/${design}/variants`, { from: variant, name: 'early', revision: 0 }),
  );
  expect((await read(await call('GET', `/variants/${head.variants[1].id}`))).design).toEqual(asCabled());
  expect((await call('GET', `/variants/${variant}/states/99`)).status).toBe(404);
});

test('what is asked for wrongly is answered as JSON with a sentence, and repeats no more than it must', async () => {
  const { variant } = await demo();
  const errors = await Promise.all(
    [
      ['GET', '/nothing'],
      ['PUT', '/designs', {}],
      ['GET', `/variants/${'x'.repeat(5000)}`],
      ['GET', `/variants/${variant}/steps?since=abc`],
      ['GET', `/variants/${variant}/states/1.5`],
      ['POST', `/variants/${variant}/states`, { revision: 'y'.repeat(5000), name: 'z' }],
      ['POST', '/designs', { name: 'z'.repeat(5000) }],
      ['GET', `/variants/${variant}/export?format=${'f'.repeat(5000)}`],
      ['GET', `/variants/${variant}/trees?tree=${'t'.repeat(5000)}`],
    ].map(([method, path, body]) => call(String(method), String(path), body)),
  );
  for (const response of errors) {
    expect(response.status).toBeGreaterThanOrEqual(400);
    const { error } = await read(response);
    expect(error.sentence).toMatch(/^[A-Z].*\.$/s);
    expect(error.sentence.length).toBeLessThan(400);
    expect(error.request).toBeDefined();
  }
  expect(errors[1]!.headers.get('Allow')).toBe('GET, POST');
});

test('all designs go out as one archive, and the database as one file', async () => {
  await demo();
  const archive = await call('GET', '/archive');
  expect(archive.headers.get('Content-Type')).toBe('application/zip');
  const files = unzipSync(new Uint8Array(await archive.arrayBuffer()));
  expect(Object.keys(files)).toEqual(['harbour/as-drawn.json']);
  expect(readDesignText(strFromU8(files['harbour/as-drawn.json']!)).ok).toBe(true);
  const backup = Buffer.from(await (await call('GET', '/backup')).arrayBuffer());
  expect(backup.subarray(0, 15).toString()).toBe('SQLite format 3');
});
