/** Goals in words. */
import { goalMessages as say } from '../messages';
import { bundleById, hostById, linkAt, farEnd, portById, portLabel, switchById, workWords } from '../design';
import type { Design, Edit, Goal, PlaceRef } from '../design';
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

/** `1 new cable and 2 settings on 2 switches`: what a proposal asks for. */
export const proposalWords = ({ edits, devices }: { edits: readonly Edit[]; devices: number }): string =>
  `${workWords(edits)} on ${count(devices, 'switch', 'switches')}`;

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

const among = (design: Design, who: Extract<Goal, { type: 'stays-connected' }>['among']): string =>
  typeof who === 'string' ? `all ${who}` : `${place(design, who.from)} and ${place(design, who.to)}`;

/** One sentence that says what the goal wants. */
export function goalSentence(design: Design, goal: Goal): string {
  const of = vlanWords(goal.vlans);
  switch (goal.type) {
    case 'root':
      return say.root({
        name: name(design, goal.switch),
        next: goal.next === undefined ? null : name(design, goal.next),
        of,
      });
    case 'cut':
      return say.blocked({ port: end(design, goal.port) + far(design, goal.port), of });
    case 'carries':
      return say.carries({ port: end(design, goal.port) + far(design, goal.port), of, only: goal.only === true });
    case 'path':
      return say.path({
        from: place(design, goal.from),
        to: place(design, goal.to),
        of,
        atMost: goal.atMost ?? null,
        avoid: goal.avoid === undefined ? null : name(design, goal.avoid),
      });
    case 'never-root':
      return say['never-root']({ tier: goal.tier, of });
    case 'load':
      return say.load({ percent: goal.percent });
    case 'stays-connected':
      return say['stays-connected']({ who: among(design, goal.among), of });
    case 'outage':
      return say.outage({ atMost: goal.atMost });
    case 'load-left':
      return say['load-left']({ percent: goal.percent });
  }
}
