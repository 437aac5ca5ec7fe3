/**
 * Guards as they change what trees are made of. A BPDU guard shuts a port that receives BPDUs; a port with a BPDU filter
 * neither sends nor receives any, so that it is alone in every tree while frames pass; a port with root guard never
 * becomes root port (restrictedRole, 802.1Q-2018 clause 13.27.64). A loop guard acts only where BPDUs stop to arrive:
 * at rest it changes nothing.
 */
import { hasBpduGuard, isFiltered, isPerVlan, modeOf, segmentAt } from '../design';
import { lansOf, meetsOthers, peersOf } from '../network';
import { remembered } from '../remembered';
import { vlanMembership } from '../standard';
import { portsThat } from './set-ports';
import type { Topology } from './topology';

/**
 * Whether spanning tree sends BPDUs out of a port that another one looks at: one is up, without filter, and has a tree to speak
 * of. To a switch without trees per VLAN those of single VLANs are data: it looks at plain ones alone, which VLAN 1 sends, and
 * the VLAN of an access port.
 */
function sendsBpdus({
  design,
  ports,
  portBridge,
  portVlans,
  vlanSets,
}: Topology): (port: number, to: number) => boolean {
  const perVlan = design.switches.map((s) => isPerVlan(modeOf(design, s)));
  const sets = vlanSets.map((set) => {
    const carried = vlanMembership(set);
    const trees = design.vlans.filter(({ number }) => carried[number] === 1).map((v) => v.number);
    return { any: trees.length > 0, one: carried[1] === 1, only: trees.length === 1 && set === String(trees[0]) };
  });
  return (port, to) => {
    const { element } = ports[port]!;
    if (isFiltered(design, element)) return false;
    if (!perVlan[portBridge[port]!]) return true;
    const { any, one, only } = sets[portVlans[port]!]!;
    return perVlan[portBridge[to]!] ? any : one || (only && element.native !== undefined);
  };
}

/** Ports with a guard of their own, or one that their switch may give them as edge ports; those with a filter of their own. */
const armable = portsThat((e) => e.bpduGuard === true || e.edge === true);
const filterable = portsThat((e) => e.bpduFilter === true);

/** Ports that their BPDU guard shuts, since another port of their LAN sends BPDUs. */
function trippedPorts(topology: Topology): readonly number[] {
  const armed = armable(topology.ports).filter((p) => {
    const { element } = topology.ports[p]!;
    return hasBpduGuard(topology.design, element) && !isFiltered(topology.design, element) && meetsOthers(topology, p);
  });
  if (armed.length === 0) return armed;
  const sends = sendsBpdus(topology);
  return armed.filter((p) => peersOf(topology, p).some((q) => sends(q, p)));
}

/**
 * The topology with tripped ports on no LAN. A port alone on its cable takes the light from the other end, which is down
 * then too; a bundle keeps its members, and a segment its other ports.
 */
export function withGuards(all: Topology): Topology {
  const shut = trippedPorts(all);
  if (shut.length === 0) return all;
  const out = new Set(shut);
  for (const p of shut) {
    const { kind, element } = all.ports[p]!;
    if (kind === 'port' && !segmentAt(all.design, element.id)) for (const far of peersOf(all, p)) out.add(far);
  }
  const portLan = all.portLan.map((lan, p) => (out.has(p) ? -1 : lan));
  return { ...all, ...lansOf(all.lanCount, portLan), unguarded: all, shut: new Set(shut) };
}

/**
 * The topology as BPDUs see it: every port with a filter is alone on a LAN of its own. The same object without any. `among`: 1 for
 * bridges whose filters count, all of them where it is not given.
 */
export function asBpdusSee(topology: Topology, among?: Uint8Array): Topology {
  const { design, ports, portBridge, lanCount } = topology;
  const counts = (p: number) => !among || among[portBridge[p]!] === 1;
  const filtered = filterable(ports).filter(
    (p) => counts(p) && isFiltered(design, ports[p]!.element) && meetsOthers(topology, p),
  );
  if (filtered.length === 0) return topology;
  const portLan = topology.portLan.slice();
  filtered.forEach((p, i) => (portLan[p] = lanCount + i));
  return { ...topology, ...lansOf(lanCount + filtered.length, portLan) };
}

const rootGuarded = portsThat((e) => e.rootGuard === true);
const restricted = remembered((ports: Topology['ports']) => {
  const guarded = rootGuarded(ports);
  if (guarded.length === 0) return null;
  const found = new Uint8Array(ports.length);
  for (const p of guarded) found[p] = 1;
  return found;
});

/** 1 for every port that may not become root port; null where every port may. */
export const restrictedPorts = ({ ports }: Topology): Uint8Array | null => restricted(ports);
