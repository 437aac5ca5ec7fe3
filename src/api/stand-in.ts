/** A design that runs as a network of agents: what the browser sends, and the lines that come back while it runs. */
import { z } from 'zod';
import { designDocument } from './contract';

/** Seconds of the network in one of ours. */
const speed = z
  .number()
  .positive({ error: () => 'The speed is above 0: 1 runs as a network does, 5 five times as fast.' })
  .max(100, { error: () => 'The speed is 100 at most.' });

export const standInRequest = z.strictObject({ design: designDocument, speed: speed.default(1) });

/** What happens by hand: a link or a switch, by its id. */
export const standInEvent = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.enum(['fail', 'restore']), link: z.string().min(1).max(120) }),
  z.strictObject({ kind: z.enum(['off', 'on']), switch: z.string().min(1).max(120) }),
]);
export type StandInEvent = z.infer<typeof standInEvent>;

export const standInSwitch = z.strictObject({ name: z.string(), address: z.string(), port: z.int() });

/** One line of the answer: once all agents answer, and then as long as they do. */
export const standInLine = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('ready'),
    id: z.string(),
    /** Which they answer by; made for this network, and gone with it. */
    community: z.string(),
    switches: z.array(standInSwitch),
  }),
  z.strictObject({ kind: z.literal('running') }),
  z.strictObject({ kind: z.literal('failed'), sentence: z.string() }),
]);
export type StandInLine = z.infer<typeof standInLine>;
