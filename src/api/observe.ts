/** Reading a network by SNMP: what the browser sends, and the lines that come back while it goes on. */
import { z } from 'zod';
import type { Observation } from '../core/observe';

const secret = z.string().min(1).max(200);
const keyed = z
  .string()
  .min(8, { error: () => 'A key has at least eight characters.' })
  .max(200);

export const snmpCredentials = z.discriminatedUnion('version', [
  z.strictObject({ version: z.literal('2c'), community: secret }),
  z.strictObject({
    version: z.literal('3'),
    user: z.string().min(1).max(64),
    authProtocol: z.enum(['md5', 'sha', 'sha224', 'sha256', 'sha384', 'sha512']).optional(),
    authKey: keyed.optional(),
    privProtocol: z.enum(['des', 'aes', 'aes256']).optional(),
    privKey: keyed.optional(),
  }),
]);
export type SnmpCredentials = z.infer<typeof snmpCredentials>;

/** How far a discovery goes, and how gently. */
export const snmpFence = z.strictObject({
  /** Whether neighbours are asked too. */
  follow: z.boolean().default(true),
  /** Networks that may be asked, as `192.0.2.0/24`; empty for the 256 addresses around each that is given. */
  networks: z
    .array(z.string().regex(/^\d{1,3}(\.\d{1,3}){3}(\/([0-9]|[12][0-9]|3[0-2]))?$/))
    .max(50)
    .default([]),
  /** Hops from the addresses that are given. */
  depth: z.int().min(0).max(64).default(16),
  most: z.int().min(1).max(2000).default(500),
  atOnce: z.int().min(1).max(50).default(10),
  /** Milliseconds between two requests to one device, and until one is sent again. */
  pause: z.int().min(0).max(5000).default(0),
  timeout: z.int().min(100).max(30_000).default(2000),
  retries: z.int().min(0).max(5).default(1),
});
export type SnmpFence = z.infer<typeof snmpFence>;

export const discoverRequest = z.strictObject({
  addresses: z.array(z.string().max(64)).min(1).max(500),
  credentials: snmpCredentials,
  fence: snmpFence,
});

export interface ObserveProgress {
  /** Devices that were asked, and that are known of. */
  readonly done: number;
  readonly known: number;
  /** Address that is being asked. */
  readonly address: string | null;
}

/** One line of the answer: how far it is, then what was read. */
export const discoverLine = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('progress'), done: z.int(), known: z.int(), address: z.string().nullable() }),
  z.strictObject({
    kind: z.literal('read'),
    observations: z.array(z.custom<Observation>((v) => typeof v === 'object' && v !== null)),
    faults: z.array(z.string()),
  }),
]);
export type DiscoverLine = z.infer<typeof discoverLine>;
