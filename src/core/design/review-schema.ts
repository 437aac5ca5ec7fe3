/** What a review needs of a design: what fails together, and findings that were accepted. */
import { z } from 'zod';
import { documentMessages as say } from '../messages';
import { TIERS, choice, id, name, saying } from './values';

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

/** Where a cable may end: one switch, those of a tier, or those of a group. */
const cablePlace = z.union(
  [z.strictObject({ switch: id }), z.strictObject({ tier: choice('Tier', TIERS) }), z.strictObject({ group: name })],
  { error: () => say.wrongType('{"switch": id}, {"tier": tier} or {"group": name}') },
);
/** Dearest cable that can be said. */
export const MOST_CABLE_COST = 10_000;

/**
 * What a new cable between two places costs, in any unit; absent: it cannot be laid. The row that says most of its places counts:
 * a switch before a group, a group before a tier; of equal ones the dearer. Where no row speaks of two switches a cable costs 1.
 */
export const cableCostSchema = z.strictObject({
  id,
  from: cablePlace,
  to: cablePlace,
  cost: z
    .number(saying(say.cableCost))
    .min(0, saying(say.cableCost))
    .max(MOST_CABLE_COST, saying(say.cableCost))
    .optional(),
});

export type CablePlace = z.infer<typeof cablePlace>;
export type CableCost = z.infer<typeof cableCostSchema>;
export type Risk = z.infer<typeof riskSchema>;
export type Acceptance = z.infer<typeof acceptanceSchema>;
