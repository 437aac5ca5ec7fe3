/**
 * What one tree asks of the solver: who takes part, with which priorities and costs. Trees that ask the same are one
 * class and are solved once.
 */
import { isPerVlan, modeOf } from '../design';
import { BRIDGE_PRIORITY, portIdentifier, vlanMembership } from '../standard';
import { isMixed, mixtureOf, mstConfigOf, treesOf } from '../network';
import type { Tree } from '../network';
import type { Topology } from './topology';
import { remembered } from '../remembered';
import { restrictedPorts } from './guards';
import { NO_OVERRIDES, overridesBy } from './overrides';
import type { Override } from './overrides';
import { finelyAged, isClassic, reachByAge, reachByHops } from './reach';
import { heldAlone, heldIn } from './untagged';

export interface TreeProblem {
  /** 1 for a bridge that has the tree at all. */
  readonly bridgeTakesPart: Uint8Array;
  /** Without the system id extension, which is the same on every bridge of a tree unless `extensions` says otherwise. */
  readonly bridgePriority: Int32Array;
  /** System id extension by bridge, where it is not the same on all: in the common tree of a mixed network. */
  readonly extensions?: Int32Array;
  /** 1 for a port that belongs to the tree, up or down. */
  readonly portTakesPart: Uint8Array;
  /** In the CIST the external cost; in an MST instance the internal one. */
  readonly portCost: Float64Array;
  readonly portId: Int32Array;
  /** Most bridges that the word of each as a root goes over: by the maximum age, in an instance by the hops. */
  readonly reach: Int32Array;
  /** 1 for a bridge that adds 1/256 s to the age of a message in place of a second; absent where none does, and where hops count. */
  readonly finelyAged?: Uint8Array | undefined;
  /** 1 for a port that may not become root port (root guard); absent where every port may. */
  readonly portRestricted?: Uint8Array;
}

/** What the CIST needs in addition. */
export interface CistProblem extends TreeProblem {
  readonly internalCost: Float64Array;
  /** Number of the MST configuration by bridge; bridges of one number are of one region. −1: no MST bridge. */
  readonly region: Int32Array;
  /** 1 for a bridge that understands version 0 alone: towards it an MST bridge speaks for itself (802.1Q-2018 clause 13.10). */
  readonly classic: Uint8Array;
}

/** Trees that cannot differ, with the problem they have in common. */
export interface TreeClass {
  readonly trees: readonly Tree[];
  readonly problem: TreeProblem;
  /** Ports that are inconsistent in it. */
  readonly held: readonly number[];
  /** Those of them that the other end hears all the same. */
  readonly heard: readonly number[];
}

const prioritiesOf = remembered((switches: Topology['design']['switches']) =>
  Int32Array.from(switches, (s) => s.priority ?? BRIDGE_PRIORITY.default),
);
const commonPriorities = ({ design }: Topology): Int32Array => prioritiesOf(design.switches);

/** Which of the VLAN sets hold a VLAN, as digits. */
const heldBySets = remembered((vlanSets: readonly string[]) => {
  const sets = vlanSets.map(vlanMembership);
  const known = new Map<number, string>();
  return (vlan: number): string => {
    let key = known.get(vlan);
    if (key === undefined) {
      key = '';
      for (const set of sets) key += set[vlan];
      known.set(vlan, key);
    }
    return key;
  };
});

/** Bridges that keep a tree for every VLAN. */
export const perVlanBridges = ({ design }: Topology): Uint8Array =>
  Uint8Array.from(design.switches, (s) => (isPerVlan(modeOf(design, s)) ? 1 : 0));

/** Sorts trees into classes by the VLAN sets that hold them, by the settings made for them alone, and by `too`. */
export function classesOf(
  topology: Topology,
  trees: readonly Tree[] = treesOf(topology.design),
  extras: (tree: Tree) => string = () => '',
  among?: Uint8Array,
): TreeClass[] {
  const overrides = overridesBy(topology, 'vlan');
  const sets = topology.vlanSets.map(vlanMembership);
  const setKey = heldBySets(topology.vlanSets);
  const classes = new Map<string, Tree[]>();
  for (const tree of trees) {
    let key = '';
    if (tree.vlan !== null) {
      key = setKey(tree.vlan);
      for (const { field, index, value } of overrides(tree.vlan)) key += ` ${field}${index}:${value}`;
      key += extras(tree);
      const held = heldIn(topology, tree.vlan);
      if (held.length > 0) key += ` held ${held.join()}`;
    }
    const known = classes.get(key);
    if (known) known.push(tree);
    else classes.set(key, [tree]);
  }
  const common = commonPriorities(topology);
  const takingPart = new Map<string, Pick<TreeProblem, 'bridgeTakesPart' | 'portTakesPart'>>();
  return [...classes.values()].map((members) => {
    const { vlan } = members[0]!;
    const held = sets.map((set) => (vlan === null ? 1 : set[vlan]!));
    const key = held.join('');
    if (!takingPart.has(key)) takingPart.set(key, participation(topology, held, vlan === null, among));
    const special = vlan === null ? NO_OVERRIDES : overrides(vlan);
    const heard = heldAlone(topology, vlan);
    const problem = restricting({ ...takingPart.get(key)!, ...settings(topology, common, special) }, heard);
    return { trees: members, problem, held: heldIn(topology, vlan), heard };
  });
}

/** The problem with more ports that may not become root port. */
function restricting(problem: TreeProblem, ports: readonly number[]): TreeProblem {
  if (ports.length === 0) return problem;
  const portRestricted = problem.portRestricted?.slice() ?? new Uint8Array(problem.portCost.length);
  for (const port of ports) portRestricted[port] = 1;
  return { ...problem, portRestricted };
}

/** Ports whose VLAN set is held, and bridges that have one; a tree of all VLANs runs on every bridge. */
function participation(topology: Topology, held: readonly number[], everywhere: boolean, among?: Uint8Array) {
  const { design, ports, portVlans, portBridge, actsAs } = topology;
  const bridgeTakesPart = new Uint8Array(design.switches.length).fill(everywhere ? 1 : 0);
  const portTakesPart = new Uint8Array(ports.length);
  for (let p = 0; p < portTakesPart.length; p++)
    if (held[portVlans[p]!] && (!among || among[portBridge[p]!])) {
      portTakesPart[p] = 1;
      bridgeTakesPart[portBridge[p]!] = 1;
    }
  design.switches.forEach((s, b) => {
    if (s.off || actsAs[b] !== b) bridgeTakesPart[b] = 0;
  });
  return { bridgeTakesPart, portTakesPart };
}

/** The settings of all trees with special ones laid over; an array without any is shared, not copied. */
function settings(
  topology: Topology,
  common: Int32Array,
  special: readonly Override[],
  portCost: Float64Array = topology.portCost,
) {
  const copied = <T extends { slice(): T }>(array: T, field: Override['field']): T =>
    special.some((o) => o.field === field) ? array.slice() : array;
  const restricted = restrictedPorts(topology);
  const fine = finelyAged(topology.design);
  const result = {
    reach: reachByAge(topology.design),
    bridgePriority: copied(common, 'bridgePriority'),
    portCost: copied(portCost, 'portCost'),
    portId: copied(topology.portId, 'portId'),
    ...(restricted ? { portRestricted: restricted } : {}),
    ...(fine ? { finelyAged: fine } : {}),
  };
  for (const { field, index, value } of special)
    result[field][index] = field === 'portId' ? portIdentifier(value, topology.portNumber[index]!) : value;
  return result;
}

const internalCosts = ({ ports, portCost }: Topology): Float64Array =>
  Float64Array.from(ports, ({ element }, i) => element.internalCost ?? portCost[i]!);

/** Number of the region by bridge: switches with equal configurations share one; −1 for switches without MSTP. */
function regionNumbers({ design }: Topology): Int32Array {
  const numbers = new Map<string, number>();
  return Int32Array.from(design.switches, (s) => {
    if (modeOf(design, s) !== 'mstp') return -1;
    const { key } = mstConfigOf(design, s);
    if (!numbers.has(key)) numbers.set(key, numbers.size);
    return numbers.get(key)!;
  });
}

/**
 * The CIST, or the common tree where switches with a tree per VLAN take part with that of VLAN 1: with its priority
 * and cost, its extension, and on the ports that carry it.
 */
export function cistProblem(topology: Topology): CistProblem {
  const { design, ports, portBridge, portVlans, vlanSets } = topology;
  const region = regionNumbers(topology);
  const ofCist = overridesBy(
    topology,
    'instance',
  )(0).filter(({ field, index }) =>
    field === 'bridgePriority' ? region[index]! >= 0 : region[portBridge[index]!]! >= 0,
  );
  const classic = Uint8Array.from(design.switches, (s) => (isClassic(design, s) ? 1 : 0));
  const internalCost = internalCosts(topology);
  for (const { field, index, value } of ofCist) if (field === 'portCost') internalCost[index] = value;
  const notCosts = ofCist.filter(({ field }) => field !== 'portCost');
  const everywhere = participation(
    topology,
    vlanSets.map(() => 1),
    true,
  );
  if (!isMixed(mixtureOf(design)))
    return {
      ...everywhere,
      ...settings(topology, commonPriorities(topology), notCosts),
      internalCost,
      region,
      classic,
    };
  const perVlan = perVlanBridges(topology);
  const one = vlanSets.map((set) => vlanMembership(set)[1]!);
  const ofVlan1 = overridesBy(
    topology,
    'vlan',
  )(1).filter(({ field, index }) => (field === 'bridgePriority' ? perVlan[index] : perVlan[portBridge[index]!]));
  const { bridgeTakesPart } = participation(topology, one, false, perVlan);
  return {
    bridgeTakesPart: everywhere.bridgeTakesPart.map((on, b) => (perVlan[b] ? bridgeTakesPart[b]! : on)),
    portTakesPart: Uint8Array.from(ports, (_, p) => (perVlan[portBridge[p]!] ? one[portVlans[p]!]! : 1)),
    extensions: Int32Array.from(perVlan),
    ...settings(topology, commonPriorities(topology), [...notCosts, ...ofVlan1]),
    internalCost,
    region,
    classic,
  };
}

/**
 * An MST instance: on the bridges whose map has a VLAN in it, over LANs that belong to their region. Which LANs do is
 * decided by the CIST, hence `inRegion`, by port.
 */
export function instanceProblems(
  topology: Topology,
  instances: readonly number[],
  inRegion: Uint8Array,
): ReadonlyMap<number, TreeProblem> {
  const { design, ports, portBridge, actsAs } = topology;
  const configs = design.switches.map((s) => (modeOf(design, s) === 'mstp' ? mstConfigOf(design, s) : null));
  const overrides = overridesBy(topology, 'instance');
  const common = commonPriorities(topology);
  const internalCost = internalCosts(topology);
  const reach = reachByHops(design);
  // Instances that exist on the same bridges share the arrays that say so.
  const takingPart = new Map<string, Pick<TreeProblem, 'bridgeTakesPart' | 'portTakesPart'>>();
  return new Map(
    instances.map((instance) => {
      const has = configs.map((c, b) =>
        c?.instances.includes(instance) && !design.switches[b]!.off && actsAs[b] === b ? 1 : 0,
      );
      const key = has.join('');
      if (!takingPart.has(key))
        takingPart.set(key, {
          bridgeTakesPart: Uint8Array.from(has),
          portTakesPart: Uint8Array.from(ports, (_, p) => (has[portBridge[p]!] && inRegion[p] ? 1 : 0)),
        });
      const special = overrides(instance);
      const asked = settings(topology, common, special, internalCost);
      // Hops count, not ages.
      return [instance, { ...takingPart.get(key)!, ...asked, reach, finelyAged: undefined }];
    }),
  );
}
