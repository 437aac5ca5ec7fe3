/** What was read of the network that is there, kept with the design that it is held against. */
import { z } from 'zod';
import { documentMessages as say } from '../messages';
import { id, saying } from './values';

/** Most characters of a packed network: what a request may carry leaves room for it. */
export const READING_LENGTH = 6_000_000;

/** One reading: when it ended, and the observed network as JSON, compressed (gzip) and written in base64. The first counts. */
export const readingSchema = z.strictObject({
  id,
  at: z.iso.datetime(saying(say.time)),
  packed: z.base64(saying(say.packed)).max(
    READING_LENGTH,
    saying((value) => say.tooLong('A reading', String(value).length, READING_LENGTH)),
  ),
});

export type KeptReading = z.infer<typeof readingSchema>;
