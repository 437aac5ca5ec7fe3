/** What a review needs of a design: what fails together, and findings that were accepted. */
import { z } from 'zod';
import { documentMessages as say } from '../messages';
import { id, name, saying } from './values';

/** Things that one cause takes out together: a duct, a rack, a power feed. What is gone is kept and passed over. */
export const riskSchema = z.strictObject({
  id,
  name,
  links: z.array(id).default([]),
  switches: z.array(id).default([]),
});

/** A finding that is accepted for a reason, as long as what it is about stays as it is. */
export const acceptanceSchema = z.strictObject({
  id,
  /** Code of the finding. */
  code: id,
  /** Ids of what it is about, in the order of the finding. */
  subjects: z.array(z.string()),
  /** Fingerprint of what the finding said: it comes back when that changes. */
  said: z.string(),
  reason: z
    .string()
    .trim()
    .min(
      1,
      saying(() => say.acceptanceReason()),
    )
    .max(
      400,
      saying((value) => say.tooLong('The reason', String(value).length, 400)),
    ),
});

export type Risk = z.infer<typeof riskSchema>;
export type Acceptance = z.infer<typeof acceptanceSchema>;
