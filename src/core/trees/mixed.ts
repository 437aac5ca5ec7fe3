/**
 * Trees of single VLANs across switches that know no such tree. To them the BPDUs of a VLAN's tree are data: they pass
 * wherever the VLAN's frames pass. So every part of the network that such switches hold open for the VLAN is one LAN
 * to the switches with a tree per VLAN.
 */
import { lansOf, portsOfBridge } from '../network';
import { vlanMembership } from '../standard';
import { forwardsRole } from './outcome';
import type { Topology } from './topology';

/** Finds the representative of a set, halving the way there. */
function find(parent: Int32Array, item: number): number {
  while (parent[item] !== item) item = parent[item] = parent[parent[item]!]!;
  return item;
}

/**
 * LANs of a VLAN as switches with a tree per VLAN see them: number of the joined LAN by LAN. `roleFor` gives the role
 * that a port of another switch has in the tree that the VLAN's frames follow there.
 */
export function joinedLans(
  topology: Topology,
  perVlan: Uint8Array,
  vlan: number,
  roleFor: (port: number) => number,
): Int32Array {
  const { portLan, portVlans, vlanSets, lanCount } = topology;
  const parent = Int32Array.from({ length: lanCount }, (_, lan) => lan);
  for (let bridge = 0; bridge < perVlan.length; bridge++) {
    if (perVlan[bridge]) continue;
    let first = -1;
    for (const port of portsOfBridge(topology, bridge)) {
      const open =
        portLan[port]! >= 0 && forwardsRole(roleFor(port)) && vlanMembership(vlanSets[portVlans[port]!]!)[vlan];
      if (!open) continue;
      const lan = find(parent, portLan[port]!);
      if (first < 0) first = lan;
      else parent[lan] = find(parent, first);
    }
  }
  return parent.map((_, lan) => find(parent, lan));
}

/** The topology of switches with a tree per VLAN, with LANs joined as given. */
export function overJoinedLans(topology: Topology, perVlan: Uint8Array, joined: Int32Array): Topology {
  const { portLan, portBridge, lanCount } = topology;
  const lanOf = portLan.map((lan, port) => (lan >= 0 && perVlan[portBridge[port]!] ? joined[lan]! : -1));
  return { ...topology, ...lansOf(lanCount, lanOf) };
}
