/** What requests may say. */
import { z } from 'zod';
import { editSchema, wording, NAME_LENGTH } from '../core/design';

const nameField = z
  .string({ error: (issue) => wording.name(issue.input) })
  .trim()
  .min(1, { error: (issue) => wording.name(issue.input) })
  .max(NAME_LENGTH, { error: (issue) => wording.name(issue.input) });

const client = z.string().max(64);
const revision = z.int().min(0);
const source = z.strictObject({ file: z.string().max(300), text: z.string() });

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
  from: z.string(),
  name: nameField.optional(),
  design: z.unknown().optional(),
});
export const stepRequest = z.strictObject({
  revision,
  label: z.string().max(300),
  edits: z.array(editSchema).min(1).max(50_000),
  client,
});
export const undoRequest = z.strictObject({ revision, client });
