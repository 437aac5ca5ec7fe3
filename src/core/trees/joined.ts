/**
 * Trees of single VLANs that are one with the common tree. A port of a switch with trees per VLAN that carries one VLAN alone,
 * untagged, sends plain BPDUs; where it leads to others, they take them for those of their own tree, and it theirs. The two
 * are solved as one CIST, in which each such VLAN's tree is a layer of bridges of its own beside those of the common tree.
 */
import { lanGraph, peersOf, portsOnLan } from '../network';
import type { CistOutcome, TreeOutcome } from './outcome';
import type { CistProblem, TreeProblem } from './problem';
import type { Topology } from './topology';

export interface Layer {
  readonly vlan: number;
  readonly problem: TreeProblem;
  /** LANs as switches with a tree per VLAN see them in it. */
  readonly own: Topology;
  /** Ports that speak plainly of the VLAN to others. */
  readonly plain: readonly number[];
}

/** Ports that carry one VLAN alone, untagged, and meet others, by VLAN; VLAN 1's tree is the common one anyway. */
export function plainSpeakers(topology: Topology, perVlan: Uint8Array): ReadonlyMap<number, readonly number[]> {
  const { ports, portBridge, portLan } = topology;
  const found = new Map<number, number[]>();
  ports.forEach(({ element: { native, vlans } }, p) => {
    if (!perVlan[portBridge[p]!] || native === undefined || native === 1 || vlans !== String(native)) return;
    if ([...portsOnLan(topology, portLan[p]!)].every((q) => perVlan[portBridge[q]!])) return;
    const known = found.get(native);
    if (known) known.push(p);
    else found.set(native, [p]);
  });
  return found;
}

/** Whether the VLAN's own tagged BPDUs come to a port that speaks plainly, over others: that is not modelled. */
export const isConfused = ({ portLan }: Topology, { own, plain }: Layer): boolean =>
  plain.some((p) => peersOf(own, p).some((q) => portLan[q] !== portLan[p]));

const all = <T extends Int32Array | Uint8Array | Float64Array>(first: T, more: readonly T[]): T => {
  const Of = first.constructor as new (length: number) => T;
  const joined = new Of(more.reduce((sum, m) => sum + m.length, first.length));
  joined.set(first);
  more.reduce((at, m) => (joined.set(m, at), at + m.length), first.length);
  return joined;
};

/** Where the LANs of each layer begin among all of them. */
const startsOf = (base: Topology, layers: readonly Layer[]): number[] =>
  layers.reduce<number[]>((starts, { own }) => [...starts, starts.at(-1)! + own.lanCount], [base.lanCount]);

/** The common tree with its layers, as one network. */
function stackedTopology(base: Topology, layers: readonly Layer[]): Topology {
  const { design, bridgeMac, macRank, portBridge, portLan, ports } = base;
  const bridges = bridgeMac.length;
  const starts = startsOf(base, layers);
  const lanOf = layers.map(({ own, plain }, j) =>
    own.portLan.map((lan, p) => (plain.includes(p) ? portLan[p]! : lan < 0 ? -1 : starts[j]! + lan)),
  );
  const switches = [...design.switches, ...layers.flatMap(() => design.switches)];
  // A bridge has its address in every layer: among those of one address, the order does not matter.
  const ranks = layers.map((_, j) => macRank.map((rank) => rank * (layers.length + 1) + j + 1));
  return {
    ...base,
    design: { ...design, switches },
    bridgeMac: all(
      bridgeMac,
      layers.map(() => bridgeMac),
    ),
    macRank: all(
      macRank.map((rank) => rank * (layers.length + 1)),
      ranks,
    ),
    ports: [...ports, ...layers.flatMap(() => ports)],
    ...lanGraph(
      switches.length,
      starts.at(-1)!,
      all(
        portBridge,
        layers.map((_, j) => portBridge.map((b) => b + (j + 1) * bridges)),
      ),
      all(portLan, lanOf),
    ),
  };
}

function stackedProblem({ bridgeMac, portLan }: Topology, cist: CistProblem, layers: readonly Layer[]): CistProblem {
  const problems = layers.map((l) => l.problem);
  const stacked = <T extends Int32Array | Uint8Array | Float64Array>(first: T, of: (p: TreeProblem) => T): T =>
    all(first, problems.map(of));
  const open = new Uint8Array(portLan.length);
  const whole = new Uint8Array(bridgeMac.length);
  const { extensions = new Int32Array(bridgeMac.length) } = cist;
  const restricted = cist.portRestricted ?? problems.some((p) => p.portRestricted);
  const fine = cist.finelyAged ?? problems.some((p) => p.finelyAged);
  const alike = <T>(value: T): T[] => layers.map(() => value);
  return {
    bridgeTakesPart: stacked(cist.bridgeTakesPart, (p) => p.bridgeTakesPart),
    bridgePriority: stacked(cist.bridgePriority, (p) => p.bridgePriority),
    extensions: all(
      extensions,
      layers.map(({ vlan }) => new Int32Array(bridgeMac.length).fill(vlan)),
    ),
    portTakesPart: stacked(cist.portTakesPart, (p) => p.portTakesPart),
    portCost: stacked(cist.portCost, (p) => p.portCost),
    portId: stacked(cist.portId, (p) => p.portId),
    reach: stacked(cist.reach, (p) => p.reach),
    ...(restricted ? { portRestricted: stacked(cist.portRestricted ?? open, (p) => p.portRestricted ?? open) } : {}),
    ...(fine ? { finelyAged: stacked(cist.finelyAged ?? whole, (p) => p.finelyAged ?? whole) } : {}),
    internalCost: stacked(cist.internalCost, (p) => p.portCost),
    region: all(cist.region, alike(new Int32Array(bridgeMac.length).fill(-1))),
    classic: all(cist.classic, alike(cist.classic)),
  };
}

/** The common tree and its layers as one problem. */
export const stacked = (base: Topology, cist: CistProblem, layers: readonly Layer[]) => ({
  topology: stackedTopology(base, layers),
  problem: stackedProblem(base, cist, layers),
});

/**
 * For each bridge the one by which its layer is reached from the root, itself where it is; that one has its way to the root in
 * another layer.
 */
function entriesOf(
  { portLan, portBridge }: Topology,
  { rootPort, designatedPort }: TreeOutcome,
  bridges: number,
): Int32Array {
  const entry = new Int32Array(rootPort.length).fill(-1);
  const layerOf = (b: number) => Math.floor(b / bridges);
  const find = (b: number): number => {
    if (entry[b]! >= 0) return entry[b]!;
    const port = rootPort[b]!;
    const next = port < 0 ? b : portBridge[designatedPort[portLan[port]!]!]!;
    return (entry[b] = next === b || layerOf(next) !== layerOf(b) ? b : find(next));
  };
  for (let b = 0; b < entry.length; b++) find(b);
  return entry;
}

/** What one layer comes to, by its own index: 0 is the common tree. `lanAt`: LAN of the stack by its own LANs. */
function layerOutcome(
  base: Topology,
  stack: Topology,
  outcome: CistOutcome,
  index: number,
  lanAt: readonly number[],
): TreeOutcome {
  const [bridges, ports] = [base.bridgeMac.length, base.portLan.length];
  const [firstBridge, firstPort] = [index * bridges, index * ports];
  const part = <T extends Int32Array | Uint8Array | Float64Array>(of: T, from: number, count: number): T =>
    of.slice(from, from + count) as T;
  const own = (port: number) => (port >= firstPort && port < firstPort + ports ? port - firstPort : -1);
  const entry = entriesOf(stack, outcome, bridges);
  const root = part(outcome.root, firstBridge, bridges).map((r, b) =>
    r < 0 ? -1 : entry[firstBridge + b]! - firstBridge,
  );
  const entered = new Map<number, number>();
  const rootPort = part(outcome.rootPort, firstBridge, bridges).map((port, b) => {
    if (port < 0 || root[b] !== b) return port < 0 ? -1 : own(port);
    entered.set(b, own(port));
    return -1;
  });
  const silent = outcome.silent?.map(own).filter((p) => p >= 0);
  const spent = outcome.spent && lanAt.flatMap((lan, i) => (outcome.spent!.includes(lan) ? [i] : []));
  return {
    rank: part(outcome.rank, firstBridge, bridges),
    root,
    rootPathCost: part(outcome.rootPathCost, firstBridge, bridges),
    rootPort,
    designatedPort: Int32Array.from(lanAt, (lan) => (lan < 0 ? -1 : own(outcome.designatedPort[lan]!))),
    role: part(outcome.role, firstPort, ports),
    joined: entered,
    ...(silent && silent.length > 0 ? { silent } : {}),
    ...(spent && spent.length > 0 ? { spent } : {}),
  };
}

/** The outcome of a stack as that of the common tree and of each layer. */
export function unstacked(base: Topology, stack: Topology, outcome: CistOutcome, layers: readonly Layer[]) {
  const starts = startsOf(base, layers);
  const [bridges, lans] = [base.bridgeMac.length, Array.from({ length: base.lanCount }, (_, lan) => lan)];
  const { cist } = outcome;
  const common: CistOutcome = {
    ...layerOutcome(base, stack, outcome, 0, lans),
    cist: {
      external: cist.external.slice(0, bridges),
      internal: cist.internal.slice(0, bridges),
      regionalRoot: cist.regionalRoot.slice(0, bridges).map((b) => (b < 0 ? -1 : b % bridges)),
      region: cist.region.slice(0, bridges),
      lanRegion: cist.lanRegion.slice(0, base.lanCount),
    },
  };
  const own = layers.map(({ own: topology, plain }, j) => {
    const lanAt = Array.from({ length: topology.lanCount }, (_, lan) => starts[j]! + lan);
    for (const p of plain) if (topology.portLan[p]! >= 0) lanAt[topology.portLan[p]!] = base.portLan[p]!;
    return layerOutcome(base, stack, outcome, j + 1, lanAt);
  });
  return { common, own };
}
