/** What a design asks of its trees: goals, and the traffic that they carry. */
import { z } from 'zod';
import { id, vlanSet, whole, choice, vlanNumber, saying } from './values';
import { documentMessages as say } from '../messages';
import { TIERS } from './values';

/** Of whom a goal asks that they stay connected. */
export const AMONG = ['switches', 'hosts'] as const;

const place = z.union([z.strictObject({ switch: id }), z.strictObject({ host: id })], {
  error: () => say.wrongType('{"switch": id} or {"host": id}'),
});

/** VLANs that a goal speaks of; the trees meant are those that carry them. */
const goalBase = { id, vlans: vlanSet };

/** What the engineer wants. References may lead nowhere: the goal is then void, and kept. */
export const goalSchema = z.discriminatedUnion('type', [
  /** `switch` is root, and `next` takes over when it goes. */
  z.strictObject({ ...goalBase, type: z.literal('root'), switch: id, next: id.optional() }),
  /** This port or bundle is a cut end. */
  z.strictObject({ ...goalBase, type: z.literal('cut'), port: id }),
  /** The link or bundle at this port carries the VLANs; `only`: and no others while nothing has failed. */
  z.strictObject({ ...goalBase, type: z.literal('carries'), port: id, only: z.boolean().optional() }),
  /** Two places talk over at most so many switch-to-switch hops, or not through a switch. */
  z.strictObject({
    ...goalBase,
    type: z.literal('path'),
    from: place,
    to: place,
    atMost: whole(0, 64, say.hops).optional(),
    avoid: id.optional(),
  }),
  /** No switch of the tier has a better bridge identifier than any switch outside it. */
  z.strictObject({ ...goalBase, type: z.literal('never-root'), tier: choice('Tier', TIERS) }),
  /** No link carries more than so much of its rate, one way. */
  z.strictObject({ ...goalBase, type: z.literal('load'), percent: whole(1, 1000, say.percent) }),
  /** After any single failure: all switches that carry the VLANs, all their hosts, or two places, are still connected in each. */
  z.strictObject({
    ...goalBase,
    type: z.literal('stays-connected'),
    among: z.union([choice('Among', AMONG), z.strictObject({ from: place, to: place })]),
  }),
  /** No single failure interrupts for longer than so many seconds; one that separates does for ever. */
  z.strictObject({
    ...goalBase,
    type: z.literal('outage'),
    atMost: z.number(saying(say.outage)).min(0, saying(say.outage)).max(3600, saying(say.outage)),
  }),
  /** No link carries more than so much of its rate, one way, with any single failure. */
  z.strictObject({ ...goalBase, type: z.literal('load-left'), percent: whole(1, 1000, say.percent) }),
]);

/** Traffic offered in a VLAN from one place to another, one way. */
export const demandSchema = z.strictObject({
  id,
  vlan: vlanNumber,
  from: place,
  to: place,
  /** Mb/s. */
  load: z.number(saying(say.load)).min(0, saying(say.load)).max(1_000_000, saying(say.load)),
});

export type Goal = z.infer<typeof goalSchema>;

/** Goals that speak of what is left after a failure. */
export type AvailabilityGoal = Extract<Goal, { type: 'stays-connected' | 'outage' | 'load-left' }>;
/** Goals that speak of the network as it is. */
export type PresentGoal = Exclude<Goal, AvailabilityGoal>;

export const isAvailability = (goal: Goal): goal is AvailabilityGoal =>
  goal.type === 'stays-connected' || goal.type === 'outage' || goal.type === 'load-left';

export type Demand = z.infer<typeof demandSchema>;

export type PlaceRef = z.infer<typeof place>;
