/** Variants of a design: their documents, the steps that made them, and what can be undone. */
import { and, asc, desc, eq, gt, isNull } from 'drizzle-orm';
import { advance, applyEdits, historyOf, readDesign } from '../core/design';
import type { Design, Edit, History } from '../core/design';
import type { Db } from './database';
import { Problem, notFound, refused } from './problem';
import { designs, snapshots, steps, variants } from './schema';

const STEPS_A_SNAPSHOT = 64;

/** A step as other windows see it. */
export interface Step {
  revision: number;
  kind: 'edit' | 'undo' | 'redo';
  target: number | null;
  label: string;
  edits: Edit[];
  client: string;
}

export interface LoadedVariant {
  id: string;
  designId: string;
  name: string;
  revision: number;
  design: Design;
  history: History;
}

type Loaded = { revision: number; design: Design; history: History };
const shared = globalThis as { knotPathLoaded?: WeakMap<object, Map<string, Loaded>> };

/** Documents in memory, by variant; the database stays the truth, and the revision tells whether one is current. */
function memory(db: Db): Map<string, Loaded> {
  const all = (shared.knotPathLoaded ??= new WeakMap());
  let own = all.get(db);
  if (!own) all.set(db, (own = new Map()));
  return own;
}

function row(db: Db, id: string) {
  const found = db
    .select({ variant: variants, designDeleted: designs.deletedAt })
    .from(variants)
    .innerJoin(designs, eq(designs.id, variants.designId))
    .where(and(eq(variants.id, id), isNull(variants.deletedAt), isNull(designs.deletedAt)))
    .get();
  if (!found) throw notFound('variant', id);
  return found.variant;
}

function load(db: Db, id: string, revision: number): Loaded {
  const known = memory(db).get(id);
  if (known?.revision === revision) return known;
  const snapshot = db
    .select()
    .from(snapshots)
    .where(eq(snapshots.variantId, id))
    .orderBy(desc(snapshots.revision))
    .get();
  if (!snapshot) throw new Error(`load: variant ${id} has no snapshot`);
  const read = readDesign(JSON.parse(snapshot.document));
  if (!read.ok) throw new Error(`load: the stored document of variant ${id} is not valid: ${read.faults[0]?.sentence}`);
  let design = read.design;
  const all = db.select().from(steps).where(eq(steps.variantId, id)).orderBy(asc(steps.revision)).all();
  for (const step of all) {
    if (step.revision <= snapshot.revision) continue;
    const applied = applyEdits(design, JSON.parse(step.edits) as Edit[]);
    if (!applied.ok) throw new Error(`load: step ${step.revision} of variant ${id} does not apply`);
    design = applied.design;
  }
  const loaded = { revision, design, history: historyOf(all) };
  memory(db).set(id, loaded);
  return loaded;
}

/** A variant with its present document. */
export function loadVariant(db: Db, id: string): LoadedVariant {
  const { designId, name, revision } = row(db, id);
  return { id, designId, name, ...load(db, id, revision) };
}

/** Steps after a revision, oldest first. */
export function stepsSince(db: Db, id: string, since: number): Step[] {
  row(db, id);
  return db
    .select()
    .from(steps)
    .where(and(eq(steps.variantId, id), gt(steps.revision, since)))
    .orderBy(asc(steps.revision))
    .all()
    .map(({ revision, kind, target, label, edits, client }) => ({
      revision,
      kind,
      target,
      label,
      edits: JSON.parse(edits) as Edit[],
      client,
    }));
}

interface Change {
  kind: Step['kind'];
  target: number | null;
  label: string;
  edits: readonly Edit[];
  client: string;
}

/** Writes one step, in a transaction of its own. The revision asked for must be the newest. */
function write(db: Db, id: string, base: number, change: (loaded: Loaded) => Change, now: number): Step {
  return db.transaction(
    (tx) => {
      const variant = row(tx as unknown as Db, id);
      if (variant.revision !== base)
        throw new Problem(409, 'conflict', 'Somebody else changed this design in the meantime.', [], {
          revision: variant.revision,
          steps: stepsSince(tx as unknown as Db, id, base),
        });
      const loaded = load(db, id, variant.revision);
      const { kind, target, label, edits, client } = change(loaded);
      const applied = applyEdits(loaded.design, edits);
      if (!applied.ok) throw refused(applied.faults);
      const revision = base + 1;
      tx.insert(steps)
        .values({
          variantId: id,
          revision,
          kind,
          target,
          label,
          edits: JSON.stringify(edits),
          inverse: JSON.stringify(applied.inverse),
          client,
          madeAt: now,
        })
        .run();
      tx.update(variants).set({ revision, changedAt: now }).where(eq(variants.id, id)).run();
      tx.update(designs).set({ changedAt: now }).where(eq(designs.id, variant.designId)).run();
      if (revision % STEPS_A_SNAPSHOT === 0)
        tx.insert(snapshots)
          .values({ variantId: id, revision, document: JSON.stringify(applied.design) })
          .run();
      const step: Step = { revision, kind, target, label, edits: [...edits], client };
      memory(db).set(id, { revision, design: applied.design, history: advance(loaded.history, step) });
      return step;
    },
    { behavior: 'immediate' },
  );
}

/** Applies edits made against revision `base`. Refused with 409 when that is not the newest, with 422 when they do not fit. */
export function applyStep(
  db: Db,
  id: string,
  base: number,
  label: string,
  edits: readonly Edit[],
  client: string,
  now: number,
): Step {
  return write(db, id, base, () => ({ kind: 'edit', target: null, label, edits, client }), now);
}

function stored(db: Db, id: string, revision: number) {
  return db
    .select()
    .from(steps)
    .where(and(eq(steps.variantId, id), eq(steps.revision, revision)))
    .get()!;
}

/** Takes the last edit back. */
export function undoStep(db: Db, id: string, base: number, client: string, now: number): Step {
  return write(
    db,
    id,
    base,
    ({ history }) => {
      const last = history.undo.at(-1);
      if (!last) throw new Problem(409, 'nothing-to-undo', 'There is nothing to undo.');
      const edits = JSON.parse(stored(db, id, last.revision).inverse) as Edit[];
      return { kind: 'undo', target: last.revision, label: last.label, edits, client };
    },
    now,
  );
}

/** Makes the edit that was last taken back again. */
export function redoStep(db: Db, id: string, base: number, client: string, now: number): Step {
  return write(
    db,
    id,
    base,
    ({ history }) => {
      const last = history.redo.at(-1);
      if (!last) throw new Problem(409, 'nothing-to-redo', 'There is nothing to redo.');
      const edits = JSON.parse(stored(db, id, last.revision).edits) as Edit[];
      return { kind: 'redo', target: last.revision, label: last.label, edits, client };
    },
    now,
  );
}
