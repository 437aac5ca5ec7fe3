/** What travels between browser and server: the schemas of requests and of answers. Both sides import this file. */
import { z } from 'zod';
import { editSchema } from '../core/design';
import { documentMessages as say, NAME_LENGTH } from '../core/messages';
import type { Design, Edit } from '../core/design';

const nameField = z
  .string({ error: (issue) => say.name(issue.input) })
  .trim()
  .min(1, { error: (issue) => say.name(issue.input) })
  .max(NAME_LENGTH, { error: (issue) => say.name(issue.input) });

export const LABEL_LENGTH = 300;
export const MOST_EDITS = 50_000;

const client = z.string().max(64);
const revision = z.int().min(0);
const source = z.strictObject({ file: z.string().max(300), text: z.string() });
/** Chosen by the sender; the server makes a change with one key once, however often it is sent. */
const key = z.string().min(1).max(64);
/** Name of the person, as set in the browser. */
const author = z.string().max(60);
/** Which life of the database the sender knows: another one after a backup was restored. */
const epoch = z.string().max(64);

/** A new design: empty, from a design document, or from CSV tables. */
export const createRequest = z.strictObject({
  name: nameField,
  variant: nameField.optional(),
  design: z.unknown().optional(),
  /** An example to copy, instead of a document. */
  example: z.string().max(64).optional(),
});
/** A design document's text, or tables. */
export const importRequest = z.strictObject({
  name: nameField,
  json: source.optional(),
  switches: source.optional(),
  links: source.optional(),
  vlans: source.optional(),
});
export const renameRequest = z.strictObject({ name: nameField });
export const copyRequest = z.strictObject({
  from: z.string().max(64),
  name: nameField.optional(),
  design: z.unknown().optional(),
  /** State to copy; absent: the newest. */
  revision: revision.optional(),
});
const sender = { client, key: key.optional(), author: author.optional(), epoch: epoch.optional() };
export const stepRequest = z.strictObject({
  revision,
  label: z.string().max(LABEL_LENGTH),
  edits: z.array(editSchema).min(1).max(MOST_EDITS),
  ...sender,
});
/** `target`: key or revision of the step that should be undone or redone; refused when another one is on top. */
export const undoRequest = z.strictObject({ revision, ...sender, target: z.union([key, revision]).optional() });
/** Back to an earlier state, as a step of its own. */
export const goBackRequest = z.strictObject({ revision, to: revision, ...sender });
/** Names a state; an empty name takes the name away. */
export const stateNameRequest = z.strictObject({ revision, name: z.string().trim().max(NAME_LENGTH) });
export const recoverRequest = z.strictObject({ name: nameField.optional() });
export const signInRequest = z.strictObject({ password: z.string().max(1000) });

const id = z.string();
const list = <T extends z.ZodType>(item: T) => z.array(item).readonly();
/** Milliseconds since 1970. */
const moment = z.int();

export const variantHead = z.strictObject({ id, name: z.string(), revision });
export type VariantHead = Readonly<z.infer<typeof variantHead>>;

export const designHead = z.strictObject({ id, name: z.string(), changedAt: moment, variants: list(variantHead) });
export type DesignHead = Readonly<z.infer<typeof designHead>>;

const pairOfNumbers = z.tuple([z.number(), z.number()]).readonly();
/** What the list of designs shows of a document: counts, and a drawing small enough to send many of. */
const summaryFields = {
  switches: z.int(),
  links: z.int(),
  trees: z.int(),
  /** Switch places, scaled to 0 … 100 across and 0 … 60 down; empty when nothing has a place. */
  dots: list(pairOfNumbers),
  /** Pairs of indices into `dots`. */
  lines: list(pairOfNumbers),
  /** Dots that are root of a tree, and lines without a cable that carries the first tree; absent in a large design. */
  roots: list(z.int()).optional(),
  blocked: list(z.int()).optional(),
};
export const summary = z.strictObject(summaryFields);
export type Summary = Readonly<z.infer<typeof summary>>;

/** `unreadable`: why the first variant cannot be read; absent when it can. */
export const designRow = z.strictObject({
  ...designHead.shape,
  ...summaryFields,
  unreadable: z.string().optional(),
});
export type DesignRow = Readonly<z.infer<typeof designRow>>;

export const deletedDesign = z.strictObject({ id, name: z.string(), deletedAt: moment });
export type DeletedDesign = Readonly<z.infer<typeof deletedDesign>>;

export const designList = z.strictObject({ designs: list(designRow), deleted: list(deletedDesign) });
/** A design made from what could still be read; `left` names variants that could not. */
export const recoveredDesign = z.strictObject({ ...designHead.shape, left: list(z.string()).optional() });
export const deletedAnswer = z.strictObject({ deleted: z.literal(true) });

export const historyEntry = z.strictObject({ revision: z.int(), label: z.string(), key: z.string().nullish() });
/** The next edit to undo is the last of `undo`; `undoBelow` names the edit below the first, null when there is none. */
export const historySchema = z.strictObject({
  undo: list(historyEntry),
  redo: list(historyEntry),
  undoBelow: revision.nullish(),
  redoBelow: revision.nullish(),
});

/** A whole document: checked where it is read, described by its own schema. */
export const designDocument = z.custom<Design>((value) => typeof value === 'object' && value !== null);
export const editDocument = z.custom<Edit>((value) => typeof value === 'object' && value !== null);
export const loadedVariant = z.strictObject({
  id,
  designId: id,
  name: z.string(),
  revision,
  epoch: z.string(),
  design: designDocument,
  history: historySchema,
});
export type LoadedVariant = Readonly<z.infer<typeof loadedVariant>>;

const stepKind = z.enum(['edit', 'undo', 'redo']);
/** A step as other windows see it. */
export const stepSchema = z.strictObject({
  revision,
  kind: stepKind,
  target: revision.nullable(),
  label: z.string(),
  edits: list(editDocument),
  client: z.string(),
  key: z.string().nullable(),
});
export type Step = Readonly<z.infer<typeof stepSchema>>;
export const stepList = z.strictObject({ steps: list(stepSchema) });

/** A page of a stack, and the edit below it. */
export const stackPage = z.strictObject({ entries: list(historyEntry), below: revision.nullable() });

/** A step in the list of what happened; `name`: that of the state after it. */
export const pastStep = z.strictObject({
  revision,
  kind: stepKind,
  target: revision.nullable(),
  label: z.string(),
  author: z.string(),
  madeAt: moment,
  name: z.string().nullable(),
});
export type PastStep = Readonly<z.infer<typeof pastStep>>;

/** `more`: whether there are older steps; `named`: all named states, newest first. */
export const pastSchema = z.strictObject({
  steps: list(pastStep),
  more: z.boolean(),
  named: list(z.strictObject({ revision, name: z.string() })),
});
export type Past = Readonly<z.infer<typeof pastSchema>>;

export const stateSchema = z.strictObject({ revision, design: designDocument });
export const namedState = z.strictObject({ revision, name: z.string() });

export const MOST_DIFFERENCES = 500;
/** Difference between two states, in words; at most `MOST_DIFFERENCES` lines. */
export const stateDifference = z.strictObject({
  from: revision,
  to: revision,
  lines: list(z.string()),
  total: z.int(),
});
export type StateDifference = Readonly<z.infer<typeof stateDifference>>;

/** `fold`: trees with equal values have the same outcome. */
export const treeRow = z.strictObject({
  id,
  vlans: list(z.int()),
  vlan: z.int().nullable(),
  instance: z.int().nullable(),
  name: z.string(),
  fold: z.int(),
});
export const treeList = z.strictObject({ trees: list(treeRow) });
const role = z.enum(['none', 'root', 'designated', 'alternate', 'backup', 'disabled', 'master']);
/** One solved tree. The costs outside and inside a region stand in the CIST of a network with MST regions only. */
export const solutionTree = z.strictObject({
  id,
  vlans: list(z.int()),
  root: z.string().nullable(),
  switches: list(
    z.strictObject({
      switch: z.string(),
      rootPathCost: z.number(),
      rootPort: z.string().nullable(),
      bridgeId: z.string(),
      externalCost: z.number().optional(),
      internalCost: z.number().optional(),
      regionalRoot: z.string().optional(),
    }),
  ),
  ports: list(
    z.strictObject({
      switch: z.string(),
      port: z.string(),
      role,
      state: z.enum(['forwarding', 'learning', 'discarding', 'disabled']),
      cost: z.number(),
      designatedSwitch: z.string().nullable(),
      designatedPort: z.string().nullable(),
    }),
  ),
});

export const healthSchema = z.strictObject({
  name: z.literal('knot-path'),
  status: z.enum(['fine', 'disk nearly full', 'backup failed']),
  version: z.string(),
  /** The rest with a session only. */
  schema: z.int().optional(),
  database: z.strictObject({ file: z.string(), epoch: z.string() }).optional(),
  disk: z.strictObject({ freeBytes: z.number().nullable() }).optional(),
  uptimeSeconds: z.int().optional(),
  memoryMB: z.int().optional(),
  backupFault: z.string().nullish(),
});

/** Signing in and out answer with the cookie alone. */
export const signedIn = z.strictObject({});
export const doneAnswer = z.strictObject({ done: z.literal(true) });

export const apiFault = z.strictObject({ path: z.string(), sentence: z.string() });
export type ApiFault = Readonly<z.infer<typeof apiFault>>;

/** `steps`: those that the sender did not know, with code `conflict`; `request`: its id in the log of the server. */
export const apiError = z.looseObject({
  code: z.string(),
  sentence: z.string(),
  faults: list(apiFault),
  steps: list(stepSchema).optional(),
  request: z.string().optional(),
});
export type ApiError = Readonly<z.infer<typeof apiError>>;

/** A message on the stream of events: a variant has a new revision, or the whole database is another one. */
export const noticeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('step'), variant: id, revision, client: z.string() }),
  z.strictObject({ kind: z.literal('designs') }),
  z.strictObject({ kind: z.literal('hello'), epoch: z.string() }),
  z.strictObject({ kind: z.literal('restored'), epoch: z.string() }),
]);
export type Notice = Readonly<z.infer<typeof noticeSchema>>;
