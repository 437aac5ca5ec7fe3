/** Which spanning trees a design runs. */
import type { Design } from '../design';
import { isPerVlan } from '../design';

export interface Tree {
  /** `vlan-110` for a VLAN's own tree, `rstp` or `stp` for the one tree of all VLANs. */
  readonly id: string;
  readonly vlans: readonly number[];
  /** The VLAN whose tree it is; null for the one tree of all. */
  readonly vlan: number | null;
  readonly name: string;
}

/** One tree per VLAN in ascending order, or one for all, as the mode of the design says. */
export function treesOf(design: Design): readonly Tree[] {
  const vlans = [...design.vlans].sort((a, b) => a.number - b.number);
  if (!isPerVlan(design.mode))
    return [{ id: design.mode, vlans: vlans.map((v) => v.number), vlan: null, name: 'all VLANs' }];
  return vlans.map((v) => ({ id: `vlan-${v.number}`, vlans: [v.number], vlan: v.number, name: v.name ?? '' }));
}

/** System id extension of a tree's bridge identifiers: the VLAN of a per-VLAN tree, else 0. */
export const systemIdExtension = (tree: Tree): number => tree.vlan ?? 0;
