import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import { setField } from '../core/design';
import { asCabled } from '../demo/brackwater';
import { backupIfDue, backupTo, checkBackup, restoreBackup, scheduleOf } from './backup';
import { databaseFault, factOf, openDatabase } from './database';
import { createDesign, deleteDesign, listDeleted, listDesigns, purgeDesign, purgeOld, recoverDesign } from './designs';
import { forgetDocuments, snapshotsToDrop } from './documents';
import { directStore } from './store';
import type { Db } from './db';
import { applyStep, loadVariant, stateAt } from './variants';
import { watchFile } from './watch';

let n = 0;
const newId = () => `d${++n}`;
const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-test-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const fileAt = (name: string) => path.join(folder, `${++n}-${name}`);
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

function fresh(file = ':memory:') {
  const db = openDatabase(file);
  const head = createDesign(db, 'Harbour', [{ name: 'as cabled', design: asCabled() }], newId, 1);
  return { db, design: head.id, variant: head.variants[0]!.id };
}
const change = (db: Db, id: string, revision: number, value: number) =>
  applyStep(db, id, { revision, client: 'c' }, `to ${value}`, [setField('switch', 'gate', 'priority', value)], 1);
const sentence = (run: () => unknown): string => {
  try {
    run();
  } catch (error) {
    return (error as Error).message;
  }
  throw new Error('nothing was refused');
};

describe('what cannot be read', () => {
  function broken() {
    const made = fresh();
    for (let i = 0; i < 70; i++) change(made.db, made.variant, i, (i % 15) * 4096);
    made.db.$client.prepare('update snapshots set document = \'{"format":\' where revision = 64').run();
    forgetDocuments(made.db);
    return made;
  }
  test('is listed with the reason, and takes no other design down', () => {
    const { db, design, variant } = broken();
    db.$client.prepare('update variants set summary = null').run();
    createDesign(db, 'Whole', [{ name: 'v', design: asCabled() }], newId, 2);
    const rows = listDesigns(db);
    expect(rows.map((r) => [r.name, r.switches])).toEqual([
      ['Whole', 10],
      ['Harbour', 0],
    ]);
    expect(rows[1]!.unreadable).toMatch(/not complete JSON/);
    expect(sentence(() => loadVariant(db, variant))).toMatch(
      /^Variant 'as cabled' cannot be read: .*not complete JSON/,
    );
    const made = recoverDesign(db, design, undefined, newId, 3);
    expect([made.name, made.left]).toEqual(['Harbour, recovered', []]);
    // The snapshot before the broken one and the steps after it lead to the newest state all the same.
    expect(loadVariant(db, made.variants[0]!.id).design.switches.find((s) => s.id === 'gate')!.priority).toBe(
      (69 % 15) * 4096,
    );
  });
  test('goes out as it is stored', async () => {
    const { db, variant } = broken();
    const ask = { name: 'export', params: { variant }, query: { format: 'raw' }, body: '' } as const;
    const answer = await directStore(db, ':memory:').ask(ask);
    expect([answer.status, answer.headers['Content-Disposition']]).toEqual([
      200,
      'attachment; filename="harbour-as-cabled-stored.json"',
    ]);
    expect(JSON.parse(String(answer.content)).steps).toHaveLength(70);
  });
});

test('the document at any revision is the one that was', () => {
  const { db, variant } = fresh();
  for (let i = 0; i < 200; i++) change(db, variant, i, (i % 15) * 4096);
  for (const revision of [1, 63, 64, 65, 130, 200])
    expect(stateAt(db, variant, revision).switches.find((s) => s.id === 'gate')!.priority).toBe(
      ((revision - 1) % 15) * 4096,
    );
  expect(stateAt(db, variant, 0)).toEqual(asCabled());
});

test('snapshots are thinned: the newest stay, then one an hour, then one a day, and the first for ever', () => {
  const now = 100 * DAY;
  const list = Array.from({ length: 2000 }, (_, i) => ({ revision: i * 64, madeAt: now - (1999 - i) * (HOUR / 4) }));
  const drop = new Set(snapshotsToDrop(list, now));
  const kept = list.filter((s) => !drop.has(s.revision));
  expect(kept.slice(-50)).toEqual(list.slice(-50));
  expect(kept[0]!.revision).toBe(0);
  const ages = kept.map((s) => now - s.madeAt);
  expect(ages.filter((a) => a > 7 * DAY).length).toBeLessThan(16);
  expect(ages.filter((a) => a <= 7 * DAY).length).toBeLessThan(50 + 7 * 24);
  expect(ages.filter((a) => a <= 7 * DAY).length).toBeGreaterThan(150);
});

test('what was deleted is listed, goes for good when asked, and by itself after 30 days', () => {
  const { db, design } = fresh();
  expect(sentence(() => purgeDesign(db, design))).toMatch(/is in use: delete it first/);
  deleteDesign(db, design, 5);
  expect(listDeleted(db)).toMatchObject([{ id: design, deletedAt: 5 }]);
  expect(purgeOld(db, 5 + 29 * DAY)).toBe(0);
  expect(purgeOld(db, 6 + 30 * DAY)).toBe(1);
  for (const table of ['designs', 'variants', 'snapshots', 'steps'])
    expect(db.$client.prepare(`select count(*) from ${table}`).pluck().get()).toBe(0);
});

describe('opening a file', () => {
  const opening = (file: string) => sentence(() => openDatabase(file));
  test('says what is wrong and what to do', () => {
    mkdirSync(path.join(folder, 'a-folder'));
    expect(opening(path.join(folder, 'a-folder'))).toMatch(/is a folder: set KNOT_PATH_DB to a file/);
    const text = fileAt('text.sqlite');
    writeFileSync(text, 'no database at all, but long enough to be looked at '.repeat(200));
    expect(opening(text)).toMatch(/damaged or is no Knot Path database: restore a backup with 'npm run/);
    const other = fileAt('other.sqlite');
    new Database(other).exec('create table things (a)').close();
    expect(opening(other)).toMatch(/a database of another program/);
    expect(opening(path.join(text, 'below.sqlite'))).toMatch(/cannot be opened: check that its folder exists/);
  });
  test('a file of a later version is left as it is', () => {
    const file = fileAt('later.sqlite');
    const { db } = fresh(file);
    db.$client.exec("insert into __drizzle_migrations (hash, created_at) values ('x', 99999999999999)");
    db.$client.close();
    expect(opening(file)).toMatch(/written by a later version/);
    expect(new Database(file, { readonly: true }).prepare('select count(*) from designs').pluck().get()).toBe(1);
  });
  test('a file of the version before opens with its history', () => {
    const file = fileAt('before.sqlite');
    copyFileSync('tests/fixtures/databases/version-1.sqlite', file);
    const db = openDatabase(file);
    const [row] = listDesigns(db);
    expect(row).toMatchObject({ name: 'Harbour lights', switches: 3 });
    const loaded = loadVariant(db, row!.variants[0]!.id);
    expect([loaded.revision, loaded.history.undo.at(-1)!.label, loaded.history.redo.at(-1)!.label]).toEqual([
      73,
      'priority 68',
      'priority 69',
    ]);
    expect(loaded.history.undoBelow).toBe(19);
  });
  test('errors of SQLite and of the disk have a sentence each', () => {
    const of = (code: string) => databaseFault(Object.assign(new Error(), { code }), 'x.sqlite')?.code;
    expect(
      [
        'SQLITE_FULL',
        'ENOSPC',
        'SQLITE_READONLY_DIRECTORY',
        'EACCES',
        'SQLITE_BUSY_SNAPSHOT',
        'SQLITE_CORRUPT_VTAB',
      ].map(of),
    ).toEqual(['full', 'full', 'read-only', 'read-only', 'locked', 'damaged']);
    expect(of('SQLITE_CONSTRAINT')).toBeUndefined();
    const wrapped = new Error('Failed to run the query', {
      cause: Object.assign(new Error(), { code: 'SQLITE_FULL' }),
    });
    expect(databaseFault(wrapped, 'x.sqlite')?.code).toBe('full');
  });
});

describe('a locked database', () => {
  test('is answered with 503 and a time to wait, while reading goes on', async () => {
    const file = fileAt('locked.sqlite');
    const { db, variant } = fresh(file);
    const store = directStore(db, file);
    const other = new Database(file);
    other.exec('begin immediate');
    const step = { revision: 0, label: 'x', client: 'c', edits: [setField('switch', 'gate', 'priority', 0)] };
    const write = store.ask({ name: 'step', params: { variant }, query: {}, body: JSON.stringify(step) });
    const read = await store.ask({ name: 'variant', params: { variant }, query: {}, body: '' });
    expect(read.status).toBe(200);
    const refused = await write;
    expect([refused.status, refused.headers['Retry-After']]).toEqual([503, '2']);
    expect(String(refused.content)).toContain('is locked by another program');
    const again = store.ask({ name: 'step', params: { variant }, query: {}, body: JSON.stringify(step) });
    other.exec('rollback');
    expect((await again).status).toBe(201);
    other.close();
  });
});

describe('backup', () => {
  test('a copy holds everything, and is restored while the database is open', async () => {
    const file = fileAt('live.sqlite');
    const copy = fileAt('copy.sqlite');
    const { db, variant } = fresh(file);
    change(db, variant, 0, 4096);
    await backupTo(db.$client, copy);
    change(db, variant, 1, 8192);
    const notices: string[] = [];
    const watch = watchFile(db, (notice) => notices.push(notice.kind));
    const epoch = factOf(db, 'epoch');
    expect(checkBackup(copy)).toEqual({ designs: 1, variants: 1 });
    const { aside } = await restoreBackup(copy, file, Date.UTC(2026, 0, 2));
    expect(path.basename(aside!)).toContain('.before-restore-20260102-000000.sqlite');
    watch.look();
    expect(notices).toEqual(['restored']);
    expect(factOf(db, 'epoch')).not.toBe(epoch);
    forgetDocuments(db);
    expect(loadVariant(db, variant).revision).toBe(1);
    expect(checkBackup(aside!)).toEqual({ designs: 1, variants: 1 });
    const kept = openDatabase(aside!);
    expect(loadVariant(kept, variant).revision).toBe(2);
    expect(db.$client.pragma('journal_mode', { simple: true })).toBe('wal');
    change(db, variant, 1, 12288);
  });
  test('what is no backup is refused with the reason, and changes nothing', async () => {
    const file = fileAt('target.sqlite');
    fresh(file).db.$client.close();
    const text = fileAt('text');
    writeFileSync(text, 'x'.repeat(5000));
    const empty = fileAt('empty.sqlite');
    new Database(empty).close();
    for (const [bad, why] of [
      [text, /not a Knot Path database/],
      [folder, /it is a folder/],
      [fileAt('missing'), /no such file/],
      ['tests/fixtures/mstp.json', /not a Knot Path database/],
    ] as const)
      await expect(restoreBackup(bad, file, 1)).rejects.toThrow(why);
    expect(
      readdirSync(folder).filter((name) => name.startsWith(path.basename(file)) && name.includes('before')),
    ).toEqual([]);
  });
  test('a damaged database is moved aside and replaced', async () => {
    const copy = fileAt('good.sqlite');
    const { db } = fresh(fileAt('source.sqlite'));
    await backupTo(db.$client, copy);
    const file = fileAt('damaged.sqlite');
    writeFileSync(file, 'not a database '.repeat(500));
    const { aside } = await restoreBackup(copy, file, 1);
    expect(existsSync(aside!)).toBe(true);
    expect(listDesigns(openDatabase(file))).toHaveLength(1);
  });
  test('copies are taken by the clock, and as many are kept as asked', async () => {
    const { db } = fresh(fileAt('scheduled.sqlite'));
    const to = path.join(folder, 'copies');
    const schedule = scheduleOf({
      NODE_ENV: 'test',
      KNOT_PATH_BACKUP: to,
      KNOT_PATH_BACKUP_HOURS: '2',
      KNOT_PATH_BACKUP_KEEP: '3',
    })!;
    expect(schedule).toMatchObject({ hours: 2, keep: 3 });
    expect(scheduleOf({ NODE_ENV: 'test' })).toBeNull();
    let now = Date.now();
    for (let i = 0; i < 5; i++) {
      const made = await backupIfDue(db, schedule, now);
      expect(made).not.toBeNull();
      utimesSync(made!, now / 1000, now / 1000);
      expect(await backupIfDue(db, schedule, now + HOUR)).toBeNull();
      now += 3 * HOUR;
    }
    expect(readdirSync(to)).toHaveLength(3);
  });
});

test('steps that another process wrote are noticed through the file', () => {
  const file = fileAt('shared.sqlite');
  const { db, variant } = fresh(file);
  const notices: unknown[] = [];
  const watch = watchFile(db, (notice) => notices.push(notice));
  change(db, variant, 0, 4096);
  watch.own({ kind: 'step', variant, revision: 1, client: 'c' });
  watch.look();
  expect(notices).toEqual([]);
  change(openDatabase(file), variant, 1, 8192);
  watch.look();
  expect(notices).toEqual([{ kind: 'step', variant, revision: 2, client: '' }, { kind: 'designs' }]);
});
