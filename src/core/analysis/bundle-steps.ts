/** The steps that turn cables in service into a bundle, in their order, one device at a time. */
import { stepMessages as say } from '../messages';
import { sharedWith, verdictOf } from '../network';
import { applyEdits, farEnd, isClassicMode, linkAt, modeOf, portById, splitBundles, switchById } from '../design';
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
  /** Seconds until a new port passes frames, null for at once; what is blocked without the bundle, empty for nothing. */
  readonly wait: number | null;
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
  return blockedBefore(plain, [...near.members, ...farPorts]).join(', ');
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
  const classic = [near, far].some((b) => isClassicMode(modeOf(design, switchById(design, b.switch)!)));
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
    wait: classic ? 2 * timersInForce(plain).forwardDelay : null,
    blocked: blockedWords(design, plain, near, nearTwin),
    active: [near, nearTwin]
      .flatMap((b) => (b ? (verdictOf(design, b.id)?.members ?? []) : []))
      .filter((m) => m.state === 'active').length,
  };
}

const lastStep = ({ active }: Work): ChangeStep => ({
  at: '',
  work: say.save(),
  meanwhile: say.nothing(),
  check: say['both-report']({ active }),
});

/** A static bundle at one end only can loop, and nothing detects it: the cables go down first. */
function staticSteps({ design, near, far, nearName, farName, wait }: Work): ChangeStep[] {
  const ends = { near: nearName, far: farName };
  const ports = names(design, near.members);
  return [
    {
      at: nearName,
      work: say['shut-down']({ ports }),
      meanwhile: say['all-cables'](ends),
      check: say['reachable-otherwise'](ends),
    },
    {
      at: farName,
      work: say['create-static-far']({ bundle: far.name, ports: names(design, far.members) }),
      meanwhile: say['same-cables-down'](),
      check: say['members-down'](),
    },
    {
      at: nearName,
      work: say['create-static-near']({ bundle: near.name, ports }),
      meanwhile: say['same-cables'](),
      check: say['settings-of-far'](ends),
    },
    {
      at: nearName,
      work: say['bring-up-together']({ ports }),
      meanwhile: say['opening-meanwhile']({ wait }),
      check: say['no-flapping'](),
    },
  ];
}

/** The other switch of a multi-chassis pair gets the same bundle, with the same shared number. */
const twinStep = (design: Design, twin: Bundle | undefined): ChangeStep[] =>
  twin?.shared === undefined
    ? []
    : [
        {
          at: switchById(design, twin.switch)!.name,
          work: say['create-twin']({ bundle: twin.name, ports: names(design, twin.members), shared: twin.shared }),
          meanwhile: say['nothing-more'](),
          check: say['pair-consistent'](),
        },
      ];

function farStep({ design, far, nearName, farName, wait }: Work): ChangeStep {
  const individual = far.individual !== false;
  const ends = { near: nearName, far: farName };
  const made = { bundle: far.name, ports: names(design, far.members), activity: far.activity ?? 'active' };
  return {
    at: farName,
    work: say['create-far']({ ...made, lacp: far.kind === 'lacp' }),
    meanwhile: individual ? say['individual-meanwhile']({ wait }) : say['suspended-meanwhile'](ends),
    check: individual ? say['still-reachable'](ends) : say['continue-at-once'](),
  };
}

function nearStep({ design, near, nearName, first, wait }: Work): ChangeStep {
  const made = { bundle: near.name, ports: names(design, near.members), activity: near.activity ?? 'active' };
  return {
    at: nearName,
    work: say['create-near'](made),
    meanwhile: say['agreeing-meanwhile']({ wait }),
    check: say.collects({ port: first }),
  };
}

function negotiatedSteps(work: Work): ChangeStep[] {
  const { design, rest, blocked, first, nearName } = work;
  const joining: ChangeStep[] = rest
    ? [
        {
          at: '',
          work: say['bring-up-singly']({ ports: rest }),
          meanwhile: say['joining-meanwhile']({ blocked }),
          check: say['each-active'](),
        },
      ]
    : [];
  return [
    {
      at: '',
      work: rest ? say['leave-unplugged']({ ports: rest }) : say['first-stays'](),
      meanwhile: rest ? say['if-up-already']({ blocked }) : say.nothing(),
      check: say['still-forwards']({ port: first, near: nearName }),
    },
    farStep(work),
    ...twinStep(design, work.farTwin),
    nearStep(work),
    ...twinStep(design, work.nearTwin),
    ...joining,
  ];
}

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
