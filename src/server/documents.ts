/** Documents of variants: read from snapshots and steps, kept in memory while they are in use, and thinned out with age. */
import { and, asc, desc, eq, gt, inArray, isNull, lte } from 'drizzle-orm';
import { applyEdits, readDesignText } from '../core/design';
import type { Design, Edit } from '../core/design';
import { Problem, notFound } from './problem';
import { designs, snapshots, steps, variants } from './schema';
import type { Db } from './db';

/** Documents that stay in memory. */
const MOST_IN_MEMORY = 12;
export const STEPS_A_SNAPSHOT = 64;
const NEWEST_KEPT = 50;
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Snapshots older than this are kept one a day, younger ones one an hour. */
const HOURLY_FOR = 7 * DAY;

interface Held {
  revision: number;
  design: Design;
}

const shared = globalThis as { knotPathDocuments?: WeakMap<object, Map<string, Held>> };

/** Documents in memory, by variant, the last used last; the database stays the truth, and the revision tells whether one is current. */
function memory(db: Db): Map<string, Held> {
  const all = (shared.knotPathDocuments ??= new WeakMap());
  let own = all.get(db.$client);
  if (!own) all.set(db.$client, (own = new Map()));
  return own;
}

export function remember(db: Db, id: string, held: Held): void {
  const own = memory(db);
  own.delete(id);
  own.set(id, held);
  if (own.size > MOST_IN_MEMORY) own.delete(own.keys().next().value!);
}

/** Forgets everything, after another process changed the file. */
export const forgetDocuments = (db: Db): void => memory(db).clear();

/** The row of a variant that is not deleted, nor its design. */
export function variantRow(db: Db, id: string) {
  const found = db
    .select({ variant: variants })
    .from(variants)
    .innerJoin(designs, eq(designs.id, variants.designId))
    .where(and(eq(variants.id, id), isNull(variants.deletedAt), isNull(designs.deletedAt)))
    .get();
  if (!found) throw notFound('variant', id);
  return found.variant;
}

/** Refuses a revision that a variant does not have. */
export function checkRevision(variant: { name: string; revision: number }, revision: number): void {
  if (revision > variant.revision)
    throw new Problem(
      404,
      'not-found',
      `Variant '${variant.name}' has no state ${revision}: its newest is ${variant.revision}.`,
    );
}

export type ReadState = { ok: true; design: Design } | { ok: false; reason: string };

/** Takes a design through stored steps; the reason and the last revision that could be reached when one does not apply. */
function through(
  start: Design,
  list: readonly { revision: number; edits: string }[],
): { design: Design; reached: number; reason: string | null } {
  let design = start;
  let reached = -1;
  for (const { revision, edits } of list) {
    let parsed: Edit[];
    try {
      parsed = JSON.parse(edits) as Edit[];
    } catch {
      return { design, reached, reason: `step ${revision} is no JSON` };
    }
    const applied = applyEdits(design, parsed);
    if (!applied.ok)
      return { design, reached, reason: `step ${revision} does not apply: ${applied.faults[0]?.sentence ?? ''}` };
    design = applied.design;
    reached = revision;
  }
  return { design, reached, reason: null };
}

const stepsBetween = (db: Db, id: string, after: number, upTo: number) =>
  db
    .select({ revision: steps.revision, edits: steps.edits })
    .from(steps)
    .where(and(eq(steps.variantId, id), gt(steps.revision, after), lte(steps.revision, upTo)))
    .orderBy(asc(steps.revision))
    .all();

/** The document at a revision, from the newest snapshot before it. */
export function readState(db: Db, id: string, revision: number): ReadState {
  const held = memory(db).get(id);
  if (held?.revision === revision) return { ok: true, design: held.design };
  const snapshot = db
    .select()
    .from(snapshots)
    .where(and(eq(snapshots.variantId, id), lte(snapshots.revision, revision)))
    .orderBy(desc(snapshots.revision))
    .limit(1)
    .get();
  if (!snapshot) return { ok: false, reason: 'no state of it is stored' };
  const read = readDesignText(snapshot.document);
  if (!read.ok) return { ok: false, reason: read.faults[0]?.sentence ?? 'its stored state is damaged' };
  const { design, reason } = through(read.design, stepsBetween(db, id, snapshot.revision, revision));
  return reason === null ? { ok: true, design } : { ok: false, reason };
}

export const unreadable = (name: string, reason: string): Problem =>
  new Problem(
    422,
    'unreadable',
    `Variant '${name}' cannot be read: ${reason.replace(/\.$/, '')}. The list of designs offers its stored text and its last readable state.`,
  );

/** The newest document of a variant; a problem says why it cannot be read. */
export function currentDesign(db: Db, variant: { id: string; name: string; revision: number }): Design {
  const read = readState(db, variant.id, variant.revision);
  if (!read.ok) throw unreadable(variant.name, read.reason);
  remember(db, variant.id, { revision: variant.revision, design: read.design });
  return read.design;
}

/** The newest state that can be read, from whichever snapshot and as many steps after it as apply; null when there is none. */
export function lastReadable(db: Db, id: string): { revision: number; design: Design } | null {
  const list = db.select().from(snapshots).where(eq(snapshots.variantId, id)).orderBy(desc(snapshots.revision)).all();
  for (const snapshot of list) {
    const read = readDesignText(snapshot.document);
    if (!read.ok) continue;
    const { design, reached } = through(read.design, stepsBetween(db, id, snapshot.revision, Number.MAX_SAFE_INTEGER));
    // Older snapshots lead through the same steps, and no further.
    return { revision: Math.max(reached, snapshot.revision), design };
  }
  return null;
}

/** Everything that is stored of a variant, as text, whatever it is worth. */
export function rawStates(db: Db, id: string): string {
  const documents = db
    .select()
    .from(snapshots)
    .where(eq(snapshots.variantId, id))
    .orderBy(asc(snapshots.revision))
    .all();
  const list = db.select().from(steps).where(eq(steps.variantId, id)).orderBy(asc(steps.revision)).all();
  return `${JSON.stringify({ format: 'knot-path-raw', variant: id, snapshots: documents, steps: list }, null, 1)}\n`;
}

/** Which of the snapshots of a variant go: the newest stay, then one an hour, then one a day; the first always stays. */
export function snapshotsToDrop(list: readonly { revision: number; madeAt: number }[], now: number): number[] {
  const newestFirst = [...list].sort((a, b) => b.revision - a.revision);
  const taken = new Set<string>();
  return newestFirst.slice(NEWEST_KEPT).flatMap(({ revision, madeAt }) => {
    const old = now - madeAt > HOURLY_FOR;
    const slot = old ? `d${Math.floor(madeAt / DAY)}` : `h${Math.floor(madeAt / HOUR)}`;
    const keep = revision === 0 || !taken.has(slot);
    taken.add(slot);
    return keep ? [] : [revision];
  });
}

/** Stores a snapshot, if what is stored can be read again, and drops those that are no longer needed. */
export function writeSnapshot(db: Db, id: string, revision: number, design: Design, now: number): boolean {
  const document = JSON.stringify(design);
  if (!readDesignText(document).ok) return false;
  db.insert(snapshots).values({ variantId: id, revision, document, madeAt: now }).run();
  const list = db
    .select({ revision: snapshots.revision, madeAt: snapshots.madeAt })
    .from(snapshots)
    .where(eq(snapshots.variantId, id))
    .all();
  const drop = snapshotsToDrop(list, now);
  if (drop.length > 0)
    db.delete(snapshots)
      .where(and(eq(snapshots.variantId, id), inArray(snapshots.revision, drop)))
      .run();
  return true;
}
