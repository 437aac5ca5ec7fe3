/** Who takes a BPDU in at the port that it comes to. */
import { extensionIn } from '../protocols/frames';
import type { Envelope } from '../protocols/frames';
import type { Frame } from './frame';
import { straysIn, vlanNamed } from './vlan-mismatch';
import type { BridgePort, Copy, Node, PhysicalPort, Process, Receiver, World } from './network-state';

/** The one VLAN of an access port; 0 for any other. */
export function accessVlan({ element: { native, vlans } }: BridgePort): number {
  return native !== undefined && vlans === String(native) ? native : 0;
}

/**
 * The process that a BPDU is for; null where the switch takes it for data. A plain one is VLAN 1's where its bridge
 * identifier names that, as on every trunk; else that of the access port it comes in at, or of the VLAN that its bridge
 * identifier names where that is what comes untagged.
 */
export function processFor(w: World, bp: BridgePort, env: Envelope): Process | null {
  const { node } = bp;
  if (env.kind === 'bpdu') {
    const named = vlanNamed(env);
    const own = named === 1 ? 1 : accessVlan(bp) || (named > 0 && named === bp.element.native ? named : 1);
    return node.byVlan.get(0) ?? node.byVlan.get(w.plan.representative.get(own) ?? own) ?? null;
  }
  // VLAN 1 speaks plainly too, and that is what counts.
  return env.named === 1 ? null : (node.byVlan.get(env.named!) ?? null);
}

/** Looks who takes BPDUs in at each port of switches: to be done after everything about ports and cables that changes. */
export function findReceivers(w: World, nodes: Iterable<Node>): void {
  for (const node of nodes)
    for (const { id } of node.ports.values()) {
      // A bundle has no port of its own.
      const physical = w.physical.get(id);
      if (physical) findReceiver(physical);
    }
}

function findReceiver(physical: PhysicalPort): void {
  const bp = plainTaker(physical);
  const { takes } = physical;
  if (!bp) physical.takes = null;
  else if (takes?.bp !== bp || takes.element !== bp.element || takes.byVlan !== bp.node.byVlan)
    physical.takes = { bp, element: bp.element, byVlan: bp.node.byVlan };
}

function plainTaker({ carrier, held, node, attached, own }: PhysicalPort): BridgePort | null {
  const bp = attached ?? own;
  const takes = carrier && !held && node.on && !node.treeOff && bp.up;
  return takes && !bp.guard && (bp.filter === 'none' || (bp.filter === 'until-heard' && bp.yielded)) ? bp : null;
}

/** Works out which process a copy of a frame is for at whoever takes it in. */
export function addressTo(w: World, copy: Copy, receiver: Receiver, frame: Frame): void {
  const env = frame.opened;
  const process = env.kind === 'lacpdu' || env.kind === 'oampdu' ? null : processFor(w, receiver.bp, env);
  copy.mismatched = straysIn(w, receiver.bp, copy, env);
  // One without a bridge identifier does not say of what VLAN the next one is.
  copy.receiver = extensionIn(env.payload) === null ? null : receiver;
  copy.process = process?.members[receiver.bp.number] ? process : null;
  copy.bridge = copy.process?.engine.kind === 'mst' ? copy.process.engine.bridge : null;
  copy.index = copy.bridge?.byNumber[receiver.bp.number]!.index ?? 0;
}
