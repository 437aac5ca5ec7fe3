/**
 * Bridges, their ports and the LANs that join them, by index in typed arrays, and the walks over them. A LAN is a
 * cable, a bundle or a shared segment; a port that is down is on none.
 */
export interface LanGraph {
  /** Bridge of each port, and its LAN: −1 for none. */
  readonly portBridge: Int32Array;
  readonly portLan: Int32Array;
  /** Ports of bridge b: `bridgePorts[bridgeStart[b]] … bridgePorts[bridgeStart[b + 1] − 1]`; of a LAN alike. */
  readonly bridgeStart: Int32Array;
  readonly bridgePorts: Int32Array;
  readonly lanStart: Int32Array;
  readonly lanPorts: Int32Array;
  readonly lanCount: number;
}

/** Buckets `items` by `key(item)` into one flat array with start offsets; items with key −1 are left out. */
function bucket(count: number, items: number, key: (item: number) => number): { start: Int32Array; flat: Int32Array } {
  const start = new Int32Array(count + 1);
  for (let i = 0; i < items; i++) if (key(i) >= 0) start[key(i) + 1]!++;
  for (let b = 0; b < count; b++) start[b + 1]! += start[b]!;
  const flat = new Int32Array(start[count]!);
  const fill = start.slice(0, count);
  for (let i = 0; i < items; i++) if (key(i) >= 0) flat[fill[key(i)]!++] = i;
  return { start, flat };
}

/** The graph of ports whose bridges and LANs are known. */
export function lanGraph(bridges: number, lanCount: number, portBridge: Int32Array, portLan: Int32Array): LanGraph {
  const byBridge = bucket(bridges, portBridge.length, (p) => portBridge[p]!);
  return {
    portBridge,
    bridgeStart: byBridge.start,
    bridgePorts: byBridge.flat,
    ...lansOf(lanCount, portLan),
  };
}

/** The part of a graph that says which ports are on which LAN; for the same bridges and ports on other LANs. */
export function lansOf(
  lanCount: number,
  portLan: Int32Array,
): Pick<LanGraph, 'portLan' | 'lanStart' | 'lanPorts' | 'lanCount'> {
  const byLan = bucket(lanCount, portLan.length, (p) => portLan[p]!);
  return { portLan, lanStart: byLan.start, lanPorts: byLan.flat, lanCount };
}

/** Ports of a bridge, in the order of their index. A view: not to be changed. */
export const portsOfBridge = ({ bridgeStart, bridgePorts }: LanGraph, bridge: number): Int32Array =>
  bridgePorts.subarray(bridgeStart[bridge], bridgeStart[bridge + 1]);

/** Ports on a LAN, in the order of their index; none for −1. A view: not to be changed. */
export const portsOnLan = ({ lanStart, lanPorts }: LanGraph, lan: number): Int32Array =>
  lan < 0 ? lanPorts.subarray(0, 0) : lanPorts.subarray(lanStart[lan], lanStart[lan + 1]);

/** The other ports on the LAN of a port, those of its own bridge included. */
export const peersOf = (graph: LanGraph, port: number): number[] =>
  [...portsOnLan(graph, graph.portLan[port] ?? -1)].filter((p) => p !== port);

/** Whether the LAN of a port joins it to another port. Allocates nothing. */
export function meetsOthers({ portLan, lanStart }: LanGraph, port: number): boolean {
  const lan = portLan[port]!;
  return lan >= 0 && lanStart[lan + 1]! - lanStart[lan]! > 1;
}

/** Calls `visit(own port, port of another bridge)` for every pair that shares a LAN, of the ports that take part. */
export function forEachNeighbour(
  { bridgeStart, bridgePorts, portLan, lanStart, lanPorts, portBridge }: LanGraph,
  takesPart: Uint8Array,
  bridge: number,
  visit: (own: number, other: number) => void,
): void {
  for (let i = bridgeStart[bridge]!; i < bridgeStart[bridge + 1]!; i++) {
    const own = bridgePorts[i]!;
    const lan = portLan[own]!;
    if (lan < 0 || !takesPart[own]) continue;
    for (let j = lanStart[lan]!; j < lanStart[lan + 1]!; j++) {
      const other = lanPorts[j]!;
      if (takesPart[other] && portBridge[other] !== bridge) visit(own, other);
    }
  }
}

/** How a walk came to a bridge: from which one, out of which port, into which. −1 where it began. */
export interface Step {
  readonly via: number;
  readonly out: number;
  readonly in: number;
}

/** Breadth first from one bridge through ports that pass frames: each bridge with the step by which it was reached. */
export function walkFrom(graph: LanGraph, from: number, passes: (port: number) => boolean): Map<number, Step> {
  const reached = new Map<number, Step>([[from, { via: -1, out: -1, in: -1 }]]);
  for (const bridge of reached.keys())
    for (const out of portsOfBridge(graph, bridge)) {
      if (!meetsOthers(graph, out) || !passes(out)) continue;
      for (const into of portsOnLan(graph, graph.portLan[out]!)) {
        const next = graph.portBridge[into]!;
        if (!reached.has(next) && passes(into)) reached.set(next, { via: bridge, out, in: into });
      }
    }
  return reached;
}

/** The next bridge towards the root, by root ports and designated ports; −1 at the root and where there is none. */
export function upstream(
  { portLan, portBridge }: LanGraph,
  { rootPort, designatedPort }: { readonly rootPort: Int32Array; readonly designatedPort: Int32Array },
  bridge: number,
): number {
  const port = rootPort[bridge]!;
  return port < 0 ? -1 : portBridge[designatedPort[portLan[port]!]!]!;
}
