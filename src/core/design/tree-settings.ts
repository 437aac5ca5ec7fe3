/** Settings that may differ from tree to tree. */
import { pathCost, portPriority, perVlan, perInstance, vlanSet, vlanNumber, whole } from './values';
import { z } from 'zod';
import { TIMERS } from '../standard';
import { documentMessages as say } from '../messages';

/** What a port and a bundle have in common: everything that spanning tree and VLANs ask of it. */
export const treeSettings = {
  /** Port path cost for all trees; absent: by speed. */
  cost: pathCost.optional(),
  /** Port priority for all trees; absent: 128. */
  priority: portPriority.optional(),
  /** Port path cost for single VLANs, by VLAN number. */
  vlanCost: perVlan(pathCost),
  /** Port priority for single VLANs, by VLAN number. */
  vlanPriority: perVlan(portPriority),
  /** Cost inside an MST region where it differs from the one outside (802.1Q internal port path cost). */
  internalCost: pathCost.optional(),
  /** Internal port path cost for single MST instances, by MSTID; 0 is the CIST inside its region. */
  instanceCost: perInstance(pathCost),
  /** Port priority for single MST instances, by MSTID; 0 is the CIST. */
  instancePriority: perInstance(portPriority),
  /** VLANs carried, tagged and untagged together; absent: all. */
  vlans: vlanSet.optional(),
  /** The one of them that travels untagged; absent: none named. */
  native: vlanNumber.optional(),
  /** Becomes an edge port by itself while it hears no BPDU; absent: no. */
  autoEdge: z.boolean().optional(),
  /** Shuts the port on the first BPDU heard. */
  bpduGuard: z.boolean().optional(),
  /** Neither sends nor hears BPDUs. */
  bpduFilter: z.boolean().optional(),
  /** The filter sends BPDUs in the first ten hellos, and ends with the first one heard until the port goes down; absent: no. */
  filterYields: z.boolean().optional(),
  /** Blocks the port while it receives superior BPDUs (restrictedRole). */
  rootGuard: z.boolean().optional(),
  /** Holds the port back when BPDUs stop coming, instead of opening it. */
  loopGuard: z.boolean().optional(),
  /** Lets topology changes that come from this port go no further (restrictedTcn). */
  tcGuard: z.boolean().optional(),
  /** Sends BPDUs in every role, and holds the port back while it hears none; on point-to-point links, not in classic modes. */
  silenceGuard: z.boolean().optional(),
  /** Seconds between hellos of this port, not in classic modes; absent: as the root says. */
  helloTime: whole(TIMERS.helloTime.min, TIMERS.helloTime.max, (v) => say.timer('helloTime', v)).optional(),
};
