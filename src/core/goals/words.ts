/** Goals in words. */
import { bundleById, hostById, linkAt, farEnd, portById, portLabel, switchById } from '../design';
import type { Design, Goal, PlaceRef } from '../design';
import { COMMON_TREE, count, formatVlanRanges } from '../standard';
import type { SolvedDesign } from '../trees';
import type { Tree } from '../network';

/** `VLANs 110, 120-130`, `instance 2`, `the CIST`. */
export function treeWords(trees: readonly Tree[]): string {
  const vlans = trees.flatMap((t) => t.vlan ?? []);
  const instances = trees.flatMap((t) => (t.vlan === null && t.instance ? [t.instance] : []));
  const other = trees.filter((t) => t.vlan === null && !t.instance);
  const list = (numbers: number[]) => formatVlanRanges(numbers).replaceAll(',', ', ');
  return [
    vlans.length > 0 && `${vlans.length === 1 ? 'VLAN' : 'VLANs'} ${list(vlans)}`,
    instances.length > 0 && `${instances.length === 1 ? 'instance' : 'instances'} ${list(instances)}`,
    ...other.map((t) =>
      t.id === COMMON_TREE ? (t.name === 'CIST' ? 'the CIST' : 'the common tree') : 'the common tree',
    ),
  ]
    .filter(Boolean)
    .join(', ');
}

/** `quay-a 3`, of a logical port. */
export function endWords({ topology }: SolvedDesign, port: number): string {
  return `${topology.design.switches[topology.portBridge[port]!]!.name} ${topology.ports[port]!.element.name}`;
}

const vlanWords = (vlans: string) =>
  vlans === 'all' ? 'all VLANs' : `${/^\d+$/.test(vlans) ? 'VLAN' : 'VLANs'} ${vlans.replaceAll(',', ', ')}`;

const place = (design: Design, p: PlaceRef) =>
  'host' in p ? (hostById(design, p.host)?.name ?? 'a removed host') : name(design, p.switch);
const name = (design: Design, id: string) => switchById(design, id)?.name ?? 'a removed switch';

/** A port or bundle as people call it; what is gone is called so. */
function end(design: Design, id: string): string {
  const bundle = bundleById(design, id);
  if (bundle) return `bundle ${bundle.name} of ${name(design, bundle.switch)}`;
  return portById(design, id) ? `port ${portLabel(design, id)}` : 'a removed port';
}

function far(design: Design, id: string): string {
  const bundle = bundleById(design, id);
  const link = linkAt(design, bundle?.members[0] ?? id);
  const other = link && farEnd(link, bundle?.members[0] ?? id);
  if (!other) return '';
  const owner =
    'port' in other ? switchById(design, portById(design, other.port)!.switch) : hostById(design, other.host);
  return owner ? ` towards ${owner.name}` : '';
}

/** One sentence that says what the goal wants. */
export function goalSentence(design: Design, goal: Goal): string {
  const of = vlanWords(goal.vlans);
  switch (goal.type) {
    case 'root':
      return `${name(design, goal.switch)} is root of ${of}${goal.next === undefined ? '' : `, ${name(design, goal.next)} comes next`}.`;
    case 'cut':
      return `The blocked port of ${of} is ${end(design, goal.port)}${far(design, goal.port)}.`;
    case 'carries':
      return `The link at ${end(design, goal.port)}${far(design, goal.port)} carries ${of}${goal.only ? ', and other VLANs only as backup' : ''}.`;
    case 'path': {
      const limits = [
        goal.atMost !== undefined && `over at most ${count(goal.atMost, 'hop')}`,
        goal.avoid !== undefined && `not through ${name(design, goal.avoid)}`,
      ].filter(Boolean);
      return `${place(design, goal.from)} and ${place(design, goal.to)} communicate in ${of}${limits.length > 0 ? ` ${limits.join(', ')}` : ''}.`;
    }
    case 'never-root':
      return `No ${goal.tier} switch ever becomes root of ${of}.`;
    case 'load':
      return `No link carries more than ${goal.percent} % of its rate.`;
  }
}
