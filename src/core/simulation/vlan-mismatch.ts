/** BPDUs that come in another VLAN than the one whose tree they are of. */
import { farEnd, isPerVlan, linkAt } from '../design';
import { extensionIn } from '../protocols/frames';
import type { Envelope } from '../protocols/frames';
import type { BridgePort, Copy, World } from './network-state';

/** VLAN that a BPDU names: in its trailing field, or a plain one as system id extension of its bridge; 0 for none. */
export const vlanNamed = ({ named, payload }: Envelope): number => named ?? extensionIn(payload) ?? 0;

/** Whether a frame comes straight over a cable from a switch that has a tree per VLAN, to one that has too. */
function betweenPerVlan(w: World, bp: BridgePort, { from, to }: Copy): boolean {
  const sender = w.physical.get(from);
  if (!sender || !isPerVlan(sender.node.plan.mode) || !isPerVlan(bp.node.plan.mode)) return false;
  const link = linkAt(w.plan.design, to);
  const far = link && farEnd(link, to);
  return far !== undefined && 'port' in far && far.port === from;
}

/**
 * VLANs in which a port is to be held because of a BPDU; null where nothing is amiss. Of VLAN 1 only the form that names
 * it counts: its plain BPDUs leave every port untagged.
 */
export function straysIn(w: World, bp: BridgePort, copy: Copy, env: Envelope): readonly number[] | null {
  if (env.kind !== 'bpdu' && env.kind !== 'vlan-bpdu') return null;
  const own = bp.element.native ?? 0;
  const named = vlanNamed(env);
  const says = named > 1 || (named === 1 && env.kind === 'vlan-bpdu');
  const untagged = env.vlan === null && says && named !== own;
  const tagged = env.vlan !== null && env.vlan === own;
  if (!(untagged || tagged) || !betweenPerVlan(w, bp, copy)) return null;
  return (untagged ? [own, named] : [own]).filter((vlan) => vlan > 0 && bp.vlans[vlan]);
}
