/**
 * The network as the solver sees it: bridges, logical ports and LANs by index, in typed arrays built once per design.
 * A logical port is a port, or a formed bundle standing for its members.
 */
import type { Bundle, Design, Port } from '../design';
import { bundleById, farEnd, linkAt, linkSpeed, portById, segmentAt } from '../design';
import {
  actingDesign,
  actingThrough,
  bundleRate,
  formedBundles,
  heldMembers,
  lanGraph,
  lonelyBundles,
  sharedWith,
} from '../network';
import type { LanGraph } from '../network';
import { PORT_PRIORITY, defaultPathCost, macToNumber, portIdentifier } from '../standard';

/** State behind a logical port. */
export interface LogicalPort {
  readonly kind: 'port' | 'bundle';
  readonly element: Port | Bundle;
  /** Mb/s that the default cost is computed from. */
  readonly rate: number;
}

/** Of a pair that acts as one bridge, `portBridge` is always the first. */
export interface Topology extends LanGraph {
  readonly design: Design;
  readonly bridgeMac: Float64Array;
  /** Place of each bridge in the order of MAC addresses. */
  readonly macRank: Int32Array;
  /** Bridge that each bridge acts through: itself, or the first of its pair. */
  readonly actsAs: Int32Array;
  readonly portNumber: Int32Array;
  /** Index into `vlanSets` of what the port carries. */
  readonly portVlans: Int32Array;
  readonly vlanSets: readonly string[];
  /** Cost by speed, and what is in force for all trees before the settings of single VLANs. */
  readonly defaultCost: Float64Array;
  readonly portCost: Float64Array;
  readonly portId: Int32Array;
  readonly ports: readonly LogicalPort[];
  /** The same before any port was shut by its BPDU guard, and those that are; absent where none is. */
  readonly unguarded?: Topology;
  readonly shut?: ReadonlySet<number>;
  /** Bridge index that a switch acts as, logical port index of a port or bundle; a bundle's members map to the bundle. */
  readonly bridgeIndex: ReadonlyMap<string, number>;
  readonly portIndex: ReadonlyMap<string, number>;
}

interface Gathered {
  ports: LogicalPort[];
  portIndex: Map<string, number>;
}

/** Logical ports: each bundle that carries, and each port that is not an active member of one. */
function gatherPorts(design: Design): Gathered & {
  formed: ReturnType<typeof formedBundles>;
  lonely: ReturnType<typeof lonelyBundles>;
} {
  const [formed, lonely] = [formedBundles(design), lonelyBundles(design)];
  const ports: LogicalPort[] = [];
  const portIndex = new Map<string, number>();
  for (const [id, bundle] of [...formed, ...lonely]) {
    portIndex.set(id, ports.length);
    for (const member of bundle.active) portIndex.set(member, ports.length);
    ports.push({ kind: 'bundle', element: bundle.bundle, rate: bundleRate(design, bundle) });
  }
  for (const port of design.ports) {
    if (portIndex.has(port.id)) continue;
    const link = linkAt(design, port.id);
    portIndex.set(port.id, ports.length);
    ports.push({ kind: 'port', element: port, rate: link ? linkSpeed(design, link) : port.speed });
  }
  return { ports, portIndex, formed, lonely };
}

/** The port of a switch that a member of a bundle leads to, unless it is held. */
function singleFarPort(design: Design, member: string, held: ReadonlySet<string>): string | undefined {
  const link = linkAt(design, member);
  const end = link && farEnd(link, member);
  return end && 'port' in end && !held.has(end.port) ? end.port : undefined;
}

/** The LAN of every logical port that is up: a cable, a bundle, a shared segment, or a host's cable of its own. */
function joinLans(design: Design, { ports, portIndex, formed, lonely }: ReturnType<typeof gatherPorts>) {
  const portLan = new Int32Array(ports.length).fill(-1);
  const offSwitches = new Set(design.switches.filter((s) => s.off).map((s) => s.id));
  const held = heldMembers(design);
  const segmentLan = new Map<string, number>();
  let lanCount = 0;
  ports.forEach(({ kind, element }, index) => {
    if (portLan[index]! >= 0) return;
    if (kind === 'bundle') {
      const whole = formed.get(element.id);
      portLan[index] = lanCount++;
      // Of a bundle that one end alone has, the port that its first member leads to hears it; the others are stubs.
      const far = whole ? whole.partner?.id : singleFarPort(design, lonely.get(element.id)!.active[0]!, held);
      const farIndex = far === undefined ? -1 : portIndex.get(far)!;
      if (farIndex >= 0 && (whole || ports[farIndex]!.kind === 'port')) portLan[farIndex] = portLan[index]!;
      return;
    }
    const port = element as Port;
    if (port.down || offSwitches.has(port.switch) || held.has(port.id)) return;
    const segment = segmentAt(design, port.id);
    if (segment) {
      if (segment.down) return;
      if (!segmentLan.has(segment.id)) segmentLan.set(segment.id, lanCount++);
      portLan[index] = segmentLan.get(segment.id)!;
      return;
    }
    const link = linkAt(design, port.id);
    if (!link || link.down) return;
    const far = farEnd(link, port.id);
    if ('host' in far) return void (portLan[index] = lanCount++);
    const farPort = portById(design, far.port)!;
    if (farPort.down || offSwitches.has(farPort.switch)) return;
    // A far end that is held passes nothing: this one is alone on its LAN.
    if (held.has(farPort.id)) return void (portLan[index] = lanCount++);
    const farIndex = portIndex.get(far.port)!;
    portLan[index] = lanCount++;
    // An active bundle at the far end has its own LAN; a cable into it from a port outside stays a stub.
    if (ports[farIndex]!.kind === 'port') portLan[farIndex] = portLan[index]!;
  });
  return { portLan, lanCount };
}

type Settings = Pick<Topology, 'portCost' | 'portId'>;

/** Costs and port identifiers for all trees. */
function settingsOf(ports: readonly LogicalPort[], defaultCost: Float64Array, numbers: Int32Array): Settings {
  const portCost = new Float64Array(ports.length);
  const portId = new Int32Array(ports.length);
  for (let i = 0; i < ports.length; i++) {
    const { element } = ports[i]!;
    portCost[i] = element.cost ?? defaultCost[i]!;
    portId[i] = portIdentifier(element.priority ?? PORT_PRIORITY.default, numbers[i]!);
  }
  return { portCost, portId };
}

function rankMacs(bridgeMac: Float64Array): Int32Array {
  const rank = new Int32Array(bridgeMac.length);
  Array.from(bridgeMac.keys())
    .sort((a, b) => bridgeMac[a]! - bridgeMac[b]!)
    .forEach((bridge, i) => (rank[bridge] = i));
  return rank;
}

/** What is behind each logical port in the design itself, where pairs of switches are still two. */
function asDrawn(design: Design, { ports, portIndex }: Gathered): LogicalPort[] {
  for (const b of design.bundles) {
    const other = sharedWith(design, b);
    if (!portIndex.has(b.id) && other && portIndex.has(other.id)) portIndex.set(b.id, portIndex.get(other.id)!);
  }
  return ports.map((p) => ({
    ...p,
    element: (p.kind === 'bundle' ? bundleById(design, p.element.id) : portById(design, p.element.id))!,
  }));
}

function build(design: Design): Topology {
  const acting = actingDesign(design);
  const gathered = gatherPorts(acting);
  const { ports, portIndex } = gathered;
  const { portLan, lanCount } = joinLans(acting, gathered);
  const own = new Map(design.switches.map((s, i) => [s.id, i]));
  const through = acting === design ? null : actingThrough(design);
  const actsAs = Int32Array.from(design.switches, (s, i) => own.get(through?.get(s.id) ?? '') ?? i);
  const bridgeIndex = through ? new Map(design.switches.map((s, i) => [s.id, actsAs[i]!])) : own;
  const scales = design.switches.map((s) => s.costScale ?? design.costScale);
  const count = ports.length;
  const portBridge = new Int32Array(count);
  const portNumber = new Int32Array(count);
  const portVlans = new Int32Array(count);
  const defaultCost = new Float64Array(count);
  const vlanSets: string[] = [];
  const setIndex = new Map<string, number>();
  ports.forEach(({ element, rate }, i) => {
    const bridge = bridgeIndex.get(element.switch)!;
    const set = element.vlans ?? 'all';
    if (!setIndex.has(set)) {
      setIndex.set(set, vlanSets.length);
      vlanSets.push(set);
    }
    portBridge[i] = bridge;
    portNumber[i] = element.number;
    portVlans[i] = setIndex.get(set)!;
    defaultCost[i] = defaultPathCost(rate, scales[bridge]!);
  });
  const bridgeMac = Float64Array.from(design.switches, (s) => macToNumber(s.mac));
  return {
    design,
    actsAs,
    bridgeMac,
    macRank: rankMacs(bridgeMac),
    ...lanGraph(design.switches.length, lanCount, portBridge, portLan),
    portNumber,
    portVlans,
    vlanSets,
    defaultCost,
    ...settingsOf(ports, defaultCost, portNumber),
    ports: acting === design ? ports : asDrawn(design, gathered),
    bridgeIndex,
    portIndex,
  };
}

/** Whether two lists hold the same elements but for fields that do not matter to how the network hangs together. */
function alike<T extends object>(a: readonly T[], b: readonly T[], fields: readonly (keyof T)[]): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  return a.every((x, i) => x === b[i] || fields.every((f) => x[f] === b[i]![f]));
}

/** Whether an edit left cabling, speeds, VLAN sets and identities as they were. */
function sameCabling(a: Design, b: Design): boolean {
  return (
    a.links === b.links &&
    a.segments === b.segments &&
    a.bundles === b.bundles &&
    a.pairs === b.pairs &&
    a.costScale === b.costScale &&
    a.bundleCost === b.bundleCost &&
    alike(a.switches, b.switches, ['id', 'mac', 'off', 'costScale', 'bundleCost', 'lacpPriority']) &&
    alike(a.hosts, b.hosts, ['id', 'bond']) &&
    alike(a.ports, b.ports, ['id', 'switch', 'number', 'speed', 'duplex', 'down', 'vlans', 'lacpPriority'])
  );
}

/** The topology of a design, guards left out. Given the one before an edit, what the edit did not touch is taken over. */
export function cabledTopology(design: Design, before?: Topology): Topology {
  if (!before || !sameCabling(before.design, design)) return build(design);
  if (before.design.ports === design.ports) return { ...before, design };
  const byId = new Map<string, Port>();
  design.ports.forEach((port, i) => {
    if (port !== before.design.ports[i]) byId.set(port.id, port);
  });
  const ports = before.ports.slice();
  for (const [id, element] of byId) {
    const index = before.portIndex.get(id)!;
    if (ports[index]!.kind === 'port') ports[index] = { ...ports[index]!, element };
  }
  return { ...before, design, ports, ...settingsOf(ports, before.defaultCost, before.portNumber) };
}

/** Name of a bridge; of a pair that acts as one bridge, both names. */
export function actingName({ design, actsAs }: Topology, bridge: number): string {
  const { name } = design.switches[bridge]!;
  if (design.pairs.length === 0) return name;
  const second = actsAs.findIndex((acts, b) => acts === bridge && b !== bridge);
  return second < 0 ? name : `${name} + ${design.switches[second]!.name}`;
}
