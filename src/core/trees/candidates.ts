/** What a decision is made between: candidates with their vectors, read from the outcome of a tree. */
import type { VectorPart, PriorityVector, BridgeId } from '../standard';
import type { SolvedDesign, SolvedTree } from './solved';
import { portsOfBridge, portsOnLan, systemIdExtension } from '../network';
import { actingName } from './topology';
import { regionCount } from './many';
import type { CistProblem } from './problem';

export type LedgerPart = VectorPart | 'priority' | 'mac';

export interface Candidate {
  /** Bridge that makes the offer; port it is received on or made through, where there is one. */
  readonly bridge: number;
  readonly port: number | null;
  readonly vector: PriorityVector;
  readonly wins: boolean;
  /** The part in which it lost to the winner; null on the winner and on those that do not qualify. */
  readonly lostBy: LedgerPart | null;
  /** Why it does not take part in the comparison at all. */
  readonly barred: 'own-offer' | 'root-guard' | null;
  /** Made by the bridge in question itself, not received. */
  readonly own: boolean;
}

export interface Contest {
  readonly title: string;
  /** `election` compares bridge identifiers, `received` whole vectors, `lan` what the ends of one LAN offer there. */
  readonly kind: 'election' | 'received' | 'lan';
  readonly candidates: readonly Candidate[];
  /** The part in which the winner beat the next best; null when it stood alone. */
  readonly decidedBy: LedgerPart | null;
}

export interface Ledger {
  readonly sentence: string;
  readonly contests: readonly Contest[];
}

/** Reads identifiers and vectors of one solved tree. */
export class TreeReader {
  readonly extension: number;
  constructor(
    readonly solved: SolvedDesign,
    readonly of: SolvedTree,
  ) {
    this.extension = systemIdExtension(of.tree);
  }
  get topology() {
    return this.of.topology;
  }
  bridgeId(bridge: number): BridgeId {
    return {
      priority: this.of.problem.bridgePriority[bridge]! + (this.of.problem.extensions?.[bridge] ?? this.extension),
      mac: this.topology.bridgeMac[bridge]!,
    };
  }
  portId(port: number): number {
    return this.of.problem.portId[port]!;
  }
  /** Name of the switch, or of both that act as this one bridge. */
  bridgeName(bridge: number): string {
    return actingName(this.topology, bridge);
  }
  portName(port: number): string {
    return this.topology.ports[port]!.element.name;
  }
  /** As the vectors have it: in the CIST the external cost. */
  rootPathCost(bridge: number): number {
    const { cist, rootPathCost } = this.of.outcome;
    return (cist?.external ?? rootPathCost)[bridge]!;
  }
  /** Whether regions matter to the vectors of this tree. */
  private get regions(): boolean {
    return this.of.outcome.cist?.region.some((r) => r >= 0) ?? false;
  }
  /** Regions in which an MST instance runs; 0 for any other tree. */
  regionCount(): number {
    return regionCount(this.solved, this.of);
  }
  /** Whether two bridges are of one MST region. */
  sameRegion(a: number, b: number): boolean {
    const region = this.of.outcome.cist?.region;
    return region !== undefined && region[a]! >= 0 && region[a] === region[b];
  }
  /** Regional root and cost inside the region, which only the CIST has. */
  private regional(bridge: number): Pick<PriorityVector, 'regionalRoot' | 'internalCost'> {
    const { cist } = this.of.outcome;
    if (!cist || !this.regions) return {};
    return { regionalRoot: this.bridgeId(cist.regionalRoot[bridge]!), internalCost: cist.internal[bridge]! };
  }
  rootId(bridge: number): BridgeId {
    return this.bridgeId(this.of.outcome.root[bridge]!);
  }
  /** Ports of the tree on a LAN. */
  lanPorts(lan: number): number[] {
    return [...portsOnLan(this.topology, lan)].filter((p) => this.of.problem.portTakesPart[p]);
  }
  bridgePorts(bridge: number): number[] {
    return [...portsOfBridge(this.topology, bridge)].filter((p) => this.of.problem.portTakesPart[p]);
  }
  /** What a port offers on its LAN: its bridge's root and cost, its bridge, itself. */
  offer(port: number): PriorityVector {
    const bridge = this.topology.portBridge[port]!;
    return {
      root: this.rootId(bridge),
      rootPathCost: this.rootPathCost(bridge),
      ...(this.isOld(this.topology.portLan[port]!) ? this.alone(bridge) : this.regional(bridge)),
      designatedBridge: this.bridgeId(bridge),
      designatedPort: this.portId(port),
      receivingPort: 0,
    };
  }
  /** Whether the MST bridges of a LAN speak version 0 there, since a classic one is on it too. */
  private isPlain(lan: number): boolean {
    const { cist, designatedPort } = this.of.outcome;
    const from = lan < 0 ? -1 : designatedPort[lan]!;
    return cist !== undefined && from >= 0 && cist.lanRegion[lan] !== cist.region[this.topology.portBridge[from]!];
  }
  /** Whether a classic bridge is on a LAN: all speak version 0 there, each for itself. */
  private isOld(lan: number): boolean {
    const classic = this.of.outcome.cist && (this.of.problem as CistProblem).classic;
    return classic !== undefined && lan >= 0 && this.lanPorts(lan).some((p) => classic[this.topology.portBridge[p]!]);
  }
  /** A bridge that speaks for itself, not for its region. */
  private alone(bridge: number): Pick<PriorityVector, 'regionalRoot' | 'internalCost'> {
    return this.regions ? { regionalRoot: this.bridgeId(bridge), internalCost: 0 } : {};
  }
  /** Cost that a port adds to what it hears from a bridge: inside a region the internal one. */
  private heardAt(port: number, offer: PriorityVector, from: number): PriorityVector {
    const bridge = this.topology.portBridge[port]!;
    const { portCost } = this.of.problem;
    const receivingPort = this.portId(port);
    if (this.sameRegion(bridge, from) && !this.isPlain(this.topology.portLan[port]!)) {
      const { internalCost } = this.of.problem as CistProblem;
      return { ...offer, internalCost: offer.internalCost! + internalCost[port]!, receivingPort };
    }
    const heard = { ...offer, rootPathCost: offer.rootPathCost + portCost[port]!, receivingPort };
    if (!this.regions) return heard;
    const { region } = this.of.outcome.cist!;
    if (region[bridge]! >= 0) return { ...heard, regionalRoot: this.bridgeId(bridge), internalCost: 0 };
    const { classic } = this.of.problem as CistProblem;
    const plain = { regionalRoot: undefined, internalCost: undefined };
    // Towards a classic bridge the sender speaks for itself (802.1Q-2018 clause 13.10).
    if (classic[bridge]) return { ...heard, ...plain };
    // A rapid bridge finds the regional root where it looks for the designated bridge.
    return { ...heard, ...plain, designatedBridge: offer.regionalRoot! };
  }
  /** What a port hears from the designated port of its LAN, with its own cost added; null when it receives nothing. */
  received(port: number): PriorityVector | null {
    const lan = this.topology.portLan[port]!;
    const from = lan < 0 ? -1 : this.of.outcome.designatedPort[lan]!;
    if (from < 0 || from === port) return null;
    return this.heardAt(port, this.offer(from), this.topology.portBridge[from]!);
  }
  /** The vector of a bridge that takes itself for the root. */
  own(bridge: number): PriorityVector {
    const id = this.bridgeId(bridge);
    const regional = this.regions ? { regionalRoot: id, internalCost: 0 } : {};
    return { root: id, rootPathCost: 0, ...regional, designatedBridge: id, designatedPort: 0, receivingPort: 0 };
  }
}
