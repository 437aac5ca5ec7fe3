/** Variants of a design: their newest documents, and the steps that change them. */
import { and, asc, eq, gt } from 'drizzle-orm';
import type { LoadedVariant, Step } from '../api/contract';
import { applyEdits, differenceBetween, topsAfter } from '../core/design';
import type { Design, Edit } from '../core/design';
import { factOf } from './database';
import {
  STEPS_A_SNAPSHOT,
  checkRevision,
  currentDesign,
  readState,
  remember,
  unreadable,
  variantRow,
  writeSnapshot,
} from './documents';
import { historyAt, stackFrom, topsAt, undoneAt } from './history';
import { Problem, refused } from './problem';
import { designs, steps, variants } from './schema';
import type { Db } from './db';

export type { LoadedVariant, Step };

/** A variant with its present document. */
export function loadVariant(db: Db, id: string): LoadedVariant {
  const variant = variantRow(db, id);
  return {
    id,
    designId: variant.designId,
    name: variant.name,
    revision: variant.revision,
    epoch: factOf(db, 'epoch'),
    design: currentDesign(db, variant),
    history: historyAt(db, id, variant.revision),
  };
}

type StepRow = typeof steps.$inferSelect;
const asStep = ({ revision, kind, target, label, edits, client, key }: StepRow): Step => ({
  revision,
  kind,
  target,
  label,
  edits: JSON.parse(edits) as Edit[],
  client,
  key,
});

/** Steps after a revision, oldest first. */
export function stepsSince(db: Db, id: string, since: number): Step[] {
  variantRow(db, id);
  return db
    .select()
    .from(steps)
    .where(and(eq(steps.variantId, id), gt(steps.revision, since)))
    .orderBy(asc(steps.revision))
    .all()
    .map(asStep);
}

/** Who asks for a change, and on which state it was made. */
export interface Request {
  /** Newest revision that the sender knows. */
  readonly revision: number;
  readonly client: string;
  readonly key?: string | undefined;
  readonly author?: string | undefined;
  readonly epoch?: string | undefined;
}

interface Change {
  readonly kind: Step['kind'];
  readonly target: number | null;
  readonly label: string;
  readonly edits: readonly Edit[];
}

/** The answer to a request that needs no change: it was carried out before. Throws when it cannot be carried out now. */
function answered(db: Db, id: string, request: Request, newest: number): Step | null {
  if (request.epoch !== undefined && request.epoch !== factOf(db, 'epoch'))
    throw new Problem(
      409,
      'restored',
      'A backup was restored: this window shows a state that is gone. Load the page again.',
    );
  if (request.key !== undefined) {
    const known = db
      .select()
      .from(steps)
      .where(and(eq(steps.variantId, id), eq(steps.key, request.key)))
      .get();
    if (known) return asStep(known);
  }
  if (newest !== request.revision)
    throw new Problem(409, 'conflict', 'This design was changed in another window in the meantime.', [], {
      revision: newest,
      steps: stepsSince(db, id, request.revision),
    });
  return null;
}

/** Writes one step, in a transaction of its own. A request that was carried out before is answered with the step it made. */
function write(db: Db, id: string, request: Request, change: (db: Db, design: Design) => Change, now: number): Step {
  let held: { revision: number; design: Design } | null = null;
  const step = db.transaction(
    (transaction) => {
      const tx = transaction as unknown as Db;
      const variant = variantRow(tx, id);
      const known = answered(tx, id, request, variant.revision);
      if (known) return known;
      const design = currentDesign(db, variant);
      const { kind, target, label, edits } = change(tx, design);
      const applied = applyEdits(design, edits);
      if (!applied.ok) throw refused(applied.faults);
      const revision = request.revision + 1;
      const tops = topsAfter(
        topsAt(tx, id, request.revision),
        { revision, kind, target },
        (r) => topsAt(tx, id, r),
        (t) => undoneAt(tx, id, t),
      );
      const { client, key = null, author = '' } = request;
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
          key,
          author,
          ...tops,
        })
        .run();
      tx.update(variants).set({ revision, changedAt: now }).where(eq(variants.id, id)).run();
      tx.update(designs).set({ changedAt: now }).where(eq(designs.id, variant.designId)).run();
      if (revision % STEPS_A_SNAPSHOT === 0) writeSnapshot(tx, id, revision, applied.design, now);
      held = { revision, design: applied.design };
      return { revision, kind, target, label, edits: [...edits], client, key };
    },
    { behavior: 'immediate' },
  );
  // Only what is on disk is remembered.
  if (held) remember(db, id, held);
  return step;
}

/** Applies edits made against the newest revision. Refused with 409 when that is another one, with 422 when they do not fit. */
export function applyStep(
  db: Db,
  id: string,
  request: Request,
  label: string,
  edits: readonly Edit[],
  now: number,
): Step {
  return write(db, id, request, () => ({ kind: 'edit', target: null, label, edits }), now);
}

function stored(db: Db, id: string, revision: number): StepRow {
  return db
    .select()
    .from(steps)
    .where(and(eq(steps.variantId, id), eq(steps.revision, revision)))
    .get()!;
}

/**
 * Undoes the last edit, or makes again the one that was last undone. With `target`, key or revision of an edit, the
 * request is refused when another edit is the last.
 */
export function moveStep(
  db: Db,
  id: string,
  kind: 'undo' | 'redo',
  request: Request & { target?: string | number | undefined },
  now: number,
): Step {
  return write(
    db,
    id,
    request,
    (tx) => {
      const top = topsAt(tx, id, request.revision)[kind === 'undo' ? 'undoTop' : 'redoTop'];
      if (top === 0) throw new Problem(409, `nothing-to-${kind}`, `There is nothing to ${kind}.`);
      const last = stored(tx, id, top);
      const { target } = request;
      if (target !== undefined && target !== last.revision && target !== last.key)
        throw new Problem(
          409,
          'not-last',
          `Nothing was ${kind === 'undo' ? 'undone' : 'redone'}: the last change is '${last.label}' by now. Try again.`,
        );
      const edits = JSON.parse(kind === 'undo' ? last.inverse : last.edits) as Edit[];
      return { kind, target: top, label: last.label, edits };
    },
    now,
  );
}

/** The document of a variant at one of its revisions. */
export function stateAt(db: Db, id: string, revision: number): Design {
  const variant = variantRow(db, id);
  checkRevision(variant, revision);
  const read = readState(db, id, revision);
  if (!read.ok) throw unreadable(variant.name, read.reason);
  return read.design;
}

/** Makes the newest state what an earlier one was, as an edit that can be undone. */
export function goBack(db: Db, id: string, request: Request & { to: number }, label: string, now: number): Step {
  const wanted = stateAt(db, id, request.to);
  return write(
    db,
    id,
    request,
    (_, design) => {
      const edits = differenceBetween(design, wanted);
      if (edits.length === 0)
        throw new Problem(409, 'no-difference', `State ${request.to} does not differ from the newest one.`);
      return { kind: 'edit', target: null, label, edits };
    },
    now,
  );
}

/** A page of the stack of undo or redo. */
export function stackOf(db: Db, id: string, kind: 'undo' | 'redo', from: number): ReturnType<typeof stackFrom> {
  variantRow(db, id);
  return stackFrom(db, id, kind, from);
}
