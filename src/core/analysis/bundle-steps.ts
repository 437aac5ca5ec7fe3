/** The order of work that makes a bundle on a pair of switches in service, as steps to hand over. */
import { sharedWith, verdictOf } from '../network';
import { splitBundles } from '../design';
import { applyEdits, farEnd, linkAt, modeOf, portById, switchById } from '../design';
import type { Bundle, Design } from '../design';
import { ROLE, forwardsRole, solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { timersInForce } from './tree-timers';

export interface WorkStep {
  /** Switch at which it is done; empty for both. */
  readonly at: string;
  readonly work: string;
  /** What passes no frames meanwhile. */
  readonly meanwhile: string;
  /** What to look for before going on. */
  readonly check: string;
}

const names = (design: Design, ports: readonly string[]) => ports.map((p) => portById(design, p)!.name).join(', ');

/** Root path cost of a switch, summed over all trees: the lower, the nearer to the roots. */
const distance = (solved: SolvedDesign, id: string): number => {
  const bridge = solved.topology.bridgeIndex.get(id)!;
  return solved.trees.reduce((sum, { outcome }) => {
    const cost = outcome.rootPathCost[bridge]!;
    return sum + (Number.isFinite(cost) ? cost : 0);
  }, 0);
};

/** Cut ends of the cables while the bundle is not there yet: port id and number of trees. */
function cutsBefore(plain: SolvedDesign, ports: readonly string[]): string[] {
  const { design, portIndex, ports: logical } = plain.topology;
  return ports.flatMap((id) => {
    const p = portIndex.get(id)!;
    const cut = plain.trees.filter(
      ({ outcome, problem }) =>
        problem.portTakesPart[p] && outcome.role[p] !== ROLE.disabled && !forwardsRole(outcome.role[p]),
    ).length;
    const all = plain.trees.filter(({ problem }) => problem.portTakesPart[p]).length;
    const { element } = logical[p]!;
    return cut === 0
      ? []
      : [
          `${switchById(design, element.switch)!.name} ${element.name} in ${cut === all ? 'every tree' : `${cut} of ${all} trees`}`,
        ];
  });
}

/**
 * Steps for two ends that face each other. The end farther from the roots comes first: the engineer reaches it over
 * the cable that the near end still keeps open.
 */
export function bundleOrder(design: Design, one: Bundle, other: Bundle): readonly WorkStep[] {
  const twins = [one, other].flatMap((b) => sharedWith(design, b) ?? []);
  const applied = applyEdits(design, splitBundles([one, other, ...twins].map((b) => b.id)));
  if (!applied.ok) return [];
  const plain = solveDesign(applied.design);
  const [near, far] =
    distance(plain, one.switch) <= distance(plain, other.switch) ? ([one, other] as const) : ([other, one] as const);
  const [nearName, farName] = [near, far].map((b) => switchById(design, b.switch)!.name) as [string, string];
  const farPorts = [...near.members, ...(sharedWith(design, near)?.members ?? [])].map((m) => {
    const end = linkAt(design, m) && farEnd(linkAt(design, m)!, m);
    return end && 'port' in end ? end.port : null;
  });
  const [first] = near.members;
  if (first === undefined) return [];
  const nearTwin = sharedWith(design, near);
  const farTwin = sharedWith(design, far);
  const later = [...near.members.slice(1), ...(nearTwin?.members ?? [])];
  const rest = nearTwin
    ? later
        .map((p) => `${portById(design, p)!.name} of ${switchById(design, portById(design, p)!.switch)!.name}`)
        .join(', ')
    : `${names(design, later)} of ${nearName}`;
  /** The other switch of a pair gets the same, under the common number. */
  const likewise = (twin: Bundle | undefined): WorkStep[] =>
    twin
      ? [
          {
            at: switchById(design, twin.switch)!.name,
            work: `Make bundle ${twin.name} of ports ${names(design, twin.members)} likewise, with common number ${twin.shared}.`,
            meanwhile: 'Nothing more.',
            check: 'The pair reports the bundle as consistent on both switches.',
          },
        ]
      : [];
  const cuts = cutsBefore(plain, [...near.members, ...farPorts.filter((p): p is string => p !== null)]);
  const classic = [near, far].some((b) =>
    ['stp', 'per-vlan-stp'].includes(modeOf(design, switchById(design, b.switch)!)),
  );
  const opening = classic
    ? `the new port waits ${2 * timersInForce(plain).forwardDelay} s before it passes frames`
    : 'the new port agrees with its neighbour at once';
  const cutWords =
    cuts.length > 0 ? `Spanning tree cuts ${cuts.join(', ')}.` : 'Nothing: spanning tree has no cut here.';
  const active = [near, ...(sharedWith(design, near) ? [sharedWith(design, near)!] : [])]
    .flatMap((b) => verdictOf(design, b.id)?.members ?? [])
    .filter((m) => m.state === 'active').length;
  const last: WorkStep = {
    at: '',
    work: 'Save the settings at both ends.',
    meanwhile: 'Nothing.',
    check: `Both ends report ${active} active members, and one port in every tree.`,
  };
  if (near.kind === 'static' || far.kind === 'static')
    return [
      {
        at: nearName,
        work: `Take ports ${names(design, near.members)} down: nothing warns of a static bundle that only one end has.`,
        meanwhile: 'All cables between the two; traffic takes another way, or waits.',
        check: `${farName} is reached another way. If there is none, work from a console there.`,
      },
      {
        at: farName,
        work: `Make static bundle ${far.name} of ports ${names(design, far.members)}, with its VLANs and cost on the bundle.`,
        meanwhile: 'The same cables: they are down.',
        check: 'The bundle shows its members, all down.',
      },
      {
        at: nearName,
        work: `Make static bundle ${near.name} of ports ${names(design, near.members)} likewise.`,
        meanwhile: 'The same cables.',
        check: 'VLANs, speed and cost are those of the other end.',
      },
      {
        at: nearName,
        work: `Bring the ports up together.`,
        meanwhile: `Until spanning tree has decided: ${opening}.`,
        check: 'No address moves to and fro between ports, and counters of the members grow on both ends.',
      },
      last,
    ];
  const stays = far.individual !== false;
  return [
    {
      at: '',
      work: later.length > 0 ? `Leave ports ${rest} unplugged or down for now.` : 'The first cable stays in service.',
      meanwhile: later.length > 0 ? `If they are plugged in already: ${cutWords}` : 'Nothing.',
      check: `Port ${names(design, [first])} of ${nearName} carries as before.`,
    },
    {
      at: farName,
      work: `Make ${far.kind === 'lacp' ? 'LACP' : ''} bundle ${far.name} of ports ${names(design, far.members)}, ${far.activity ?? 'active'}, with its VLANs and cost on the bundle.`.replace(
        'Make  ',
        'Make ',
      ),
      meanwhile: stays
        ? `Nothing for long: the partner is silent, so port by port they go on alone; ${opening}.`
        : `All cables between the two, until ${nearName} answers: members may not go alone here. Keep another way to ${farName}.`,
      check: stays ? `${farName} is still reached; its member says that it goes alone.` : 'Go on at once.',
    },
    ...likewise(farTwin),
    {
      at: nearName,
      work: `Make bundle ${near.name} of ports ${names(design, near.members)}, ${near.activity ?? 'active'}.`,
      meanwhile: `The cable in service, while the two agree: about two seconds; then ${opening}.`,
      check: `Port ${names(design, [first])} collects and distributes at both ends, and both name each other as partner.`,
    },
    ...likewise(nearTwin),
    ...(later.length > 0
      ? [
          {
            at: '',
            work: `Plug in or bring up ports ${rest}, one after the other.`,
            meanwhile: `Nothing: each joins the bundle, and the trees see one port. Plugged in before this point, it would have been cut: ${cutWords}`,
            check: 'Each new member is active at both ends before the next.',
          },
        ]
      : []),
    last,
  ];
}
