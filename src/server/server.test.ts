import { asCabled } from '../demo/brackwater';
import { setField } from '../core/design';
import type { Edit } from '../core/design';
import { openDatabase } from './database';
import type { Db } from './db';
import {
  copyVariant,
  createDesign,
  deleteDesign,
  deleteVariant,
  duplicateDesign,
  findDesign,
  listDesigns,
  renameDesign,
  renameVariant,
  restoreDesign,
  restoreVariant,
} from './designs';
import { allowedHosts, gateRefusal } from './gate';
import { forgetDocuments } from './documents';
import { readBody } from './http';
import { readImport } from './import';
import { BODY_LIMIT } from './limits';
import { bodyOf } from './operations';
import type { Problem } from './problem';
import { failureOf } from './respond';
import { seed } from './seed';
import { publish, subscribe } from './bus';
import { renameRequest } from '../api/contract';
import { applyStep as apply, loadVariant, moveStep, stepsSince } from './variants';

let n = 0;
const newId = () => `id${++n}`;
const priority = (value: number, id = 'gate') => [setField('switch', id, 'priority', value)];

function fresh(): { db: Db; design: string; variant: string } {
  const db = openDatabase(':memory:');
  const head = createDesign(db, 'Harbour', [{ name: 'as cabled', design: asCabled() }], newId, 1);
  return { db, design: head.id, variant: head.variants[0]!.id };
}
const by = (revision: number, client = 'c') => ({ revision, client });
const applyStep = (db: Db, id: string, revision: number, label: string, edits: Edit[], client: string, now: number) =>
  apply(db, id, by(revision, client), label, edits, now);
const undoStep = (db: Db, id: string, revision: number) => moveStep(db, id, 'undo', by(revision), 1);
const redoStep = (db: Db, id: string, revision: number) => moveStep(db, id, 'redo', by(revision), 1);
const gate = (db: Db, variant: string) =>
  loadVariant(db, variant).design.switches.find((s) => s.id === 'gate')!.priority;
const problem = (run: () => unknown): Problem => {
  try {
    run();
  } catch (error) {
    return error as Problem;
  }
  throw new Error('nothing was refused');
};

describe('steps of a variant', () => {
  test('edits, undo and redo lead to the same document in memory and read from the file', () => {
    const { db, variant } = fresh();
    for (let i = 0; i < 150; i++) applyStep(db, variant, i, `e${i}`, priority((i % 16) * 4096), 'c', i);
    undoStep(db, variant, 150);
    undoStep(db, variant, 151);
    redoStep(db, variant, 152);
    const kept = loadVariant(db, variant);
    expect([kept.revision, kept.history.redo.length]).toEqual([153, 1]);
    forgetDocuments(db);
    expect(loadVariant(db, variant)).toEqual(kept);
    expect(gate(db, variant)).toBe((148 % 16) * 4096);
  });

  test('everything can be undone, back to the first document, and a new edit ends what could be redone', () => {
    const { db, variant } = fresh();
    for (let i = 0; i < 20; i++) applyStep(db, variant, i, 'e', priority((i % 16) * 4096), 'c', 1);
    for (let i = 20; i < 40; i++) undoStep(db, variant, i);
    expect(loadVariant(db, variant).design).toEqual(asCabled());
    expect(problem(() => undoStep(db, variant, 40)).code).toBe('nothing-to-undo');
    applyStep(db, variant, 40, 'e', priority(0), 'c', 1);
    expect(problem(() => redoStep(db, variant, 41)).code).toBe('nothing-to-redo');
  });

  test('an edit against an old revision is answered with what came in between, and changes nothing', () => {
    const { db, variant } = fresh();
    applyStep(db, variant, 0, 'first', priority(4096), 'a', 1);
    const conflict = problem(() => applyStep(db, variant, 0, 'second', priority(8192), 'b', 1));
    expect([conflict.status, conflict.code, conflict.more.revision]).toEqual([409, 'conflict', 1]);
    expect(conflict.more.steps).toMatchObject([{ revision: 1, label: 'first', client: 'a' }]);
    expect(gate(db, variant)).toBe(4096);
    expect(stepsSince(db, variant, 0)).toHaveLength(1);
  });

  test('a refused edit leaves no trace', () => {
    const { db, variant } = fresh();
    const refused = problem(() => applyStep(db, variant, 0, 'x', priority(2478), 'c', 1));
    expect([refused.status, refused.faults[0]!.path]).toEqual([422, 'switches[5].priority']);
    expect(loadVariant(db, variant).revision).toBe(0);
  });

  test('windows that listen hear of each step until they leave', () => {
    const { db, variant } = fresh();
    const heard: number[] = [];
    const leave = subscribe((notice) => notice.kind === 'step' && heard.push(notice.revision));
    const tell = (revision: number) => publish({ kind: 'step', variant, revision, client: 'c' });
    tell(applyStep(db, variant, 0, 'e', priority(0), 'c', 1).revision);
    leave();
    tell(applyStep(db, variant, 1, 'e', priority(4096), 'c', 1).revision);
    expect(heard).toEqual([1]);
  });
});

describe('designs', () => {
  test('the demo is put into a new database once', () => {
    const db = openDatabase(':memory:');
    expect(seed(db, newId, 1)).toBe(true);
    expect(seed(db, newId, 2)).toBe(false);
    const [row] = listDesigns(db);
    expect(row).toMatchObject({ name: 'Brackwater Ferries', switches: 10, trees: 7 });
    expect(row!.variants.map((v) => v.name)).toEqual(['as cabled', 'as meant', 'core as a pair']);
    deleteDesign(db, row!.id, 3);
    expect(seed(db, newId, 4)).toBe(false);
  });

  test('a design is renamed, duplicated with its changes, deleted and brought back', () => {
    const { db, design, variant } = fresh();
    applyStep(db, variant, 0, 'e', priority(0), 'c', 5);
    expect(renameDesign(db, design, 'Port', 6).name).toBe('Port');
    const copy = duplicateDesign(db, design, newId, 7);
    expect(copy.name).toBe('Port copy');
    expect(gate(db, copy.variants[0]!.id)).toBe(0);
    expect(duplicateDesign(db, design, newId, 8).name).toBe('Port copy 2');
    deleteDesign(db, design, 9);
    expect(problem(() => findDesign(db, design)).status).toBe(404);
    expect(problem(() => loadVariant(db, variant)).status).toBe(404);
    expect(restoreDesign(db, design).name).toBe('Port');
    expect(gate(db, variant)).toBe(0);
  });

  test('a variant is copied as it stands, goes its own way, and the last one stays', () => {
    const { db, design, variant } = fresh();
    applyStep(db, variant, 0, 'e', priority(0), 'c', 1);
    const copy = copyVariant(db, design, variant, 'what if', newId, 2).variants[1]!;
    expect(gate(db, copy.id)).toBe(0);
    applyStep(db, copy.id, 0, 'e', priority(4096), 'c', 3);
    expect([gate(db, variant), gate(db, copy.id)]).toEqual([0, 4096]);
    expect(problem(() => renameVariant(db, design, copy.id, 'as cabled')).message).toMatch(
      /has a variant 'as cabled' already/,
    );
    deleteVariant(db, design, copy.id, 4);
    expect(problem(() => deleteVariant(db, design, variant, 5)).message).toMatch(/keeps at least one variant/);
    expect(restoreVariant(db, design, copy.id).variants).toHaveLength(2);
  });
});

describe('requests', () => {
  const request = (text: string, type = 'application/json') =>
    new Request('http://localhost/', { method: 'POST', body: text, headers: { 'Content-Type': type } });
  const refused = async (run: () => Promise<unknown>) => {
    const answer = await run().then(
      () => null,
      (error: unknown) => failureOf(error, 'x.sqlite'),
    );
    return { status: answer!.status, sentence: JSON.parse(String(answer!.content)).error.sentence as string };
  };
  const read = (r: Request) => async () => bodyOf(await readBody(r), renameRequest);
  test('a body is checked, and refused with a sentence', async () => {
    expect((await refused(read(request('{"name":')))).sentence).toMatch(/not complete JSON/);
    expect((await refused(read(request('{}')))).sentence).toMatch(/A name is missing/);
    expect((await refused(read(request('x', 'text/plain')))).status).toBe(415);
    const large = await refused(read(request(JSON.stringify({ name: 'x'.repeat(BODY_LIMIT) }))));
    expect([large.status, large.sentence]).toEqual([413, expect.stringContaining('larger than 8 MB')]);
    const deep = await refused(read(request(`{"name":${'['.repeat(2000)}${']'.repeat(2000)}}`)));
    expect([deep.status, deep.sentence]).toEqual([422, expect.stringContaining('nested too deeply')]);
  });
  test('a bug is answered without its details, which go to the log', () => {
    const answer = failureOf(new Error('secret'), 'x.sqlite');
    expect([answer.status, answer.cause]).toEqual([500, expect.stringContaining('secret')]);
    expect(answer.content).not.toContain('secret');
  });
  test('an import needs a design or two tables', () => {
    expect(problem(() => readImport({ name: 'x', switches: { file: 's', text: '' } })).message).toMatch(
      /together with a table of links/,
    );
    const table = problem(() =>
      readImport({ name: 'x', switches: { file: 's.csv', text: 'a\n1\n' }, links: { file: 'l.csv', text: 'b\n' } }),
    );
    expect(table.faults.map((f) => f.path)).toEqual(['s.csv, row 1', 'l.csv, row 1']);
    expect(readImport({ name: 'x', json: { file: 'd.json', text: JSON.stringify(asCabled()) } }).switches).toHaveLength(
      10,
    );
  });
  test('own names and own pages pass, others do not', () => {
    const hosts = allowedHosts({ NODE_ENV: 'test', KNOT_PATH_HOSTS: 'planner.example' });
    expect(gateRefusal('localhost:4180', null, hosts)).toBeNull();
    expect(gateRefusal('[::1]:4180', 'http://[::1]:4180', hosts)).toBeNull();
    expect(gateRefusal('planner.example', null, hosts)).toBeNull();
    expect(gateRefusal('evil.example:4180', null, hosts)).toMatch(/does not answer to the name/);
    expect(gateRefusal(null, null, hosts)).not.toBeNull();
    for (const origin of ['http://evil.example', 'null', 'http://localhost:9999'])
      expect(gateRefusal('localhost:4180', origin, hosts)).toMatch(/are refused/);
  });
});
