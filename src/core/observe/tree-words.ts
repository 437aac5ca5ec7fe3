/** Trees of an observed network in words. */
import { formatVlanRanges, parseTreeId } from '../standard';

/** `VLANs 110-130`, `the CIST and instance 2`, `the tree of all VLANs`. */
export function treeWordsOf(ids: readonly string[]): string {
  const vlans: number[] = [];
  const others: string[] = [];
  for (const id of ids) {
    const parts = parseTreeId(id);
    if (parts?.kind === 'vlan') vlans.push(parts.vlan);
    else if (parts?.kind === 'instance') others.push(`instance ${parts.instance}`);
    else others.push(parts?.kind === 'common' ? 'the CIST' : 'the tree of all VLANs');
  }
  const own =
    vlans.length === 0
      ? []
      : [`${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${formatVlanRanges(vlans).replaceAll(',', ', ')}`];
  return [...new Set([...others, ...own])].join(', ');
}
