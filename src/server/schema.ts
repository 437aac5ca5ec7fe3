/** Tables. Times are milliseconds since 1970; documents and edits are JSON text. */
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

export const designs = sqliteTable('designs', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  /** Set while the design is deleted and can still be brought back. */
  deletedAt: integer('deleted_at'),
});

export const variants = sqliteTable(
  'variants',
  {
    id: text('id').primaryKey(),
    designId: text('design_id')
      .notNull()
      .references(() => designs.id),
    name: text('name').notNull(),
    position: integer('position').notNull(),
    /** Number of the newest step; 0 before the first. */
    revision: integer('revision').notNull(),
    changedAt: integer('changed_at').notNull(),
    deletedAt: integer('deleted_at'),
    /** What the list shows of the document, as JSON with the revision it was made of; null before it was first asked for. */
    summary: text('summary'),
  },
  (t) => [index('variants_by_design').on(t.designId, t.position)],
);

/** Whole documents at some revisions; the steps after the newest lead to the present. */
export const snapshots = sqliteTable(
  'snapshots',
  {
    variantId: text('variant_id')
      .notNull()
      .references(() => variants.id),
    revision: integer('revision').notNull(),
    document: text('document').notNull(),
    /** 0 for those written before times were kept. */
    madeAt: integer('made_at').notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.variantId, t.revision] })],
);

/** Every change ever made, undoing and redoing included; nothing is taken out. */
export const steps = sqliteTable(
  'steps',
  {
    variantId: text('variant_id')
      .notNull()
      .references(() => variants.id),
    revision: integer('revision').notNull(),
    kind: text('kind', { enum: ['edit', 'undo', 'redo'] }).notNull(),
    /** Revision of the step that an undo or redo is about. */
    target: integer('target'),
    label: text('label').notNull(),
    edits: text('edits').notNull(),
    inverse: text('inverse').notNull(),
    /** The window that made the change, so that it can tell its own from others'. */
    client: text('client').notNull(),
    madeAt: integer('made_at').notNull(),
    /** Idempotency key of the request; null for steps made before there were keys. */
    key: text('key'),
    /** Name of the person, as set in the browser that sent it. */
    author: text('author').notNull().default(''),
    /** Revisions of the edits that are next to be undone and redone after this step; 0 for none. Null in older files until they are filled in. */
    undoTop: integer('undo_top'),
    redoTop: integer('redo_top'),
  },
  (t) => [
    primaryKey({ columns: [t.variantId, t.revision] }),
    uniqueIndex('steps_by_key').on(t.variantId, t.key),
    index('steps_by_target').on(t.variantId, t.target),
  ],
);

/** Names that people gave to states of a variant. */
export const states = sqliteTable(
  'states',
  {
    variantId: text('variant_id')
      .notNull()
      .references(() => variants.id),
    revision: integer('revision').notNull(),
    name: text('name').notNull(),
  },
  (t) => [primaryKey({ columns: [t.variantId, t.revision] })],
);

/** Facts about the file itself: `epoch`, another value after a backup was restored; `secret`, which signs sessions. */
export const meta = sqliteTable('meta', { name: text('name').primaryKey(), value: text('value').notNull() });
