/** Scripts of rehearsals: what happens to the network, and when. References may lead nowhere: the event is then void. */
import { z } from 'zod';
import { BRIDGE_PRIORITY } from '../standard';
import { SCRIPT_EDIT_LIMITS, limitedJson } from './json-limits';
import { choice, id, name, saying, stepped, vlanNumber, whole } from './values';
import { documentMessages as say } from '../messages';

/** Frames that one direction of a link can lose: BPDUs alone, LACPDUs as well, everything, or data alone. */
export const LOST_FRAMES = ['bpdus', 'control', 'all', 'data'] as const;
export type LostFrames = (typeof LOST_FRAMES)[number];

/** Longest rehearsal, in seconds. */
export const LONGEST_REHEARSAL = 36_000;

const seconds = z.number(saying(say.seconds)).min(0, saying(say.seconds)).max(LONGEST_REHEARSAL, saying(say.seconds));
const base = { id, at: seconds };
const side = z.enum(['a', 'b']);

export const eventSchema = z.discriminatedUnion('kind', [
  /** A cable fails; with `end`, that end alone loses its light and the far end sees nothing. */
  z.strictObject({ ...base, kind: z.literal('link-down'), link: id, end: side.optional() }),
  z.strictObject({ ...base, kind: z.literal('link-up'), link: id }),
  /** Down and up again, so often, so many seconds each. */
  z.strictObject({
    ...base,
    kind: z.literal('flap'),
    link: id,
    times: whole(1, 1000, say.times),
    every: z.number(saying(say.flapSeconds)).min(0.001, saying(say.flapSeconds)).max(3600, saying(say.flapSeconds)),
  }),
  z.strictObject({ ...base, kind: z.literal('switch-off'), switch: id }),
  z.strictObject({ ...base, kind: z.literal('switch-on'), switch: id }),
  /** The switch that is root of the VLAN's tree at that moment goes off. */
  z.strictObject({ ...base, kind: z.literal('root-off'), vlan: vlanNumber }),
  /** Edits of the design, as they are stored. */
  z.strictObject({ ...base, kind: z.literal('set'), edits: z.array(limitedJson(SCRIPT_EDIT_LIMITS)), label: name }),
  z.strictObject({ ...base, kind: z.literal('cable'), a: id, b: id }),
  /** A hub with a cable from itself to itself, plugged into a port: what leaves the port comes back to it. */
  z.strictObject({ ...base, kind: z.literal('hub-loop'), port: id }),
  /** A device that claims to be root, plugged into a port. */
  z.strictObject({
    ...base,
    kind: z.literal('intruder'),
    port: id,
    priority: stepped(BRIDGE_PRIORITY, say.bridgePriority),
  }),
  /** Whatever was plugged into a port is taken out. */
  z.strictObject({ ...base, kind: z.literal('unplug'), port: id }),
  /** Frames that leave this end of a link are lost, all others pass: BPDUs alone where `frames` is absent. */
  z.strictObject({
    ...base,
    kind: z.literal('bpdu-loss'),
    link: id,
    from: side,
    frames: choice('Lost frames', LOST_FRAMES).optional(),
  }),
  z.strictObject({ ...base, kind: z.literal('bpdu-heal'), link: id }),
  /** A rapid switch speaks the rapid protocol at a port again and looks whom it meets there (mcheck). */
  z.strictObject({ ...base, kind: z.literal('migration-check'), port: id }),
  /** Spanning tree is switched off: all ports forward, and BPDUs pass as data. */
  z.strictObject({ ...base, kind: z.literal('tree-off'), switch: id }),
]);
export type ScriptEvent = z.infer<typeof eventSchema>;

/** Longest interval at which a host of a pair may speak, in seconds. */
const LONGEST_SILENCE = 86_400;
/** Two hosts that should keep talking, in a VLAN. */
const probe = z.strictObject({
  from: id,
  to: id,
  vlan: vlanNumber,
  /**
   * How often `to` sends anything, in seconds, while `from` sends all the time; absent: all the time. Meanwhile its
   * address ages, and frames for it are flooded where it is forgotten.
   */
  answersEvery: z
    .union([z.literal('never'), z.number().min(0.1).max(LONGEST_SILENCE)], saying(say.answersEvery))
    .optional(),
});

export const scriptSchema = z.strictObject({
  id,
  name,
  /** Seconds that are rehearsed. */
  until: seconds,
  events: z.array(eventSchema),
  /** Absent: every pair of hosts in one VLAN, up to a limit. */
  probes: z.array(probe).optional(),
  /** Chooses when each switch says hello within its interval; absent: 1. */
  seed: whole(0, 1_000_000, say.seed).optional(),
  /** Microseconds that a frame takes over a link, and a switch to make something of it; absent: 5 and 500. */
  linkDelay: whole(0, 1_000_000, say.micros).optional(),
  processingDelay: whole(0, 1_000_000, say.micros).optional(),
  /** Milliseconds within which the switches begin to count their seconds, by chance; 0: all at once. Absent: the longest hello time. */
  helloSpread: whole(0, 10_000, say.helloSpread).optional(),
});
export type Script = z.infer<typeof scriptSchema>;
export type Probe = z.infer<typeof probe>;
