/** What was observed: what one source says of one device. Readers make these, `unite` makes one network of them. */
import type { Certainty } from '../design';
import type { BridgeId } from '../standard';

export const SOURCE_KINDS = ['snmp', 'linux', 'lldp', 'capture', 'openconfig', 'topology'] as const;

export interface Source {
  readonly kind: (typeof SOURCE_KINDS)[number];
  /** File, folder or address. */
  readonly name: string;
  /** When it was read, or when the file says that it was written; ISO 8601, null for not known. */
  readonly at: string | null;
}

export type ObservedRole = 'root' | 'designated' | 'alternate' | 'backup' | 'master' | 'disabled';
export type ObservedState = 'disabled' | 'discarding' | 'learning' | 'forwarding';
export type ObservedProtocol = 'stp' | 'rstp' | 'mstp';

/** Seconds. */
export interface ObservedTimers {
  readonly helloTime?: number;
  readonly maxAge?: number;
  readonly forwardDelay?: number;
  readonly ageingTime?: number;
  /** BPDUs in a second. */
  readonly holdCount?: number;
}

export interface ObservedRegion {
  readonly name: string;
  readonly revision: number;
  /** 32 hex digits; null where it is not told. */
  readonly digest: string | null;
  /** VLANs of each instance by MSTID, as `10,20-29`; null where it is not told. */
  readonly map: Readonly<Record<string, string>> | null;
}

/** An interface that is or can be a bridge port; a bundle as a whole is one too. */
export interface ObservedPort {
  /** `#12` where only its number is known. */
  readonly name: string;
  /** Port number of the bridge, which is no interface index. */
  readonly number?: number;
  readonly mac?: string;
  readonly up?: boolean;
  readonly enabled?: boolean;
  /** Mb/s. */
  readonly speed?: number;
  readonly duplex?: 'full' | 'half';
  /** As set, and as it is. */
  readonly adminEdge?: boolean;
  readonly edge?: boolean;
  readonly linkType?: 'point-to-point' | 'shared';
  /** Path cost as set; 0 for by speed. */
  readonly adminCost?: number;
  /** VLANs, tagged and untagged together, as `1,10-19`; and the one that travels untagged, null for none. */
  readonly vlans?: string;
  readonly native?: number | null;
  readonly lacpPriority?: number;
  readonly description?: string;
  readonly bpduGuard?: boolean;
  readonly rootGuard?: boolean;
}

export interface ObservedMember {
  readonly port: string;
  readonly number?: number;
  readonly priority?: number;
  /** Carries frames for the bundle. */
  readonly active?: boolean;
  readonly partner?: LacpParty | null;
  /** State octets of both. */
  readonly actorState?: number;
  readonly partnerState?: number;
}

export interface LacpParty {
  readonly systemPriority: number;
  readonly system: string;
  readonly key: number;
  readonly port: number;
}

export interface ObservedAggregate {
  readonly name: string;
  readonly mode: 'lacp' | 'static' | null;
  readonly activity?: 'active' | 'passive';
  readonly timeout?: 'short' | 'long';
  readonly key?: number;
  readonly system?: string;
  readonly systemPriority?: number;
  readonly minActive?: number;
  readonly members: readonly ObservedMember[];
}

export interface ObservedTreePort {
  readonly port: string;
  readonly role: ObservedRole | null;
  readonly state: ObservedState | null;
  /** In force, received here. */
  readonly cost?: number;
  readonly priority?: number;
  readonly designated?: { readonly bridge: BridgeId; readonly port: number };
}

export interface ObservedTree {
  /** `vlan-10`, `msti-2`, `cist`; `single` for the one tree of all VLANs. */
  readonly id: string;
  readonly bridge: BridgeId;
  readonly root: BridgeId | null;
  readonly rootCost?: number;
  readonly rootPort?: string | null;
  readonly ports: readonly ObservedTreePort[];
}

/** What was heard at a port of a neighbour. */
export interface ObservedNeighbour {
  readonly port: string;
  /** By what it was heard. */
  readonly by: Certainty;
  readonly name: string | null;
  /** Chassis identifier as an address, where it is one. */
  readonly mac: string | null;
  /** Port as the neighbour calls it, its description, and its address where the identifier is one. */
  readonly farPort: string | null;
  readonly farDescription: string | null;
  readonly farMac: string | null;
  readonly bridge: boolean | null;
  /** Management addresses. */
  readonly management: readonly string[];
}

export interface LearnedAddress {
  readonly mac: string;
  readonly port: string;
  readonly vlan: number | null;
}

export interface Observation {
  readonly source: Source;
  /** Name of the device: its folder's or file's, or what it says of itself. */
  readonly name: string | null;
  /** Address of its bridge. */
  readonly mac: string | null;
  /** Other addresses that are its own. */
  readonly addresses: readonly string[];
  readonly protocol: ObservedProtocol | null;
  readonly timers: ObservedTimers;
  readonly region: ObservedRegion | null;
  readonly maxHops: number | null;
  readonly vlans: readonly { readonly number: number; readonly name: string | null }[];
  readonly ports: readonly ObservedPort[];
  readonly aggregates: readonly ObservedAggregate[];
  readonly trees: readonly ObservedTree[];
  readonly neighbours: readonly ObservedNeighbour[];
  readonly learned: readonly LearnedAddress[];
  /** What could not be read of it, each a sentence. */
  readonly unread: readonly string[];
}

/** An observation that says nothing yet. */
export const nothingOf = (source: Source): Observation => ({
  source,
  name: null,
  mac: null,
  addresses: [],
  protocol: null,
  timers: {},
  region: null,
  maxHops: null,
  vlans: [],
  ports: [],
  aggregates: [],
  trees: [],
  neighbours: [],
  learned: [],
  unread: [],
});

/** Fields that are known; what is undefined is left out, so that one source never hides what another one says. */
export const known = <T extends object>(of: { [K in keyof T]: T[K] | undefined }): T =>
  Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined)) as T;
