/** Designs and their variants as wholes: list, create, rename, duplicate, delete and bring back. */
import { and, asc, desc, eq, isNull, max } from 'drizzle-orm';
import type { Design } from '../core/design';
import type { Db } from './database';
import { Problem, notFound } from './problem';
import { designs, snapshots, variants } from './schema';
import { summarise } from './summary';
import type { Summary } from './summary';
import { loadVariant } from './variants';

export interface VariantHead {
  id: string;
  name: string;
  revision: number;
}

export interface DesignHead {
  id: string;
  name: string;
  changedAt: number;
  variants: VariantHead[];
}

export type DesignRow = DesignHead & Summary;
export type NewId = () => string;

const heads = (db: Db, designId: string): VariantHead[] =>
  db
    .select({ id: variants.id, name: variants.name, revision: variants.revision })
    .from(variants)
    .where(and(eq(variants.designId, designId), isNull(variants.deletedAt)))
    .orderBy(asc(variants.position))
    .all();

const shared = globalThis as { knotPathSummaries?: Map<string, { revision: number; summary: Summary }> };

/** Summary of a variant, remembered until it changes. */
function summaryOf(db: Db, head: VariantHead): Summary {
  const known = (shared.knotPathSummaries ??= new Map()).get(head.id);
  if (known?.revision === head.revision) return known.summary;
  const summary = summarise(loadVariant(db, head.id).design);
  shared.knotPathSummaries.set(head.id, { revision: head.revision, summary });
  return summary;
}

/** Every design that is not deleted, last changed first, with the summary of its first variant. */
export function listDesigns(db: Db): DesignRow[] {
  return db
    .select()
    .from(designs)
    .where(isNull(designs.deletedAt))
    .orderBy(desc(designs.changedAt))
    .all()
    .map(({ id, name, changedAt }) => {
      const list = heads(db, id);
      return { id, name, changedAt, variants: list, ...summaryOf(db, list[0]!) };
    });
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
  db.insert(snapshots)
    .values({ variantId: id, revision: 0, document: JSON.stringify(design) })
    .run();
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
  const documents = list.map((head) => ({ name: head.name, design: loadVariant(db, head.id).design }));
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
  as?: Design,
): DesignHead {
  const head = findDesign(db, designId);
  const source = loadVariant(db, from);
  if (source.designId !== designId) throw notFound('variant', from);
  const taken = head.variants.map((v) => v.name);
  if (name !== null && taken.includes(name))
    throw new Problem(422, 'duplicate-name', `This design has a variant '${name}' already: choose another name.`);
  const id = newId();
  db.transaction((tx) => {
    addVariant(tx as unknown as Db, designId, name ?? copyName(taken, source.name), as ?? source.design, id, now);
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
