/**
 * What one tree asks of the solver: who takes part, with which priorities and costs. Trees that ask the same are one
 * class and are solved once.
 */
import { BRIDGE_PRIORITY, portIdentifier, vlanMembership } from '../standard';
import { treesOf } from './list';
import type { Tree } from './list';
import type { Topology } from './topology';

export interface TreeProblem {
  /** 1 for a bridge that has the tree at all. */
  readonly bridgeTakesPart: Uint8Array;
  /** Without the system id extension, which is the same on every bridge of a tree. */
  readonly bridgePriority: Int32Array;
  /** 1 for a port that belongs to the tree, up or down. */
  readonly portTakesPart: Uint8Array;
  readonly portCost: Float64Array;
  readonly portId: Int32Array;
}

/** One setting made for a single VLAN: a bridge's priority, a port's cost, a port's priority. */
interface Override {
  readonly field: 'bridgePriority' | 'portCost' | 'portId';
  readonly index: number;
  readonly value: number;
}

function overridesByVlan(topology: Topology): Map<number, Override[]> {
  const found = new Map<number, Override[]>();
  const add = (table: Record<string, number> | undefined, field: Override['field'], index: number) => {
    for (const vlan in table) {
      const override = { field, index, value: table[vlan]! };
      const list = found.get(Number(vlan));
      if (list) list.push(override);
      else found.set(Number(vlan), [override]);
    }
  };
  topology.design.switches.forEach((s, b) => add(s.vlanPriority, 'bridgePriority', b));
  topology.ports.forEach(({ element }, i) => {
    if (element.vlanCost) add(element.vlanCost, 'portCost', i);
    if (element.vlanPriority) add(element.vlanPriority, 'portId', i);
  });
  return found;
}

/** Trees that cannot differ, with the problem they have in common. */
export interface TreeClass {
  readonly trees: readonly Tree[];
  readonly problem: TreeProblem;
}

/** Sorts the trees into classes by the VLAN sets that hold them and by the settings made for them alone. */
export function classesOf(topology: Topology): TreeClass[] {
  const overrides = overridesByVlan(topology);
  const sets = topology.vlanSets.map(vlanMembership);
  const classes = new Map<string, Tree[]>();
  for (const tree of treesOf(topology.design)) {
    let key = '';
    if (tree.vlan !== null) {
      for (const set of sets) key += set[tree.vlan];
      const special = overrides.get(tree.vlan);
      if (special) for (const { field, index, value } of special) key += ` ${field}${index}:${value}`;
    }
    const known = classes.get(key);
    if (known) known.push(tree);
    else classes.set(key, [tree]);
  }
  const common = Int32Array.from(topology.design.switches, (s) => s.priority ?? BRIDGE_PRIORITY.default);
  const takingPart = new Map<string, Pick<TreeProblem, 'bridgeTakesPart' | 'portTakesPart'>>();
  return [...classes.values()].map((trees) => {
    const { vlan } = trees[0]!;
    const held = sets.map((set) => (vlan === null ? 1 : set[vlan]!));
    const key = held.join('');
    if (!takingPart.has(key)) takingPart.set(key, participation(topology, held, vlan === null));
    const special = vlan === null ? [] : (overrides.get(vlan) ?? []);
    return { trees, problem: { ...takingPart.get(key)!, ...settings(topology, common, special) } };
  });
}

/** Ports whose VLAN set is held, and bridges that have one; a tree of all VLANs runs on every bridge. */
function participation(topology: Topology, held: readonly number[], everywhere: boolean) {
  const { design, ports, portVlans, portBridge } = topology;
  const bridgeTakesPart = new Uint8Array(design.switches.length).fill(everywhere ? 1 : 0);
  const portTakesPart = new Uint8Array(ports.length);
  for (let p = 0; p < portTakesPart.length; p++)
    if (held[portVlans[p]!]) {
      portTakesPart[p] = 1;
      bridgeTakesPart[portBridge[p]!] = 1;
    }
  design.switches.forEach((s, b) => {
    if (s.off) bridgeTakesPart[b] = 0;
  });
  return { bridgeTakesPart, portTakesPart };
}

/** The settings of all trees with those of single VLANs laid over; an array without any is shared, not copied. */
function settings(topology: Topology, common: Int32Array, special: readonly Override[]) {
  const copied = <T extends { slice(): T }>(array: T, field: Override['field']): T =>
    special.some((o) => o.field === field) ? array.slice() : array;
  const result = {
    bridgePriority: copied(common, 'bridgePriority'),
    portCost: copied(topology.portCost, 'portCost'),
    portId: copied(topology.portId, 'portId'),
  };
  for (const { field, index, value } of special)
    result[field][index] = field === 'portId' ? portIdentifier(value, topology.portNumber[index]!) : value;
  return result;
}
