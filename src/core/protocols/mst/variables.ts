/** Variables of a rapid or multiple spanning tree bridge, named as in 802.1Q-2018 clauses 13.23 to 13.27. */
import type { Bpdu } from '../frames';
import type { PortSet } from './port-set';
import type { BridgeSettings } from './settings';

import { HELD, NEWS, PortTimers, TreeTimers } from './timers';
import type { TimerBank } from './timers';
import type { Times } from '../times';
import type { HeldVector, Vector } from '../../standard';
import { MIGRATE_TIME } from '../../standard';

export type MachineRole = 'Disabled' | 'Root' | 'Designated' | 'Alternate' | 'Backup' | 'Master';
export type InfoIs = 'Disabled' | 'Aged' | 'Mine' | 'Received';
export type RcvdInfo =
  'SuperiorDesignated' | 'RepeatedDesignated' | 'InferiorDesignated' | 'InferiorRootAlternate' | 'Other';

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

/** Which timers a role starts again at once while it lasts. */
const HELD_BY: Record<MachineRole, number> = {
  Disabled: HELD.none,
  Root: HELD.rrWhile,
  Designated: HELD.none,
  Alternate: HELD.fdWhile,
  Backup: HELD.fdWhile | HELD.rbWhile,
  Master: HELD.none,
};

/** What a tree begins with at a port. */
export interface TreeStart {
  readonly portId: number;
  readonly externalPathCost: number;
  readonly internalPathCost: number;
  /** What the bridge would say if it were root. */
  readonly own: Vector;
  readonly times: Times;
}

/** Variables of one tree at one port; those that begin otherwise than as false as INIT_PORT leaves them. */
export class TreePort extends TreeTimers {
  // What every BPDU looks at stands together, so that it is fetched together.
  private taken: MachineRole = 'Disabled';
  infoIs: InfoIs = 'Disabled';
  rcvdInfo: RcvdInfo = 'Other';
  rcvdMsg = false;
  selected = false;
  updtInfo = false;
  reselect = true;
  selectedRole: MachineRole = 'Disabled';
  portPriority: Vector = NO_VECTOR;
  portTimes: Times;
  msgPriority: Vector = NO_VECTOR;
  msgTimes: Times;
  /** Flags of the message: those of the BPDU, or of its part for the instance. */
  msgFlags = 0;
  designatedPriority: Vector;
  designatedTimes: Times;
  agree = false;
  agreed = false;
  proposed = false;
  proposing = false;
  sync = true;
  synced = false;
  reRoot = true;
  disputed = false;
  learn = false;
  learning = false;
  forward = false;
  forwarding = false;
  rcvdTc = false;
  tcProp = false;
  master = false;
  mastered = false;
  /** States of the machines. */
  pim: 'DISABLED' | 'AGED' | 'UPDATE' | 'CURRENT' = 'DISABLED';
  prt: 'DISABLED' | 'BLOCK' | 'ACTIVE' = 'BLOCK';
  pst: 'DISCARDING' | 'LEARNING' | 'FORWARDING' = 'DISCARDING';
  tcm: 'INACTIVE' | 'LEARNING' | 'ACTIVE' = 'INACTIVE';
  portId: number;
  externalPathCost: number;
  internalPathCost: number;

  /** `tree`: index of the tree, 0 for the CIST. */
  constructor(
    timers: TimerBank,
    readonly port: Port,
    readonly tree: number,
    start: TreeStart,
  ) {
    super(timers, port.index, tree);
    this.portId = start.portId;
    this.externalPathCost = start.externalPathCost;
    this.internalPathCost = start.internalPathCost;
    this.designatedPriority = start.own;
    this.portTimes = this.msgTimes = this.designatedTimes = start.times;
    this.fdWhile = start.times.maxAge;
    this.rrWhile = start.times.forwardDelay;
  }

  get role(): MachineRole {
    return this.taken;
  }
  set role(role: MachineRole) {
    this.taken = role;
    this.held = HELD_BY[role];
  }
}

/** Variables that all trees of a port share. */
export class Port extends PortTimers {
  operPointToPointMAC = true;
  adminEdge = false;
  autoEdge = false;
  operEdge = false;
  restrictedRole = false;
  restrictedTcn = false;
  /** Holds the port back instead of letting what it heard age out into a designated role: loop guard. */
  loopGuard = false;
  loopInconsistent = false;
  /** Speaks in every role, and is held back while it hears nothing, on a point-to-point link. */
  silenceGuard = false;
  /** Seconds between its hellos; null: as the root says. */
  ownHello: number | null = null;
  /** Held by its switch for a reason outside of spanning tree: no frame passes, and what it says does not claim that one does. */
  heldBack = false;
  enableBPDUrx = true;
  enableBPDUtx = true;
  mcheck = false;
  sendRSTP = true;
  rcvdRSTP = false;
  rcvdSTP = false;
  rcvdTcn = false;
  rcvdTcAck = false;
  tcAck = false;
  rcvdInternal = false;
  infoInternal = false;
  /** The BPDU that came last was from outside the region: instances go with the CIST there. */
  atBorder = false;
  /** The BPDU being processed, and its octets. */
  bpdu: Bpdu | null = null;
  octets: Uint8Array | null = null;
  ppm: 'CHECKING_RSTP' | 'SELECTING_STP' | 'SENSING' = 'CHECKING_RSTP';
  bdm: 'EDGE' | 'NOT_EDGE' = 'NOT_EDGE';
  readonly trees: TreePort[] = [];
  /** Counts every transition. */
  moves = 0;
  /** The BPDU that was sent last, and the one before it: a topology change is signalled for a while, and then no more. */
  sentBefore: Said | null = null;
  sentEarlier: Said | null = null;

  /** `index`: where it stands among the ports of its bridge. */
  constructor(
    timers: TimerBank,
    readonly index: number,
    readonly number: number,
  ) {
    super(timers, index);
    this.mdelayWhile = this.edgeDelayWhile = MIGRATE_TIME;
    this.newInfo = true;
  }

  get portEnabled(): boolean {
    return this.enabled !== 0;
  }
  set portEnabled(is: boolean) {
    this.enabled = is ? 1 : 0;
  }
  /** Held back by its silence guard. */
  get silent(): boolean {
    return this.silenceGuard && this.silenceWhile === 0 && this.operPointToPointMAC;
  }
  /** Something was heard: three hellos until the silence guard acts. */
  breakSilence(): void {
    if (this.silenceGuard) this.silenceWhile = 3 * this.trees[0]!.portTimes.helloTime;
  }
  get newInfo(): boolean {
    return (this.news & NEWS.info) !== 0;
  }
  set newInfo(is: boolean) {
    this.news = is ? this.news | NEWS.info : this.news & ~NEWS.info;
  }
  get newInfoMsti(): boolean {
    return (this.news & NEWS.msti) !== 0;
  }
  set newInfoMsti(is: boolean) {
    this.news = is ? this.news | NEWS.msti : this.news & ~NEWS.msti;
  }
}

/** A BPDU as it was sent, good for as long as what it tells is the same. */
export interface Said {
  readonly octets: Uint8Array;
  /** What it tells of the CIST, and of each instance. */
  readonly told: Told;
  readonly instances: readonly Told[];
}
export interface Told {
  readonly flags: number;
  readonly portId: number;
  readonly vector: Vector;
  readonly times: Times;
}

export interface BridgeTree {
  /** MSTID; 0 for the CIST. */
  readonly instance: number;
  bridgePriority: number;
  rootPort: TreePort | null;
  rootPriority: Vector;
  rootTimes: Times;
  /** Its roles are to be selected again. */
  asked: boolean;
  /** Ports whose roles wait for what others do: all but disabled ones, and designated ones that do not agree. */
  followers: TreePort[];
}

/** What a bridge tells the network around it. */
export type BridgeEffect =
  | { readonly kind: 'send'; readonly port: number; readonly octets: Uint8Array }
  | { readonly kind: 'state'; readonly port: number; readonly tree: number }
  | { readonly kind: 'flush'; readonly ports: readonly number[]; readonly tree: number }
  | {
      readonly kind: 'heard';
      readonly port: number;
      readonly tree: number;
      readonly info: RcvdInfo;
      /** What the port held until then; null where the BPDU says the same again. */
      readonly held: HeldVector | null;
    };

/** A bridge with everything that its machines work on. */
export interface MstBridge {
  settings: BridgeSettings;
  /** What it says as root. */
  ownTimes: Times;
  readonly trees: BridgeTree[];
  readonly ports: Port[];
  readonly byNumber: (Port | undefined)[];
  readonly effects: BridgeEffect[];
  readonly timers: TimerBank;
  /** What each port heard last, and what it says, by its index; good as its timers say. */
  readonly heard: (Heard | undefined)[];
  readonly hellos: (Hello | undefined)[];
  /** Ports at which something that the machines look at may have moved since they ran. */
  awake: PortSet;
  /** Those whose turn it is, and all that had one, while the machines run. */
  turn: PortSet;
  readonly touched: PortSet;
}

/** A BPDU that said nothing new. */
export interface Heard {
  readonly octets: Uint8Array;
  /** What rcvdInfoWhile of each tree starts again with; negative where it runs on. */
  readonly restarts: readonly number[];
  /** What each tree made of it. */
  readonly effects: readonly BridgeEffect[];
}

/** What a port does when its hello is due. */
export interface Hello {
  /** Null for nothing: no hello is due. */
  readonly octets: Uint8Array | null;
  /** The same as what the bridge wants done. */
  readonly send: BridgeEffect | null;
  /** Seconds until the next. */
  readonly helloTime: number;
}
