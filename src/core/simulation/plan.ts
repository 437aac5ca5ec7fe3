/** What each switch of a design runs: its spanning tree processes, their trees, and the settings of their ports. */
import { actingDesign, bundleCostRate, isMixed, leadsToSwitch, mixtureOf, mstConfigOf, regionOf } from '../network';
import {
  bundlesOf,
  costInForce,
  groupBy,
  hasSilenceGuard,
  isClassicMode,
  isPerVlan,
  linkAt,
  linkSpeed,
  linkTypeOf,
  modeOf,
  portById,
  portPriorityInForce,
  portsOf,
  priorityInForce,
  timersOf,
} from '../design';
import type { Bundle, Design, Mode, Port, Switch, TreeKey } from '../design';
import { configurationOctets } from '../protocols/frames';
import type { BridgeSettings, PortSettings } from '../protocols/mst';
import type { InstanceMap } from '../network';
import {
  MAX_HOPS,
  TIMERS,
  defaultPathCost,
  macToNumber,
  portIdentifier,
  vlanMembership,
  COMMON_TREE,
  instanceTreeId,
  vlanTreeId,
} from '../standard';

export interface ProcessPlan {
  /** VLAN whose tree it runs, for all VLANs of its class; null for the one process of a switch without such trees. */
  readonly vlan: number | null;
  readonly engine: 'mst' | 'stp';
  /** Ids of its trees, as the solver calls them. */
  readonly trees: readonly string[];
  readonly keys: readonly TreeKey[];
  readonly settings: BridgeSettings;
  /** Ports and bundles that take part. */
  readonly ports: readonly string[];
}

export interface NodePlan {
  readonly id: string;
  readonly name: string;
  readonly mode: Mode;
  readonly on: boolean;
  readonly mac: number;
  readonly switch: Switch;
  /** MSTID by VLAN; null where it does not run instances. */
  readonly map: InstanceMap | null;
  readonly elements: readonly (Port | Bundle)[];
  readonly processes: readonly ProcessPlan[];
}

export interface NetworkPlan {
  /** As it acts: pairs of switches folded. */
  readonly design: Design;
  readonly nodes: readonly NodePlan[];
  /** VLAN that is run and looked at for each: VLANs that cannot differ are run once. */
  readonly representative: ReadonlyMap<number, number>;
}

const carries = (element: Port | Bundle, vlan: number): boolean => vlanMembership(element.vlans ?? 'all')[vlan] === 1;

function bridgeSettings(design: Design, s: Switch, keys: readonly TreeKey[], version: 2 | 3): BridgeSettings {
  const config = version === 3 ? mstConfigOf(design, s) : null;
  return {
    mac: macToNumber(s.mac),
    version,
    trees: keys.map((key) => ({
      instance: key.instance ?? 0,
      priority: priorityInForce(design, s, key).value + (key.vlan ?? key.instance ?? 0),
    })),
    configuration: config ? configurationOctets(config.name, config.revision, config.digest) : null,
    timers: {
      ...timersOf(s),
      holdCount: s.holdCount ?? TIMERS.holdCount.default,
      finelyAged: s.ageStep === 'fraction',
      maxHops: (version === 3 ? regionOf(design, s)?.maxHops : undefined) ?? MAX_HOPS.default,
    },
  };
}

function processesOf(
  design: Design,
  s: Switch,
  elements: readonly (Port | Bundle)[],
  representative: ReadonlyMap<number, number>,
  mixed: boolean,
): ProcessPlan[] {
  const mode = modeOf(design, s);
  const engine = isClassicMode(mode) ? 'stp' : 'mst';
  if (!isPerVlan(mode)) {
    const config = mode === 'mstp' ? mstConfigOf(design, s) : null;
    const keys: TreeKey[] = config
      ? [0, ...config.instances].map((instance) => ({ vlan: null, instance }))
      : [{ vlan: null, instance: null }];
    const common = mixed || mode === 'mstp' || design.switches.some((o) => modeOf(design, o) === 'mstp');
    const single = design.switches.some((o) => modeOf(design, o) === 'rstp') || design.mode === 'rstp' ? 'rstp' : 'stp';
    const trees = keys.map(({ instance }) => (instance ? instanceTreeId(instance) : common ? COMMON_TREE : single));
    const settings = bridgeSettings(design, s, keys, mode === 'mstp' ? 3 : 2);
    return [{ vlan: null, engine, trees, keys, settings, ports: elements.map((e) => e.id) }];
  }
  const alike = groupBy(representative.keys(), (vlan) => representative.get(vlan)!);
  const run = new Set([...representative.values(), ...(mixed ? [1] : [])]);
  return [...run].flatMap((vlan): ProcessPlan[] => {
    // Ports of hosts in one of the others have a place in the tree that is run for them.
    const others = alike.get(vlan) ?? [];
    const has = (e: Port | Bundle) =>
      carries(e, vlan) || (!leadsToSwitch(design, e) && others.some((other) => carries(e, other)));
    const ports = elements.filter(has).map((e) => e.id);
    if (ports.length === 0) return [];
    const keys = [{ vlan, instance: null }];
    const trees = [mixed && vlan === 1 ? COMMON_TREE : vlanTreeId(vlan)];
    return [{ vlan, engine, trees, keys, settings: bridgeSettings(design, s, keys, 2), ports }];
  });
}

export function planOf(drawn: Design, representative: ReadonlyMap<number, number>): NetworkPlan {
  const design = actingDesign(drawn);
  const mixed = isMixed(mixtureOf(design));
  const nodes = design.switches.map((s): NodePlan => {
    const elements = [...bundlesOf(design, s.id), ...portsOf(design, s.id)];
    return {
      id: s.id,
      name: s.name,
      mode: modeOf(design, s),
      on: !s.off,
      mac: macToNumber(s.mac),
      switch: s,
      map: modeOf(design, s) === 'mstp' ? mstConfigOf(design, s).map : null,
      elements,
      processes: elements.length === 0 ? [] : processesOf(design, s, elements, representative, mixed),
    };
  });
  return { design, nodes, representative };
}

/** Mb/s of a port by its cable, or of a bundle by the members that are counted. */
export function rateOf(design: Design, element: Port | Bundle, active: readonly string[]): number {
  if (!('members' in element)) {
    const link = linkAt(design, element.id);
    return link ? linkSpeed(design, link) : element.speed;
  }
  return bundleCostRate(design, element, active) || (portById(design, element.members[0] ?? '')?.speed ?? 1000);
}

interface KnownCost {
  readonly design: Design;
  readonly active: readonly string[];
  readonly cost: number;
}
const costs = new WeakMap<Port | Bundle, KnownCost>();

/** What the speed gives; the same in all processes of a switch, and worked out once. */
function costBySpeed(design: Design, node: NodePlan, element: Port | Bundle, active: readonly string[]): number {
  const known = costs.get(element);
  if (known?.design === design && known.active === active) return known.cost;
  const cost = defaultPathCost(rateOf(design, element, active), node.switch.costScale ?? design.costScale);
  costs.set(element, { design, active, cost });
  return cost;
}

/** Settings of a port in a process, as its machines take them. */
export function portSettings(
  design: Design,
  node: NodePlan,
  process: ProcessPlan,
  element: Port | Bundle,
  active: readonly string[],
): PortSettings {
  const bySpeed = costBySpeed(design, node, element, active);
  const outer: TreeKey = process.vlan === null ? { vlan: null, instance: null } : process.keys[0]!;
  return {
    number: element.number,
    pointToPoint: 'members' in element || linkTypeOf(design, element) === 'point-to-point',
    edge: element.edge ?? false,
    autoEdge: element.autoEdge ?? false,
    restrictedRole: element.rootGuard ?? false,
    loopGuard: element.loopGuard ?? false,
    silenceGuard: hasSilenceGuard(design, element),
    ...(element.helloTime === undefined ? {} : { helloTime: element.helloTime }),
    restrictedTcn: element.tcGuard ?? false,
    portId: process.keys.map((key) => portIdentifier(portPriorityInForce(design, element, key).value, element.number)),
    externalCost: costInForce(design, element, outer, bySpeed).value,
    internalCost: process.keys.map((key) => costInForce(design, element, key, bySpeed).value),
  };
}
