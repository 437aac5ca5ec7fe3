/** How trees are called on screen. */
import { COMMON_TREE, formatVlanRanges } from '../../core/standard';
import type { Tree } from '../../core/network';

/** `VLAN 110 ticketing`, `Instance 2`, `CIST`. */
export function treeTitle(tree: Tree): string {
  if (tree.vlan !== null) return `VLAN ${tree.vlan} ${tree.name}`.trim();
  if (tree.instance) return `Instance ${tree.instance}`;
  return tree.id === COMMON_TREE ? (tree.name === 'CIST' ? 'CIST' : 'Common tree') : 'Tree of all VLANs';
}

/** `110`, `i2`, `CIST`: as short as it goes. */
export function treeMark(tree: Tree): string {
  if (tree.vlan !== null) return String(tree.vlan);
  if (tree.instance) return `i${tree.instance}`;
  return tree.id === COMMON_TREE ? 'CIST' : 'all';
}

/** Several trees in one line: `VLAN 110 ticketing` of one, `VLANs 110, 120-130`, or their marks. */
export function treesTitle(trees: readonly Tree[]): string {
  const [first] = trees;
  if (first && trees.length === 1) return treeTitle(first);
  const vlans = trees.flatMap((t) => t.vlan ?? []);
  if (vlans.length < trees.length) return trees.map(treeMark).join(', ');
  return `VLANs ${formatVlanRanges(vlans).replaceAll(',', ', ')}`;
}
