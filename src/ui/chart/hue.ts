/** Hues of trees and VLANs: that of the VLAN, by order when none is set. */
import type { Design, Vlan } from '../../core/design';
import type { Tree } from '../../core/network';

export const HUES = 7;

/** Hue of a VLAN of the design. */
export const vlanHue = ({ vlans }: Pick<Design, 'vlans'>, vlan: Vlan): number =>
  (vlan.hue ?? vlans.indexOf(vlan)) % HUES;

/** Hue of a tree: that of its VLAN, or the first. */
export function hueOf(design: Design, tree: Tree): number {
  const vlan = design.vlans.find((v) => v.number === tree.vlan);
  return vlan ? vlanHue(design, vlan) : (tree.instance ?? 0) % HUES;
}
