/** Tables. Times are milliseconds since 1970; documents and edits are JSON text. */
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

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
  },
  (t) => [primaryKey({ columns: [t.variantId, t.revision] })],
);
