/**
 * Trees of single VLANs across switches that know no such tree. To them the BPDUs of a VLAN's tree are data: they pass
 * wherever the VLAN's frames pass. So every part of the network that such switches hold open for the VLAN is one LAN
 * to the switches with a tree per VLAN.
 */
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
  const { portLan, portVlans, vlanSets, lanCount, bridgeStart, bridgePorts } = topology;
  const parent = Int32Array.from({ length: lanCount }, (_, lan) => lan);
  for (let bridge = 0; bridge < perVlan.length; bridge++) {
    if (perVlan[bridge]) continue;
    let first = -1;
    for (let i = bridgeStart[bridge]!; i < bridgeStart[bridge + 1]!; i++) {
      const port = bridgePorts[i]!;
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
  const lanStart = new Int32Array(lanCount + 1);
  for (const lan of lanOf) if (lan >= 0) lanStart[lan + 1]!++;
  for (let lan = 0; lan < lanCount; lan++) lanStart[lan + 1]! += lanStart[lan]!;
  const lanPorts = new Int32Array(lanStart[lanCount]!);
  const fill = lanStart.slice(0, lanCount);
  lanOf.forEach((lan, port) => {
    if (lan >= 0) lanPorts[fill[lan]!++] = port;
  });
  return { ...topology, portLan: lanOf, lanStart, lanPorts };
}
