/** Designs and their variants as wholes: list, create, rename, duplicate, delete and bring back. */
import { and, asc, desc, eq, isNotNull, isNull, lt, max } from 'drizzle-orm';
import type { DeletedDesign, DesignHead, DesignRow, Summary, VariantHead } from '../api/contract';
import type { Design } from '../core/design';
import { currentDesign, lastReadable, readState, variantRow, writeSnapshot } from './documents';
import type { ReadState } from './documents';
import { Problem, notFound } from './problem';
import { designs, snapshots, states, steps, variants } from './schema';
import type { Db } from './db';
import { NO_SUMMARY, summarise } from './summary';
import { stateAt } from './variants';

export type NewId = () => string;

/** How long a deleted design can be brought back. */
export const KEPT_DELETED_MS = 30 * 24 * 3_600_000;

const heads = (db: Db, designId: string): VariantHead[] =>
  db
    .select({ id: variants.id, name: variants.name, revision: variants.revision })
    .from(variants)
    .where(and(eq(variants.designId, designId), isNull(variants.deletedAt)))
    .orderBy(asc(variants.position))
    .all();

/** Another number when summaries are made otherwise: those that are stored are then made again. */
const SUMMARY_VERSION = 2;

type Listed = Summary & { unreadable?: string };

/** Summary of a variant as it is stored; made and stored when the variant has changed since. Never throws: what cannot be read is listed with the reason. */
function summaryOf(db: Db, id: string): Listed {
  const row = db
    .select({ revision: variants.revision, summary: variants.summary })
    .from(variants)
    .where(eq(variants.id, id))
    .get();
  if (!row) return { ...NO_SUMMARY, unreadable: 'it has no variant' };
  try {
    const known = JSON.parse(row.summary ?? 'null') as { v: number; revision: number; shown: Listed } | null;
    if (known?.v === SUMMARY_VERSION && known.revision === row.revision && !known.shown.unreadable) return known.shown;
  } catch {
    // Made again below.
  }
  const read = attemptRead(db, id, row.revision);
  const shown = read.ok ? summarise(read.design) : { ...NO_SUMMARY, unreadable: read.reason };
  storeSummary(db, id, row.revision, shown);
  return shown;
}

function attemptRead(db: Db, id: string, revision: number): ReadState {
  try {
    return readState(db, id, revision);
  } catch (error) {
    return { ok: false, reason: error instanceof Error ? error.message : String(error) };
  }
}

function storeSummary(db: Db, id: string, revision: number, shown: Listed): void {
  try {
    const summary = JSON.stringify({ v: SUMMARY_VERSION, revision, shown });
    db.update(variants).set({ summary }).where(eq(variants.id, id)).run();
  } catch {
    // Then it is made again the next time: a list can be read while nothing can be written.
  }
}

/** Every design that is not deleted, last changed first, with the summary of its first variant. */
export function listDesigns(db: Db): DesignRow[] {
  const rows = db.select().from(designs).where(isNull(designs.deletedAt)).orderBy(desc(designs.changedAt)).all();
  return rows.map(({ id, name, changedAt }) => {
    const list = heads(db, id);
    return { id, name, changedAt, variants: list, ...summaryOf(db, list[0]?.id ?? '') };
  });
}

/** Makes the summaries that are missing, one at a time, with others let in between. */
export async function makeSummaries(db: Db): Promise<void> {
  const all = db.select({ id: variants.id }).from(variants).where(isNull(variants.summary)).all();
  for (const { id } of all) {
    summaryOf(db, id);
    await new Promise((resolve) => setImmediate(resolve));
  }
}

/** Designs that can still be brought back, last deleted first. */
export function listDeleted(db: Db): DeletedDesign[] {
  return db
    .select({ id: designs.id, name: designs.name, deletedAt: designs.deletedAt })
    .from(designs)
    .where(isNotNull(designs.deletedAt))
    .orderBy(desc(designs.deletedAt))
    .all()
    .map((d) => ({ ...d, deletedAt: d.deletedAt ?? 0 }));
}

export function findDesign(db: Db, id: string): DesignHead {
  const found = db
    .select()
    .from(designs)
    .where(and(eq(designs.id, id), isNull(designs.deletedAt)))
    .get();
  if (!found) throw notFound('design', id);
  return { id, name: found.name, changedAt: found.changedAt, variants: heads(db, id) };
}

function addVariant(db: Db, designId: string, name: string, design: Design, id: string, now: number): void {
  const last = db
    .select({ at: max(variants.position) })
    .from(variants)
    .where(eq(variants.designId, designId))
    .get();
  db.insert(variants)
    .values({ id, designId, name, position: (last?.at ?? -1) + 1, revision: 0, changedAt: now })
    .run();
  if (!writeSnapshot(db, id, 0, design, now))
    throw new Error(`addVariant: the document of '${name}' cannot be read back`);
  storeSummary(db, id, 0, summarise(design));
}

/** A new design with one variant for each document given. */
export function createDesign(
  db: Db,
  name: string,
  documents: readonly { name: string; design: Design }[],
  newId: NewId,
  now: number,
): DesignHead {
  return db.transaction((tx) => {
    const id = newId();
    tx.insert(designs).values({ id, name, createdAt: now, changedAt: now }).run();
    for (const document of documents) addVariant(tx as unknown as Db, id, document.name, document.design, newId(), now);
    return findDesign(tx as unknown as Db, id);
  });
}

/** A name that no design has yet: `X copy`, `X copy 2`, … */
function copyName(taken: readonly string[], name: string): string {
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? `${name} copy` : `${name} copy ${n}`;
    if (!taken.includes(candidate)) return candidate;
  }
}

/** A copy of a design with the present documents of all its variants. */
export function duplicateDesign(db: Db, id: string, newId: NewId, now: number): DesignHead {
  const { name, variants: list } = findDesign(db, id);
  const taken = db.select({ name: designs.name }).from(designs).where(isNull(designs.deletedAt)).all();
  const documents = list.map((head) => ({ name: head.name, design: currentDesign(db, head) }));
  return createDesign(
    db,
    copyName(
      taken.map((t) => t.name),
      name,
    ),
    documents,
    newId,
    now,
  );
}

export function renameDesign(db: Db, id: string, name: string, now: number): DesignHead {
  findDesign(db, id);
  db.update(designs).set({ name, changedAt: now }).where(eq(designs.id, id)).run();
  return findDesign(db, id);
}

/** Takes a design off the list; `restoreDesign` brings it back. */
export function deleteDesign(db: Db, id: string, now: number): void {
  findDesign(db, id);
  db.update(designs).set({ deletedAt: now }).where(eq(designs.id, id)).run();
}

/** Takes a deleted design out of the file: nothing brings it back. */
export function purgeDesign(db: Db, id: string): void {
  const found = db.select().from(designs).where(eq(designs.id, id)).get();
  if (!found) throw notFound('design', id);
  if (found.deletedAt === null)
    throw new Problem(
      409,
      'not-deleted',
      `Design '${found.name}' is in use: delete it first, then delete it for good.`,
    );
  db.transaction((tx) => {
    const list = tx.select({ id: variants.id }).from(variants).where(eq(variants.designId, id)).all();
    for (const variant of list) purgeVariant(tx as unknown as Db, variant.id);
    tx.delete(designs).where(eq(designs.id, id)).run();
  });
}

function purgeVariant(db: Db, id: string): void {
  for (const table of [states, steps, snapshots]) db.delete(table).where(eq(table.variantId, id)).run();
  db.delete(variants).where(eq(variants.id, id)).run();
}

/** Takes everything out of the file that was deleted long ago; how many designs and variants that were. */
export function purgeOld(db: Db, now: number): number {
  const before = now - KEPT_DELETED_MS;
  const oldDesigns = db.select({ id: designs.id }).from(designs).where(lt(designs.deletedAt, before)).all();
  for (const { id } of oldDesigns) purgeDesign(db, id);
  const oldVariants = db.select({ id: variants.id }).from(variants).where(lt(variants.deletedAt, before)).all();
  for (const { id } of oldVariants) db.transaction((tx) => purgeVariant(tx as unknown as Db, id));
  return oldDesigns.length + oldVariants.length;
}

/**
 * A new design with the last readable state of every variant of one that cannot be read; the old one stays as it is.
 * Variants of which nothing can be read are left out, and named in the answer.
 */
export function recoverDesign(
  db: Db,
  id: string,
  name: string | undefined,
  newId: NewId,
  now: number,
): DesignHead & { left: string[] } {
  const head = findDesign(db, id);
  const read = head.variants.map((v) => ({ name: v.name, state: lastReadable(db, v.id) }));
  const documents = read.flatMap(({ name: called, state }) => (state ? [{ name: called, design: state.design }] : []));
  if (documents.length === 0)
    throw new Problem(
      422,
      'nothing-readable',
      `No state of '${head.name}' can be read: export its stored text instead.`,
    );
  const made = createDesign(db, name ?? `${head.name.slice(0, 85)}, recovered`, documents, newId, now);
  return { ...made, left: read.filter((r) => !r.state).map((r) => r.name) };
}

export function restoreDesign(db: Db, id: string): DesignHead {
  const { changes } = db.update(designs).set({ deletedAt: null }).where(eq(designs.id, id)).run();
  if (changes === 0) throw notFound('design', id);
  return findDesign(db, id);
}

/** A new variant that starts as another one stands now, or as a given document. */
export function copyVariant(
  db: Db,
  designId: string,
  from: string,
  name: string | null,
  newId: NewId,
  now: number,
  as?: { design?: Design | undefined; revision?: number | undefined },
): DesignHead {
  const head = findDesign(db, designId);
  const source = variantRow(db, from);
  if (source.designId !== designId) throw notFound('variant', from);
  const taken = head.variants.map((v) => v.name);
  if (name !== null && taken.includes(name))
    throw new Problem(422, 'duplicate-name', `This design has a variant '${name}' already: choose another name.`);
  const id = newId();
  const design =
    as?.design ?? (as?.revision === undefined ? currentDesign(db, source) : stateAt(db, from, as.revision));
  db.transaction((tx) => {
    addVariant(tx as unknown as Db, designId, name ?? copyName(taken, source.name), design, id, now);
    tx.update(designs).set({ changedAt: now }).where(eq(designs.id, designId)).run();
  });
  return findDesign(db, designId);
}

export function renameVariant(db: Db, designId: string, id: string, name: string): DesignHead {
  const head = findDesign(db, designId);
  if (!head.variants.some((v) => v.id === id)) throw notFound('variant', id);
  if (head.variants.some((v) => v.name === name && v.id !== id))
    throw new Problem(422, 'duplicate-name', `This design has a variant '${name}' already: choose another name.`);
  db.update(variants).set({ name }).where(eq(variants.id, id)).run();
  return findDesign(db, designId);
}

/** Takes a variant away; the last one of a design stays. */
export function deleteVariant(db: Db, designId: string, id: string, now: number): DesignHead {
  const head = findDesign(db, designId);
  if (!head.variants.some((v) => v.id === id)) throw notFound('variant', id);
  if (head.variants.length === 1)
    throw new Problem(422, 'last-variant', 'A design keeps at least one variant: delete the design instead.');
  db.update(variants).set({ deletedAt: now }).where(eq(variants.id, id)).run();
  return findDesign(db, designId);
}

export function restoreVariant(db: Db, designId: string, id: string): DesignHead {
  const { changes } = db
    .update(variants)
    .set({ deletedAt: null })
    .where(and(eq(variants.id, id), eq(variants.designId, designId)))
    .run();
  if (changes === 0) throw notFound('variant', id);
  return findDesign(db, designId);
}
