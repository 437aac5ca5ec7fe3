/** Hue of a tree: that of its VLAN, or the first. */
import type { Design } from '../../core/design';
import type { Tree } from '../../core/trees';

export const HUES = 7;

export function hueOf(design: Design, tree: Tree): number {
  const at = tree.vlan === null ? -1 : design.vlans.findIndex((v) => v.number === tree.vlan);
  return at < 0 ? 0 : (design.vlans[at]!.hue ?? at) % HUES;
}
