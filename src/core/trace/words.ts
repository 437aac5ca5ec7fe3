/** Names and times as they stand in sentences. */
import { bundleAt, bundleById, hostById, portById, switchById } from '../design';
import type { Design } from '../design';
import { formatVlanRanges, more, parseTreeId, vlanMembership, vlanOfTreeId } from '../standard';
import type { Trace } from './recorder';

/** Microseconds that something lasts before it counts: one switch alone as root, since others answer within less. */
export const AGREED = 50_000;

/** `crane-yard 1`, of a port or bundle; what was plugged in by a script keeps its own name. */
export function portWords(design: Design, id: string): string {
  const port = portById(design, id) ?? bundleById(design, id);
  return port ? `${switchById(design, port.switch)?.name} ${port.name}` : id;
}
export const hostWords = (design: Design, id: string) => hostById(design, id)?.name ?? id;

/** Ranges of VLANs that are written out; of more, the first few are named and all are counted. */
const MOST_RANGES = 8;

function vlanList(vlans: readonly number[]): string {
  const ranges = formatVlanRanges(vlans).split(',');
  if (ranges.length > MOST_RANGES) return `${vlans.length} VLANs (${ranges.slice(0, 3).join(', ')} …)`;
  return `${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${ranges.join(', ')}`;
}

/** Whether a port or bundle carries a VLAN. */
export const carriesVlan = (design: Design, id: string, vlan: number): boolean =>
  vlanMembership((bundleById(design, id) ?? bundleAt(design, id) ?? portById(design, id))?.vlans ?? 'all')[vlan] === 1;

/** VLANs that a rehearsed tree is run for, at a port those that it carries; none for a tree of all VLANs. */
export function vlansOfTree(trace: Trace, tree: string, at?: { design: Design; port: string }): readonly number[] {
  const own = vlanOfTreeId(tree);
  const all = own === null ? [] : (trace.classes[own] ?? [own]);
  return at ? all.filter((vlan) => carriesVlan(at.design, at.port, vlan)) : all;
}

/** Names of trees, with the VLANs of each: `VLANs 110-120, 150`, `instance 2`, `the CIST`. */
export function treeNames(trees: readonly string[], vlansOf: (tree: string) => readonly number[]): string {
  const vlans = trees.flatMap((tree) => (vlanOfTreeId(tree) === null ? [] : vlansOf(tree)));
  const others = trees.flatMap((tree) => {
    const parts = parseTreeId(tree);
    if (parts?.kind === 'vlan') return [];
    if (parts?.kind === 'instance') return [`instance ${parts.instance}`];
    return [parts?.kind === 'common' ? 'the CIST' : 'the common tree'];
  });
  return [...others, ...(vlans.length > 0 ? [vlanList(vlans)] : [])].join(', ');
}

/** Names of rehearsed trees, with the VLANs that they are run for; at a port those that it carries. */
export const treesWords = (trace: Trace, trees: readonly string[], at?: { design: Design; port: string }): string =>
  treeNames(trees, (tree) => vlansOfTree(trace, tree, at));

const andMore = (n: number, one: string, many?: string): string => (n <= 0 ? '' : ` and ${more(n, one, many)}`);

/** The first few of some ports, and how many more. */
export const portList = (design: Design, ports: readonly string[]): string =>
  ports
    .slice(0, 6)
    .map((p) => portWords(design, p))
    .join(', ') + andMore(ports.length - 6, 'port');

/** VLANs whose frames go like those of some: `VLANs 110-120, 150`, `23 VLANs (10, 28, 46 …)`. */
export const vlansWords = (trace: Trace, vlans: readonly number[]): string =>
  vlanList(vlans.flatMap((vlan) => trace.classes[vlan] ?? [vlan]));

/** The first few of some switches by name, and how many more. */
export const switchList = (design: Design, ids: readonly string[]): string =>
  ids
    .slice(0, 6)
    .map((id) => switchById(design, id)?.name ?? id)
    .join(', ') + andMore(ids.length - 6, 'switch', 'switches');
