/** The running network: switches with their processes, ports, cables and tables. Plain state; others move it. */
import type { Bundle, Design, FilterInForce, Port, LostFrames } from '../design';
import type { LacpEnd } from '../protocols/lacp';
import type { StpBridge } from '../protocols/stp';
import type { MstBridge, PortSettings } from '../protocols/mst';
import type { BpduFrame, Frame } from './frame';
import type { NetworkPlan, NodePlan, ProcessPlan } from './plan';
import type { EventQueue } from './scheduler';
import type { OpenLane, Recorder } from '../trace';

export type Engine =
  | { readonly kind: 'mst'; readonly bridge: MstBridge }
  | { readonly kind: 'stp'; readonly bridge: StpBridge; wakeAt: number };

export interface Process {
  readonly node: Node;
  plan: ProcessPlan;
  readonly engine: Engine;
  /** Whether a port takes part, by its number. */
  readonly members: (boolean | undefined)[];
  /** Tables age in the forward delay while a classic tree tells of a change. */
  shortAgeing: boolean;
  /** By port number. */
  readonly outlets: (Outlet | undefined)[];
  /** As each port was set last, by port number. */
  readonly settings: Map<number, PortSettings>;
  /** Lanes of the trace by port number, then by tree. */
  readonly lanes: (readonly OpenLane[] | undefined)[];
}

/** A frame that has come: its index in the trace, and the physical port. */
export interface Arrival {
  readonly index: number;
  readonly to: string;
}

/** How BPDUs leave a port of a process, and what it sent last and before that: a topology change is signalled for a while, and then no more. */
export interface Outlet {
  readonly bp: BridgePort;
  readonly element: Port | Bundle;
  readonly physical: PhysicalPort;
  readonly way: Way;
  readonly copies: readonly Copy[];
  /** Of those that go out once more as of a tree per VLAN: VLAN 1's, which go out plainly too. */
  readonly again: readonly Copy[] | null;
  last: BpduFrame | null;
  earlier: BpduFrame | null;
}

/** Where frames that leave a physical port come to; another one as soon as anything about that is. */
export interface Way {
  /** Physical ports, `host` or `intruder`. */
  readonly ends: readonly string[];
  /** Link of the port, and the end of it that the port is at. */
  readonly link: string | null;
  readonly end: 'a' | 'b';
}

/** A copy of a frame on its way. */
export interface Copy {
  readonly from: string;
  /** A physical port, `host` or `intruder`. */
  readonly to: string;
  readonly physical: PhysicalPort | null;
  /** Who took the last one in: as long as it is still who takes, it takes the next one too. */
  receiver: Receiver | null;
  process: Process | null;
  /** VLANs that it shows to be confused, where it is of another VLAN than the one it comes in; null where it is not. */
  mismatched: readonly number[] | null;
  /** Its bridge, where that is a rapid one, and the place of the port among those of the bridge. */
  bridge: MstBridge | null;
  index: number;
}

/** The bridge port that takes BPDUs in at a physical port, with nothing else to it; another one as soon as anything of it is. */
export interface Receiver {
  readonly bp: BridgePort;
  readonly element: Port | Bundle;
  readonly byVlan: ReadonlyMap<number, Process>;
}

export interface Entry {
  port: string;
  /** Microseconds; when the address was last seen. */
  at: number;
}

export interface Node {
  plan: NodePlan;
  on: boolean;
  treeOff: boolean;
  processes: Process[];
  /** The same by the VLAN they run; 0 for the one of all. */
  byVlan: ReadonlyMap<number, Process>;
  /** By port number. */
  readonly ports: Map<number, BridgePort>;
  /** The MAC table: where each probed host was seen, by `vlan host`. */
  readonly table: Map<string, Entry>;
  /** When the second of the rapid machines begins, in microseconds. */
  readonly phase: number;
}

/** A port or a bundle as spanning tree sees it. */
export interface BridgePort {
  readonly id: string;
  readonly number: number;
  readonly node: Node;
  element: Port | Bundle;
  vlans: Uint8Array;
  up: boolean;
  /** When it came up last, in microseconds. */
  since: number;
  /** BPDU guard and filter in force. */
  guard: boolean;
  filter: FilterInForce;
  /** A BPDU has been heard since it came up, so that a filter that yields is none. */
  yielded: boolean;
  /** Ids of the physical ports that carry for it now. */
  active: readonly string[];
  /** Shut by its BPDU guard: when it comes back, in microseconds; Infinity for never. Null: not shut. */
  shutUntil: number | null;
  /** Processes by VLAN in which it is inconsistent, each with when that ends unless it is seen again; null for none. */
  inconsistent: Map<number, number> | null;
}

export interface PhysicalPort {
  readonly id: string;
  node: Node;
  number: number;
  own: BridgePort;
  /** The bundle it is configured into. */
  bundleEnd: BundleEnd | null;
  carrier: boolean;
  /** The bundle it carries for at the moment. */
  attached: BridgePort | null;
  /** Passes no frames but LACPDUs: it negotiates, waits, or may not go alone. */
  held: boolean;
  /** Number of the LAN that it touches, once LANs have been worked out. */
  lan: number;
  way: Way;
  /** Null where the port sends none. */
  keepalives: Keepalives | null;
  /** Null where a BPDU that arrives needs more than being processed. */
  takes: Receiver | null;
}

/** What a port knows of its link by keepalives. */
export interface Keepalives {
  /** When the other end was heard last, in microseconds; null for not yet. */
  heardAt: number | null;
  /** It misses keepalives; the other end says that it does. */
  deaf: boolean;
  unheard: boolean;
}

/** One end of a bundle: at a switch or at a host. */
export interface BundleEnd {
  bundle: Bundle | null;
  port: BridgePort | null;
  members: readonly string[];
  individual: boolean;
  /** Null for a static one. */
  end: LacpEnd | null;
  wakeAt: number;
}

export interface Intruder {
  readonly port: string;
  readonly bridge: MstBridge;
}

export type Due =
  | {
      readonly kind: 'frame';
      readonly copy: Copy;
      readonly frame: Frame;
      readonly index: number;
      /** The same for all copies of one frame, however often it is passed on. */
      readonly serial: number;
    }
  | { readonly kind: 'second'; readonly node: Node }
  | { readonly kind: 'wake'; readonly process: Process }
  | { readonly kind: 'lacp'; readonly bundleEnd: BundleEnd }
  | { readonly kind: 'script'; readonly index: number; readonly step: number }
  | { readonly kind: 'recover'; readonly port: string }
  | { readonly kind: 'keepalive'; readonly port: string; readonly keepalives: Keepalives }
  | { readonly kind: 'storm'; readonly port: string }
  | { readonly kind: 'consistent'; readonly bp: BridgePort; readonly vlan: number }
  | { readonly kind: 'intruder'; readonly port: string }
  | { readonly kind: 'contact'; readonly last?: true }
  | { readonly kind: 'start' };

/** A place at which a switch touches a LAN. */
export interface Touch {
  readonly bp: BridgePort;
  readonly lan: number;
  /** Which of the touches of its port it is, and how many the port has: more than one for a bundle that one end alone has. */
  readonly nth: number;
  readonly of: number;
}

/** LANs are numbered from 0. */
export interface Lans {
  readonly count: number;
  /** Most touches of one port. */
  readonly most: number;
  /** What no cable joins, whether open or not. */
  readonly parts: readonly Part[];
  readonly partOf: ReadonlyMap<Node, Part>;
}
/** Switches that cables join, in the order of the design. */
export type Part = readonly Place[];
/** A switch among the LANs. */
export interface Place {
  readonly node: Node;
  /** Its place among all switches. */
  readonly place: number;
  readonly touches: readonly Touch[];
  /** Ports that lead anywhere. */
  readonly cabled: readonly BridgePort[];
  /** Most touches of one port. */
  readonly most: number;
}

/** How far a VLAN reaches in one part. */
export interface PartSpread {
  /** Switches of the part. */
  readonly size: number;
  /** Whether what is open holds a ring: joins two that are joined already. */
  readonly ring: boolean;
  /** Switches that reach each other, with the place of the first. */
  readonly groups: readonly { readonly first: number; readonly switches: readonly string[] }[];
}

/** How far a VLAN reaches. */
export interface Spread {
  /** Parts in which what is open holds a ring. */
  readonly rings: readonly Part[];
  /** Switches that the largest group does not reach, by groups; none where the VLAN is connected. */
  readonly apart: readonly (readonly string[])[];
}

export interface World {
  now: number;
  drawn: Design;
  plan: NetworkPlan;
  readonly queue: EventQueue<Due>;
  readonly nodes: Map<string, Node>;
  readonly bridgePorts: Map<string, BridgePort>;
  readonly physical: Map<string, PhysicalPort>;
  readonly bundleEnds: Map<string, BundleEnd>;
  /** Ends of hosts that bundle, by the id of the host. */
  readonly hostBundleEnds: Map<string, BundleEnd>;
  /** Links of which one end alone has lost its light, and links on which frames of one end are lost. */
  readonly deaf: Map<string, 'a' | 'b'>;
  readonly mute: Map<string, { readonly from: 'a' | 'b'; readonly frames: LostFrames }>;
  readonly loops: Set<string>;
  readonly intruders: Map<string, Intruder>;
  /** Frames sent so far, and switches that passed one on as data, by its serial number. */
  sent: number;
  readonly passed: Map<number, Set<Node>>;
  readonly linkDelay: number;
  readonly processingDelay: number;
  readonly helloSpread: number;
  readonly random: () => number;
  readonly record: Recorder;
  contactDue: boolean;
  /** Switches at which something changed since contact and rings were looked at; null for all. */
  stirred: Set<Node> | null;
  /** VLANs whose tree had ports that changed since rings were looked for; −1 stands for all. */
  readonly changed: Set<number>;
  /** Frames loop in some tree. */
  looping: boolean;
  /** Switches that take themselves for the root, by tree. */
  readonly rootsOf: Map<string, Set<string>>;
  /** What each port is plugged into; null after something about cables changed. */
  lans: Lans | null;
  /** Ports whose LAN can be another than when `lans` were worked out last; null for all. */
  stalePorts: Set<string> | null;
  /** LANs by what they are called: each keeps its number for good. */
  readonly lanIds: Map<string, number>;
  places: ReadonlyMap<Node, Place>;
  /** How far each VLAN reached in each part when it was looked at last, by the first switch of the part. */
  readonly spreads: Map<number, { lans: Lans; parts: Map<string, PartSpread>; spread: Spread }>;
  /** Frames and timers handled so far. */
  handled: number;
  bpdus: number;
}
