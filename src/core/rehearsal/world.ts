/** The running network: switches with their processes, ports, cables and tables. Plain state; others move it. */
import type { Bundle, Design, Port } from '../design';
import type { Envelope } from '../frames';
import type { LacpEnd, StpBridge } from '../machines';
import type { MstBridge, PortSettings } from '../machines/mst';
import type { NetworkPlan, NodePlan, ProcessPlan } from './plan';
import type { EventQueue } from './queue';
import type { FrameKind, OpenLane, Recorder } from './recorder';

export type Engine =
  | { readonly kind: 'mst'; readonly bridge: MstBridge }
  | { readonly kind: 'stp'; readonly bridge: StpBridge; wakeAt: number };

export interface Process {
  readonly node: Node;
  readonly plan: ProcessPlan;
  readonly engine: Engine;
  /** Whether a port takes part, by its number. */
  readonly members: readonly (boolean | undefined)[];
  /** Tables age in the forward delay while a classic tree tells of a change. */
  shortAgeing: boolean;
  /** The frame that left each port last, by port number: a repeated hello goes out as the same one. */
  readonly sent: (Sent | undefined)[];
  /** As each port was set last, by port number. */
  readonly settings: Map<number, PortSettings>;
  /** Lanes of the trace by port number, then by tree. */
  readonly lanes: (readonly OpenLane[] | undefined)[];
}

/** A frame on a cable: octets, and what they hold once a receiver has opened them. */
export interface Frame {
  readonly octets: Uint8Array;
  opened: Envelope | null;
}

export interface Sent {
  readonly bpdu: Uint8Array;
  readonly element: Port | Bundle;
  readonly kind: FrameKind;
  readonly frame: Frame;
}

export interface Entry {
  port: string;
  /** Microseconds; when the address was last seen. */
  at: number;
}

export interface Node {
  readonly plan: NodePlan;
  on: boolean;
  treeOff: boolean;
  processes: Process[];
  /** The same by the VLAN they run; 0 for the one of all. */
  byVlan: ReadonlyMap<number, Process>;
  /** By port number. */
  readonly ports: Map<number, BridgePort>;
  /** Where each probed host was seen, by `vlan host`. */
  readonly table: Map<string, Entry>;
  /** When the second of the rapid machines begins, in microseconds. */
  readonly phase: number;
}

/** A port or a bundle as spanning tree sees it. */
export interface BridgePort {
  readonly id: string;
  readonly number: number;
  readonly node: Node;
  readonly element: Port | Bundle;
  readonly vlans: Uint8Array;
  up: boolean;
  /** Ids of the physical ports that carry for it now. */
  active: readonly string[];
  /** Shut by its BPDU guard: when it comes back, in microseconds; Infinity for never. Null: not shut. */
  shutUntil: number | null;
}

export interface PhysicalPort {
  readonly id: string;
  readonly node: Node;
  readonly number: number;
  readonly own: BridgePort;
  /** The bundle it is configured into. */
  readonly lag: Lag | null;
  carrier: boolean;
  /** The bundle it carries for at the moment. */
  attached: BridgePort | null;
  /** Passes no frames but LACPDUs: it negotiates, waits, or may not go alone. */
  held: boolean;
}

/** One end of a bundle: at a switch or at a host. */
export interface Lag {
  readonly bundle: Bundle | null;
  readonly port: BridgePort | null;
  readonly members: readonly string[];
  readonly individual: boolean;
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
      readonly to: string;
      readonly from: string;
      readonly frame: Frame;
      readonly index: number;
    }
  | { readonly kind: 'second'; readonly node: Node }
  | { readonly kind: 'wake'; readonly process: Process }
  | { readonly kind: 'lacp'; readonly lag: Lag }
  | { readonly kind: 'script'; readonly index: number; readonly step: number }
  | { readonly kind: 'recover'; readonly port: string }
  | { readonly kind: 'intruder'; readonly port: string }
  | { readonly kind: 'contact'; readonly last?: true };

/** Where frames that leave a port come to. */
export interface Route {
  readonly ports: readonly string[];
  /** Whether a host with an end of a bundle is there. */
  readonly host: boolean;
  /** Link of the port, and the end of it that the port is at. */
  readonly link: string | null;
  readonly end: 'a' | 'b';
}

export interface World {
  now: number;
  drawn: Design;
  plan: NetworkPlan;
  readonly queue: EventQueue<Due>;
  readonly nodes: Map<string, Node>;
  readonly bridgePorts: Map<string, BridgePort>;
  readonly physical: Map<string, PhysicalPort>;
  readonly lags: Map<string, Lag>;
  /** Ends of hosts that bundle, by the id of the host. */
  readonly hostLags: Map<string, Lag>;
  /** Links of which one end alone has lost its light, and links on which BPDUs of one end are lost. */
  readonly deaf: Map<string, 'a' | 'b'>;
  readonly mute: Map<string, 'a' | 'b'>;
  readonly loops: Set<string>;
  readonly intruders: Map<string, Intruder>;
  readonly linkDelay: number;
  readonly processingDelay: number;
  readonly helloSpread: number;
  readonly random: () => number;
  readonly record: Recorder;
  contactDue: boolean;
  /** VLANs run whose open ports changed since rings were looked for; −1 stands for all. */
  readonly changed: Set<number>;
  /** Frames go round in some tree. */
  looping: boolean;
  /** Switches that take themselves for the root, by tree. */
  readonly rootsOf: Map<string, Set<string>>;
  /** What each physical port is plugged into, by number; null after something about cables changed. */
  lans: Map<string, number> | null;
  /** Where a frame from each physical port comes to; emptied likewise. */
  readonly routes: Map<string, Route>;
  /** Frames and timers handled so far. */
  handled: number;
  bpdus: number;
  /** Looks at cables and bundles anew after something about them changed. */
  refresh: () => void;
  hearLacp: (to: string, from: string, octets: Uint8Array, index: number) => void;
}

export const SECOND = 1_000_000;
