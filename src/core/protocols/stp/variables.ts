/** Variables of a bridge of classic spanning tree (802.1D-1998 clause 8.5). */
import type { HeldVector } from '../../standard';

export type StpState = 'disabled' | 'blocking' | 'listening' | 'learning' | 'forwarding';

export interface StpPortSettings {
  readonly number: number;
  readonly portId: number;
  readonly pathCost: number;
  /** Skips listening and learning, and is no topology change: for end devices. */
  readonly edge: boolean;
  /** Holds the port back when messages stop coming, instead of letting it become designated. */
  readonly loopGuard?: boolean;
  readonly tcGuard?: boolean;
  /** Blocks the port while it receives superior BPDUs. */
  readonly rootGuard?: boolean;
}

export interface StpSettings {
  readonly mac: number;
  readonly priority: number;
  /** Seconds. */
  readonly helloTime: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  /** Adds 1/256 s to the age of a message in place of a second. */
  readonly finelyAged?: boolean;
}

export interface StpPort {
  readonly number: number;
  portId: number;
  pathCost: number;
  edge: boolean;
  loopGuard: boolean;
  /** Topology changes from the port go no further. */
  tcGuard: boolean;
  rootGuard: boolean;
  /** Held by a guard: by the loop guard until it hears again, by the root guard while the claim lasts. */
  held: boolean;
  state: StpState;
  role: 'disabled' | 'root' | 'designated' | 'blocked';
  designatedRootPriority: number;
  designatedRootMac: number;
  designatedCost: number;
  designatedBridgePriority: number;
  designatedBridgeMac: number;
  designatedPort: number;
  topologyChangeAcknowledge: boolean;
  configPending: boolean;
  /** Moments in microseconds; null while a timer does not run. */
  messageAgeTimer: number | null;
  /** Age of the message when it came, in seconds, and when that was. */
  messageAge: number;
  messageAt: number;
  forwardDelayTimer: number | null;
  holdTimer: number | null;
}

export type StpEffect =
  | { readonly kind: 'send'; readonly port: number; readonly octets: Uint8Array }
  | { readonly kind: 'state'; readonly port: number; readonly tree: 0 }
  /** MAC tables age in the forward delay while a topology change is signalled, else in their own time. */
  | { readonly kind: 'ageing'; readonly short: boolean }
  | {
      readonly kind: 'heard';
      readonly port: number;
      readonly tree: 0;
      readonly info: StpHeard;
      /** What the port held until then; null where the BPDU says the same again or is none about a root. */
      readonly held: HeldVector | null;
    };
export type StpHeard = 'better' | 'repeated' | 'answered' | 'ignored' | 'notification';

export interface StpBridge {
  settings: StpSettings;
  readonly ports: StpPort[];
  readonly byNumber: (StpPort | undefined)[];
  readonly effects: StpEffect[];
  designatedRootPriority: number;
  designatedRootMac: number;
  rootPathCost: number;
  rootPort: StpPort | null;
  maxAge: number;
  helloTime: number;
  forwardDelay: number;
  topologyChangeDetected: boolean;
  topologyChange: boolean;
  helloTimer: number | null;
  tcnTimer: number | null;
  topologyChangeTimer: number | null;
  /** Set from outside before every call. */
  now: number;
}
