/** The stacks of undo and redo as the table of steps has them: only their tops are stored, the rest is walked to. */
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { topsAfter } from '../core/design';
import type { History, HistoryEntry, StackTops } from '../core/design';
import { steps } from './schema';
import type { Db } from './db';

/** Entries of a stack that are sent at once. */
export const STACK_PAGE = 50;
const EMPTY: StackTops = { undoTop: 0, redoTop: 0 };

const mark = { kind: steps.kind, target: steps.target, label: steps.label, key: steps.key };
const tops = { undoTop: steps.undoTop, redoTop: steps.redoTop };

/** The tops of both stacks after a step; empty ones after step 0. */
export function topsAt(db: Db, variantId: string, revision: number): StackTops {
  if (revision <= 0) return EMPTY;
  const row = db
    .select(tops)
    .from(steps)
    .where(and(eq(steps.variantId, variantId), eq(steps.revision, revision)))
    .get();
  return { undoTop: row?.undoTop ?? 0, redoTop: row?.redoTop ?? 0 };
}

/** Revision of the newest undo of an edit. */
export function undoneAt(db: Db, variantId: string, target: number): number {
  return (
    db
      .select({ revision: steps.revision })
      .from(steps)
      .where(and(eq(steps.variantId, variantId), eq(steps.target, target), eq(steps.kind, 'undo')))
      .orderBy(desc(steps.revision))
      .limit(1)
      .get()?.revision ?? 0
  );
}

/** Revision of the edit below another one on its stack; 0 at the bottom. */
const below = (db: Db, variantId: string, kind: 'undo' | 'redo', revision: number): number =>
  kind === 'undo'
    ? topsAt(db, variantId, revision - 1).undoTop
    : topsAt(db, variantId, undoneAt(db, variantId, revision) - 1).redoTop;

/** Entries of a stack from one downwards, the uppermost last, and what lies below them. */
export function stackFrom(
  db: Db,
  variantId: string,
  kind: 'undo' | 'redo',
  from: number,
): { entries: HistoryEntry[]; below: number | null } {
  const entries: HistoryEntry[] = [];
  let revision = from;
  while (revision > 0 && entries.length < STACK_PAGE) {
    const row = db
      .select(mark)
      .from(steps)
      .where(and(eq(steps.variantId, variantId), eq(steps.revision, revision)))
      .get();
    if (!row) break;
    entries.unshift({ revision, label: row.label, ...(row.key === null ? {} : { key: row.key }) });
    revision = below(db, variantId, kind, revision);
  }
  return { entries, below: revision > 0 ? revision : null };
}

/** The upper parts of both stacks after a step. */
export function historyAt(db: Db, variantId: string, revision: number): History {
  const { undoTop, redoTop } = topsAt(db, variantId, revision);
  const undo = stackFrom(db, variantId, 'undo', undoTop);
  const redo = stackFrom(db, variantId, 'redo', redoTop);
  return { undo: undo.entries, redo: redo.entries, undoBelow: undo.below, redoBelow: redo.below };
}

/** Fills in the tops of steps from files that did not have them. */
export function fillTops(db: Db): void {
  const lacking = db.selectDistinct({ id: steps.variantId }).from(steps).where(isNull(steps.undoTop)).all();
  for (const { id } of lacking)
    db.transaction((tx) => {
      const seen: StackTops[] = [EMPTY];
      const undone = new Map<number, number>();
      const columns = { revision: steps.revision, kind: steps.kind, target: steps.target };
      for (const step of tx
        .select(columns)
        .from(steps)
        .where(eq(steps.variantId, id))
        .orderBy(asc(steps.revision))
        .all()) {
        if (step.kind === 'undo' && step.target !== null) undone.set(step.target, step.revision);
        const next = topsAfter(
          seen[step.revision - 1] ?? EMPTY,
          step,
          (r) => seen[r] ?? EMPTY,
          (target) => undone.get(target) ?? 0,
        );
        seen[step.revision] = next;
        tx.update(steps)
          .set(next)
          .where(and(eq(steps.variantId, id), eq(steps.revision, step.revision)))
          .run();
      }
    });
}
