/** What travels between browser and server: the schemas of requests, and the types of answers. Both sides import this file. */
import { z } from 'zod';
import { editSchema, wording, NAME_LENGTH } from '../core/design';
import type { Design, Edit, History } from '../core/design';

const nameField = z
  .string({ error: (issue) => wording.name(issue.input) })
  .trim()
  .min(1, { error: (issue) => wording.name(issue.input) })
  .max(NAME_LENGTH, { error: (issue) => wording.name(issue.input) });

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

export interface VariantHead {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
}

export interface DesignHead {
  readonly id: string;
  readonly name: string;
  readonly changedAt: number;
  readonly variants: readonly VariantHead[];
}

/** What the list of designs shows of a document: counts, and a drawing small enough to send many of. */
export interface Summary {
  readonly switches: number;
  readonly links: number;
  readonly trees: number;
  /** Switch places, scaled to 0 … 100 across and 0 … 60 down; empty when nothing has a place. */
  readonly dots: readonly (readonly [x: number, y: number])[];
  /** Pairs of indices into `dots`. */
  readonly lines: readonly (readonly [from: number, to: number])[];
}

export interface DesignRow extends DesignHead, Summary {
  /** Why the first variant cannot be read; absent when it can. */
  readonly unreadable?: string;
}

export interface DeletedDesign {
  readonly id: string;
  readonly name: string;
  readonly deletedAt: number;
}

export interface LoadedVariant {
  readonly id: string;
  readonly designId: string;
  readonly name: string;
  readonly revision: number;
  readonly epoch: string;
  readonly design: Design;
  readonly history: History;
}

/** A step as other windows see it. */
export interface Step {
  readonly revision: number;
  readonly kind: 'edit' | 'undo' | 'redo';
  readonly target: number | null;
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly client: string;
  readonly key: string | null;
}

/** A step in the list of what happened. */
export interface PastStep {
  readonly revision: number;
  readonly kind: Step['kind'];
  readonly target: number | null;
  readonly label: string;
  readonly author: string;
  /** Milliseconds since 1970. */
  readonly madeAt: number;
  /** Name that the state after this step was given. */
  readonly name: string | null;
}

export interface Past {
  readonly steps: readonly PastStep[];
  /** Whether there are older ones. */
  readonly more: boolean;
  /** Names of all named states, newest first. */
  readonly named: readonly { readonly revision: number; readonly name: string }[];
}

/** Difference between two states, in words; at most `MOST_DIFFERENCES` lines. */
export interface StateDifference {
  readonly from: number;
  readonly to: number;
  readonly lines: readonly string[];
  readonly total: number;
}
export const MOST_DIFFERENCES = 500;

export interface ApiFault {
  readonly path: string;
  readonly sentence: string;
}

export interface ApiError {
  readonly code: string;
  readonly sentence: string;
  readonly faults: readonly ApiFault[];
  /** Steps that the sender did not know, with code `conflict`. */
  readonly steps?: readonly Step[];
  /** Id of the request, as it stands in the server's log. */
  readonly request?: string;
}

/** A message on the stream of events: a variant has a new revision, or the whole database is another one. */
export type Notice =
  | { readonly kind: 'step'; readonly variant: string; readonly revision: number; readonly client: string }
  | { readonly kind: 'designs' }
  | { readonly kind: 'hello' | 'restored'; readonly epoch: string };
