/** What is worked out of whole designs on request, as the command line prints it. */
import { z } from 'zod';
import { designDocument } from './contract';

const place = z.string().min(1).max(200);

/** The answer is JSON a line then: how far it is, what is found as it is found, and the whole at the end. */
const progress = z.boolean().default(false);

export const reviewRequest = z.strictObject({
  design: designDocument,
  /** Failures of two at a time as well. */
  pairs: z.boolean().default(false),
  /** Which outages are rehearsed. */
  measure: z.enum(['worst', 'all', 'none']).default('worst'),
  progress,
});

export const planRequest = z.strictObject({
  from: designDocument,
  to: designDocument,
  /** Two hosts of one VLAN each, by name or id, that should keep contact. */
  watch: z
    .array(z.tuple([place, place]))
    .max(200)
    .optional(),
  /** Host or switch that the engineer works from; otherwise the workplace of the design. */
  at: place.optional(),
  temporary: z.boolean().default(true),
  /** How long orders are compared. */
  seconds: z.number().min(0).max(600).default(20),
  progress,
});

/** JSON as the command line prints it: docs/command-line.md. */
export const reviewAnswer = z.looseObject({
  findings: z.array(z.looseObject({ code: z.string(), severity: z.string(), sentence: z.string() })),
  failures: z.array(z.looseObject({})),
});
export const planAnswer = z.looseObject({
  steps: z.array(z.looseObject({ device: z.string(), kind: z.string() })),
  worstOutage: z.number().nullable(),
  exact: z.boolean(),
});
