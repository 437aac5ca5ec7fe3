/** Variables of a rapid or multiple spanning tree bridge, named as in 802.1Q-2018 clauses 13.23 to 13.27. */
import type { Bpdu, MstiPart } from '../../frames';
import type { Times, Vector } from './vectors';

export type MachineRole = 'Disabled' | 'Root' | 'Designated' | 'Alternate' | 'Backup' | 'Master';
export type InfoIs = 'Disabled' | 'Aged' | 'Mine' | 'Received';
export type RcvdInfo =
  'SuperiorDesignated' | 'RepeatedDesignated' | 'InferiorDesignated' | 'InferiorRootAlternate' | 'Other';

/** Variables of one tree at one port. */
export interface TreePort {
  readonly port: Port;
  /** Index of the tree: 0 is the CIST. */
  readonly tree: number;
  portId: number;
  externalPathCost: number;
  internalPathCost: number;
  role: MachineRole;
  selectedRole: MachineRole;
  learn: boolean;
  learning: boolean;
  forward: boolean;
  forwarding: boolean;
  agree: boolean;
  agreed: boolean;
  proposed: boolean;
  proposing: boolean;
  sync: boolean;
  synced: boolean;
  reRoot: boolean;
  reselect: boolean;
  selected: boolean;
  updtInfo: boolean;
  disputed: boolean;
  master: boolean;
  mastered: boolean;
  infoIs: InfoIs;
  rcvdInfo: RcvdInfo;
  rcvdMsg: boolean;
  rcvdTc: boolean;
  tcProp: boolean;
  fdbFlush: boolean;
  msgPriority: Vector;
  msgTimes: Times;
  portPriority: Vector;
  portTimes: Times;
  designatedPriority: Vector;
  designatedTimes: Times;
  /** Instance part of the BPDU being taken in; null for the CIST. */
  msti: MstiPart | null;
  /** Seconds. */
  fdWhile: number;
  rrWhile: number;
  rbWhile: number;
  rcvdInfoWhile: number;
  tcWhile: number;
  /** States of the machines. */
  pim: 'DISABLED' | 'AGED' | 'UPDATE' | 'CURRENT';
  prt: 'DISABLED' | 'BLOCK' | 'ACTIVE';
  pst: 'DISCARDING' | 'LEARNING' | 'FORWARDING';
  tcm: 'INACTIVE' | 'LEARNING' | 'ACTIVE';
}

/** Variables that all trees of a port share. */
export interface Port {
  readonly number: number;
  portEnabled: boolean;
  operPointToPointMAC: boolean;
  adminEdge: boolean;
  autoEdge: boolean;
  operEdge: boolean;
  restrictedRole: boolean;
  restrictedTcn: boolean;
  /** Holds the port back instead of letting what it heard age out into a designated role: loop guard. */
  loopGuard: boolean;
  loopInconsistent: boolean;
  enableBPDUrx: boolean;
  enableBPDUtx: boolean;
  mcheck: boolean;
  sendRSTP: boolean;
  rcvdBpdu: boolean;
  rcvdRSTP: boolean;
  rcvdSTP: boolean;
  rcvdTcn: boolean;
  rcvdTcAck: boolean;
  tcAck: boolean;
  rcvdInternal: boolean;
  infoInternal: boolean;
  newInfo: boolean;
  newInfoMsti: boolean;
  bpdu: Bpdu | null;
  /** Seconds. */
  helloWhen: number;
  mdelayWhile: number;
  edgeDelayWhile: number;
  txCount: number;
  ppm: 'CHECKING_RSTP' | 'SELECTING_STP' | 'SENSING';
  bdm: 'EDGE' | 'NOT_EDGE';
  readonly trees: TreePort[];
  /** Where it stands among the ports of its bridge. */
  readonly index: number;
  /** The BPDU that was heard last, where it moved nothing but timers. */
  heardBefore: Repeated | null;
  /** The BPDU that was sent last. */
  sentBefore: Said | null;
}

/** A BPDU that says nothing new as long as nothing else of the bridge moves. */
export interface Repeated {
  readonly octets: Uint8Array;
  /** `moves` of the bridge when it was heard. */
  readonly moves: number;
  /** What each tree made of it. */
  readonly effects: readonly BridgeEffect[];
}

/** A BPDU as it was sent, good for as long as nothing that it tells has moved. */
export interface Said {
  readonly octets: Uint8Array;
  readonly moves: number;
}

export interface BridgeTree {
  /** MSTID; 0 for the CIST. */
  readonly instance: number;
  bridgePriority: number;
  rootPort: TreePort | null;
  rootPriority: Vector;
  rootTimes: Times;
  /** Its roles are to be selected anew. */
  asked: boolean;
  /** Ports whose roles wait for what others do: all but designated and disabled ones. */
  followers: TreePort[];
}

export interface PortSettings {
  readonly number: number;
  readonly pointToPoint: boolean;
  readonly edge: boolean;
  readonly autoEdge: boolean;
  readonly restrictedRole?: boolean;
  readonly restrictedTcn?: boolean;
  readonly loopGuard?: boolean;
  /** By index of the tree. */
  readonly portId: readonly number[];
  readonly externalCost: number;
  readonly internalCost: readonly number[];
}

export interface BridgeTimers {
  /** Seconds. */
  readonly helloTime: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  readonly holdCount: number;
  readonly maxHops: number;
}

export interface BridgeSettings {
  readonly mac: number;
  /** 2: rapid, 3: multiple instances. */
  readonly version: 2 | 3;
  /** Of each tree, extension included; the first is the CIST. */
  readonly trees: readonly { readonly instance: number; readonly priority: number }[];
  /** The 51 octets that tell a region; null below version 3. */
  readonly configuration: Uint8Array | null;
  readonly timers: BridgeTimers;
}

export const MIGRATE_TIME = 3;
export const NO_VECTOR: Vector = {
  rootPriority: 0xffff,
  rootMac: 0xffffffffffff,
  externalCost: 0,
  regionalPriority: 0xffff,
  regionalMac: 0xffffffffffff,
  internalCost: 0,
  bridgePriority: 0xffff,
  bridgeMac: 0xffffffffffff,
  port: 0xffff,
};

/** What a bridge tells the network around it. */
export type BridgeEffect =
  | { readonly kind: 'send'; readonly port: number; readonly octets: Uint8Array }
  | { readonly kind: 'state'; readonly port: number; readonly tree: number }
  | { readonly kind: 'flush'; readonly port: number; readonly tree: number }
  | { readonly kind: 'heard'; readonly port: number; readonly tree: number; readonly info: RcvdInfo };

/** A bridge with everything that its machines work on. */
export interface MstBridge {
  settings: BridgeSettings;
  readonly trees: BridgeTree[];
  readonly ports: Port[];
  readonly byNumber: (Port | undefined)[];
  readonly effects: BridgeEffect[];
  /** Whether something that a port's machines look at may have moved since they ran, by index of the port. */
  awake: boolean[];
  anyAwake: boolean;
  /** Those whose turn it is, and all that had one, while the machines run. */
  turn: boolean[];
  readonly touched: boolean[];
  /** Counts every transition, and every setting, after which more than timers may differ. */
  moves: number;
}
