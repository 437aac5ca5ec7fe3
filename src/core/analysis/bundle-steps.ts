/** The steps that turn cables in service into a bundle, in their order, one device at a time. */
import { sharedWith, verdictOf } from '../network';
import { applyEdits, farEnd, linkAt, modeOf, portById, splitBundles, switchById } from '../design';
import type { Bundle, Design } from '../design';
import { ROLE, forwardsRole, solveDesign } from '../trees';
import type { SolvedDesign } from '../trees';
import { timersInForce } from './tree-timers';

export interface ChangeStep {
  /** Switch to change; empty for both. */
  readonly at: string;
  readonly work: string;
  /** What stops passing frames during the step. */
  readonly meanwhile: string;
  /** What to verify before the next step. */
  readonly check: string;
}

const names = (design: Design, ports: readonly string[]) => ports.map((p) => portById(design, p)!.name).join(', ');

/** Root path cost of a switch, summed over all trees: a lower sum is nearer to the roots. */
const distance = (solved: SolvedDesign, id: string): number => {
  const bridge = solved.topology.bridgeIndex.get(id)!;
  return solved.trees.reduce((sum, { outcome }) => {
    const cost = outcome.rootPathCost[bridge]!;
    return sum + (Number.isFinite(cost) ? cost : 0);
  }, 0);
};

/** Ends of the cables that spanning tree blocks while there is no bundle, each with the number of trees. */
function blockedBefore(plain: SolvedDesign, ports: readonly string[]): string[] {
  const { design, portIndex, ports: logical } = plain.topology;
  return ports.flatMap((id) => {
    const p = portIndex.get(id)!;
    const inTrees = plain.trees.filter(({ problem }) => problem.portTakesPart[p]);
    const blocked = inTrees.filter(
      ({ outcome }) => outcome.role[p] !== ROLE.disabled && !forwardsRole(outcome.role[p]),
    ).length;
    if (blocked === 0) return [];
    const { element } = logical[p]!;
    const where = blocked === inTrees.length ? 'every tree' : `${blocked} of ${inTrees.length} trees`;
    return [`${switchById(design, element.switch)!.name} ${element.name} in ${where}`];
  });
}

/** What the steps need to know about the two ends and their cables. */
interface Work {
  readonly design: Design;
  readonly near: Bundle;
  readonly far: Bundle;
  readonly nearName: string;
  readonly farName: string;
  readonly nearTwin: Bundle | undefined;
  readonly farTwin: Bundle | undefined;
  /** The port that stays in service, and the ports that join after it, in words. */
  readonly first: string;
  readonly rest: string | null;
  /** When the port of the bundle passes frames, and what is blocked without the bundle. */
  readonly opening: string;
  readonly blocked: string;
  readonly active: number;
}

/** Ports that join later, by switch. */
function laterPorts(design: Design, near: Bundle, nearName: string, twin: Bundle | undefined): string | null {
  const own = near.members.slice(1);
  if (!twin) return own.length === 0 ? null : `${names(design, own)} of ${nearName}`;
  return [...own, ...twin.members]
    .map((p) => portById(design, p)!)
    .map((p) => `${p.name} of ${switchById(design, p.switch)!.name}`)
    .join(', ');
}

function blockedWords(design: Design, plain: SolvedDesign, near: Bundle, twin: Bundle | undefined): string {
  const farPorts = [...near.members, ...(twin?.members ?? [])].flatMap((m) => {
    const link = linkAt(design, m);
    const end = link && farEnd(link, m);
    return end && 'port' in end ? [end.port] : [];
  });
  const blocked = blockedBefore(plain, [...near.members, ...farPorts]);
  return blocked.length > 0
    ? `Spanning tree blocks ${blocked.join(', ')}.`
    : 'Nothing: spanning tree blocks no port here.';
}

function workOn(design: Design, one: Bundle, other: Bundle): Work | null {
  const twins = [one, other].flatMap((b) => sharedWith(design, b) ?? []);
  const applied = applyEdits(design, splitBundles([one, other, ...twins].map((b) => b.id)));
  if (!applied.ok) return null;
  const plain = solveDesign(applied.design);
  const oneFirst = distance(plain, one.switch) <= distance(plain, other.switch);
  const [near, far] = oneFirst ? [one, other] : [other, one];
  const [first] = near.members;
  if (first === undefined) return null;
  const [nearName, farName] = [near, far].map((b) => switchById(design, b.switch)!.name) as [string, string];
  const [nearTwin, farTwin] = [sharedWith(design, near), sharedWith(design, far)];
  const classic = [near, far].some((b) =>
    ['stp', 'per-vlan-stp'].includes(modeOf(design, switchById(design, b.switch)!)),
  );
  return {
    design,
    near,
    far,
    nearName,
    farName,
    nearTwin,
    farTwin,
    first: names(design, [first]),
    rest: laterPorts(design, near, nearName, nearTwin),
    opening: classic
      ? `the new port waits ${2 * timersInForce(plain).forwardDelay} s before it forwards`
      : 'the new port agrees with its neighbour and forwards at once',
    blocked: blockedWords(design, plain, near, nearTwin),
    active: [near, nearTwin]
      .flatMap((b) => (b ? (verdictOf(design, b.id)?.members ?? []) : []))
      .filter((m) => m.state === 'active').length,
  };
}

const lastStep = ({ active }: Work): ChangeStep => ({
  at: '',
  work: 'Save the settings at both ends.',
  meanwhile: 'Nothing.',
  check: `Both ends report ${active} active ${active === 1 ? 'member' : 'members'}, and one port in every tree.`,
});

/** A static bundle at one end only can loop, and nothing detects it: the cables go down first. */
const staticSteps = ({ design, near, far, nearName, farName, opening }: Work): ChangeStep[] => [
  {
    at: nearName,
    work: `Shut down ports ${names(design, near.members)}. Nothing detects a static bundle that only one end has.`,
    meanwhile: `All cables between ${nearName} and ${farName}: traffic takes another path, or stops.`,
    check: `${farName} is reachable over another path. If there is none, use its console.`,
  },
  {
    at: farName,
    work: `Create static bundle ${far.name} of ports ${names(design, far.members)}. Set its VLANs and cost on the bundle.`,
    meanwhile: 'The same cables: they are down.',
    check: 'The bundle shows its members, all down.',
  },
  {
    at: nearName,
    work: `Create static bundle ${near.name} of ports ${names(design, near.members)}.`,
    meanwhile: 'The same cables.',
    check: `VLANs, speed and cost are those of ${farName}.`,
  },
  {
    at: nearName,
    work: `Bring up ports ${names(design, near.members)} together.`,
    meanwhile: `The bundle, until spanning tree has decided: ${opening}.`,
    check: 'No MAC address flaps between ports, and the counters of all members grow at both ends.',
  },
];

/** The other switch of a multi-chassis pair gets the same bundle, with the same shared number. */
const twinStep = (design: Design, twin: Bundle | undefined): ChangeStep[] =>
  twin
    ? [
        {
          at: switchById(design, twin.switch)!.name,
          work: `Create bundle ${twin.name} of ports ${names(design, twin.members)}, with shared number ${twin.shared}.`,
          meanwhile: 'Nothing more.',
          check: 'Both switches of the pair report the bundle as consistent.',
        },
      ]
    : [];

function farStep({ design, far, nearName, farName, opening }: Work): ChangeStep {
  const individual = far.individual !== false;
  const kind = far.kind === 'lacp' ? 'LACP bundle' : 'bundle';
  return {
    at: farName,
    work: `Create ${kind} ${far.name} of ports ${names(design, far.members)}, ${far.activity ?? 'active'}. Set its VLANs and cost on the bundle.`,
    meanwhile: individual
      ? `The cable in service, briefly: there is no partner yet, so each port runs as individual; ${opening}.`
      : `All cables until ${nearName} negotiates: members may not run as individual here. Keep another path to ${farName}.`,
    check: individual ? `${farName} is still reachable; its member is individual.` : 'Continue at once.',
  };
}

const negotiatedSteps = (work: Work): ChangeStep[] => [
  {
    at: '',
    work: work.rest ? `Leave ports ${work.rest} unplugged or shut down.` : 'The first cable stays in service.',
    meanwhile: work.rest ? `If they are up already: ${work.blocked}` : 'Nothing.',
    check: `Port ${work.first} of ${work.nearName} forwards as before.`,
  },
  farStep(work),
  ...twinStep(work.design, work.farTwin),
  {
    at: work.nearName,
    work: `Create bundle ${work.near.name} of ports ${names(work.design, work.near.members)}, ${work.near.activity ?? 'active'}.`,
    meanwhile: `The cable in service for about 2 s, until the two ends agree; then ${work.opening}.`,
    check: `Port ${work.first} collects and distributes at both ends, and each end shows the other as its partner.`,
  },
  ...twinStep(work.design, work.nearTwin),
  ...(work.rest
    ? [
        {
          at: '',
          work: `Bring up ports ${work.rest}, one at a time.`,
          meanwhile: `Nothing: each port joins the bundle, and the trees see one port. Without the bundle: ${work.blocked}`,
          check: 'Each new member is active at both ends before the next.',
        },
      ]
    : []),
];

/**
 * Steps for two ends that face each other. The end farther from the roots comes first: the engineer reaches it over
 * the cable that the near end still keeps open.
 */
export function bundleSteps(design: Design, one: Bundle, other: Bundle): readonly ChangeStep[] {
  const work = workOn(design, one, other);
  if (!work) return [];
  const isStatic = work.near.kind === 'static' || work.far.kind === 'static';
  return [...(isStatic ? staticSteps(work) : negotiatedSteps(work)), lastStep(work)];
}
