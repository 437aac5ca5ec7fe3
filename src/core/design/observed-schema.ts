/** The network as it was observed, all sources together: what devices report. Values stand as they were read, legal in a design or not. */
import { z } from 'zod';

const name = z.string().max(400);
const number = z.number();

export const CERTAINTIES = ['lldp', 'lacp', 'bpdu'] as const;
export const OBSERVED_ROLES = ['root', 'designated', 'alternate', 'backup', 'master', 'disabled'] as const;
export const OBSERVED_STATES = ['disabled', 'discarding', 'learning', 'forwarding'] as const;
export const QUESTION_KINDS = ['deviates', 'contradicts', 'inferred', 'incomplete'] as const;

const observedPort = z.strictObject({
  name,
  number: number.optional(),
  up: z.boolean().optional(),
  enabled: z.boolean().optional(),
  /** Mb/s. */
  speed: number.optional(),
  duplex: z.enum(['full', 'half']).optional(),
  edge: z.boolean().optional(),
  adminEdge: z.boolean().optional(),
  linkType: z.enum(['point-to-point', 'shared']).optional(),
  adminCost: number.optional(),
  /** VLANs that it carries, tagged and untagged together, and the untagged one. */
  vlans: z.string().optional(),
  native: number.nullable().optional(),
  lacpPriority: number.optional(),
  description: z.string().optional(),
  bpduGuard: z.boolean().optional(),
  rootGuard: z.boolean().optional(),
});

const observedSwitch = z.strictObject({
  name,
  mac: z.string().nullable(),
  /** Without the system id extension: in the first of its trees, and in each by its id. */
  priority: number.nullable(),
  priorities: z.record(z.string(), number),
  protocol: z.enum(['stp', 'rstp', 'mstp']).nullable(),
  perVlan: z.boolean().optional(),
  timers: z.strictObject({
    helloTime: number.optional(),
    maxAge: number.optional(),
    forwardDelay: number.optional(),
    ageingTime: number.optional(),
    holdCount: number.optional(),
  }),
  region: z
    .strictObject({
      name: z.string(),
      revision: number,
      digest: z.string().nullable(),
      map: z.record(z.string(), z.string()).nullable(),
    })
    .nullable(),
  maxHops: number.optional(),
  vlans: z.array(z.strictObject({ number, name: z.string().nullable() })),
  ports: z.array(observedPort),
  /** It tells of its neighbours by LLDP, so that one it does not tell of is not there. */
  hears: z.boolean().optional(),
  /** Names of the sources that told of it; empty where only neighbours know it. */
  source: z.array(name),
});

const end = z.strictObject({ switch: name, port: name });

const observedBundle = z.strictObject({
  switch: name,
  name,
  number: number.optional(),
  members: z.array(name),
  /** Members that carry frames. */
  active: z.array(name),
  mode: z.enum(['lacp', 'static']).nullable(),
  activity: z.enum(['active', 'passive']).optional(),
  timeout: z.enum(['short', 'long']).optional(),
  minActive: number.optional(),
  key: number.optional(),
  system: z.string().optional(),
  systemPriority: number.optional(),
  /** What is known of the far end. */
  partner: z
    .strictObject({
      switch: name.nullable(),
      name: name.nullable(),
      system: z.string().nullable(),
      key: number.nullable(),
    })
    .nullable(),
});

const observedTree = z.strictObject({
  id: z.string(),
  /** Name of the root, or its identifier where no device observed has it. */
  root: name.nullable(),
  ports: z.array(
    z.strictObject({
      switch: name,
      port: name,
      role: z.enum(OBSERVED_ROLES).nullable(),
      state: z.enum(OBSERVED_STATES).nullable(),
      cost: number.nullable(),
      priority: number.optional(),
    }),
  ),
});

const question = z.strictObject({
  kind: z.enum(QUESTION_KINDS),
  switch: name.nullable(),
  port: name.nullable(),
  text: z.string(),
});

export const observedNetworkSchema = z.strictObject({
  switches: z.array(observedSwitch),
  links: z.array(
    z.strictObject({
      a: end,
      b: end,
      certainty: z.enum(CERTAINTIES),
      /** The switch that reports neighbours, and not this one, which reports it. */
      silent: name.optional(),
    }),
  ),
  /** More than two ports on one LAN. */
  segments: z.array(z.strictObject({ ports: z.array(end), certainty: z.enum(CERTAINTIES) })),
  bundles: z.array(observedBundle),
  trees: z.array(observedTree),
  questions: z.array(question),
});

export type ObservedNetwork = z.infer<typeof observedNetworkSchema>;
export type ObservedSwitch = ObservedNetwork['switches'][number];
export type ObservedEnd = z.infer<typeof end>;
export type ObservedQuestion = z.infer<typeof question>;
export type Certainty = (typeof CERTAINTIES)[number];
