/** What joins again what a failure separates: VLANs on cables that are there, new cables, second cards of hosts. */
import { addElement, freePorts, linksOfHost, pairOf, portById, setField } from '../../design';
import type { AvailabilityGoal, Bundle, Design, Edit, Port, Switch } from '../../design';
import { portsOnLan } from '../../network';
import { formatVlanRanges, vlanMembership } from '../../standard';
import type { SolvedDesign, Topology } from '../../trees';
import { missingCableEdits } from '../cable-edits';
import { Laying, openPorts } from '../laying';
import { missingCables } from '../missing-cables';
import type { Failure } from '../sweep';
import { vlanGraphs } from '../vlan-graphs';
import type { Gap, Gaps } from './gaps';
import { portLike, step } from './step';
import type { NewId, Step } from './step';

/** Cables tried for one gap, and switches for one host. */
const MOST_TRIED = 2;

const allowed = ({ vlanSets, portVlans }: Topology, vlan: number) => {
  const carried = vlanSets.map((set) => vlanMembership(set)[vlan] === 1);
  return (port: number): boolean => carried[portVlans[port]!]!;
};

interface Way {
  readonly cost: number;
  readonly via: readonly number[];
}

/** Ports on a way from one part to another over cables that are there, which carry the VLAN on as many of them as can be. */
function wayOver(topology: Topology, { from, to }: Gap, vlan: number): number[] | null {
  const { lanCount, portBridge, actsAs } = topology;
  const has = allowed(topology, vlan);
  const near = new Map<number, { to: number; ports: readonly [number, number]; lacks: number }[]>();
  for (let lan = 0; lan < lanCount; lan++) {
    const ports = [...portsOnLan(topology, lan)];
    for (const a of ports)
      for (const b of ports) {
        if (portBridge[a] === portBridge[b]) continue;
        const list = near.get(portBridge[a]!) ?? [];
        list.push({ to: portBridge[b]!, ports: [a, b], lacks: Number(!has(a)) + Number(!has(b)) });
        near.set(portBridge[a]!, list);
      }
  }
  // Fewest ports to change first, then fewest cables.
  const ends = new Set(to.map((s) => actsAs[s]!));
  const best = new Map<number, Way>();
  const open = new Map(from.map((s): [number, Way] => [actsAs[s]!, { cost: 0, via: [] }]));
  while (open.size > 0) {
    const [at, here] = [...open].reduce((a, b) => (b[1].cost < a[1].cost ? b : a));
    open.delete(at);
    best.set(at, here);
    if (ends.has(at)) return here.via.filter((p) => !has(p));
    for (const { to: next, ports, lacks } of near.get(at) ?? []) {
      const cost = here.cost + lacks * 100 + 1;
      if (best.has(next) || (open.get(next)?.cost ?? Infinity) <= cost) continue;
      open.set(next, { cost, via: [...here.via, ...ports] });
    }
  }
  return null;
}

/** A port or bundle by its place in the trees; of one that is shared by a pair both halves. */
function elementsAt({ ports, design }: Topology, port: number): { kind: 'port' | 'bundle'; element: Port | Bundle }[] {
  const { kind, element } = ports[port]!;
  if (kind === 'port') return [{ kind, element: element }];
  const bundle = element as Bundle;
  const pair = bundle.shared === undefined ? undefined : pairOf(design, bundle.switch);
  const halves = design.bundles.filter((b) => b.shared === bundle.shared && pair?.switches.includes(b.switch));
  return (pair ? halves : [bundle]).map((half) => ({ kind, element: half }));
}

/** The VLANs of gaps on cables that do not carry them yet. */
function vlanSteps({ failed, gaps }: Gaps): Step[] {
  const { topology } = failed;
  const more = new Map<string, { kind: 'port' | 'bundle'; element: Port | Bundle; vlans: Set<number> }>();
  for (const gap of gaps)
    for (const vlan of gap.vlans)
      for (const port of wayOver(topology, gap, vlan) ?? [])
        for (const { kind, element } of elementsAt(topology, port)) {
          const known = more.get(element.id) ?? { kind, element, vlans: new Set<number>() };
          more.set(element.id, { ...known, vlans: known.vlans.add(vlan) });
        }
  return step(
    'vlans',
    [...more.values()].map(({ kind, element, vlans }) => {
      const before = vlanMembership(element.vlans ?? 'all');
      const all = [...before.keys()].filter((v) => before[v] || vlans.has(v));
      return setField(kind, element.id, 'vlans', formatVlanRanges(all));
    }),
  );
}

/** One cable over each gap, in more than one way. */
function cableSteps(solved: SolvedDesign, { gaps }: Gaps, lost: ReadonlySet<string>, newId: NewId): Step[] {
  const { design } = solved.topology;
  const laying = new Laying(design, vlanGraphs(solved));
  const stands = (s: number) => !lost.has(design.switches[s]!.id) && !design.switches[s]!.off;
  return gaps.flatMap(({ from, to }) => {
    const ends = laying.bestEnds(from.filter(stands));
    let others = to.filter(stands);
    const steps: Step[] = [];
    while (steps.length < MOST_TRIED) {
      const pair = laying.between(ends, others);
      if (!pair) break;
      const at = (s: number) => ({
        switch: design.switches[s]!.id,
        port: openPorts(design, design.switches[s]!.id)[0]?.id ?? null,
      });
      steps.push(...step('cable', missingCableEdits(design, [{ a: at(pair.a), b: at(pair.b) }], newId)));
      others = others.filter((s) => s !== pair.b);
    }
    return steps;
  });
}

/** The fewest cables that all single links, or all single switches, ask for in the VLANs of a goal. */
function allCables(solved: SolvedDesign, goal: AvailabilityGoal, newId: NewId): Step[] {
  const { link, switch: switches } = missingCables(solved, vlanMembership(goal.vlans));
  const { design } = solved.topology;
  return [link, switches].flatMap((cables) => step('cables', missingCableEdits(design, cables, newId)));
}

/** Farther than anything is drawn. */
const FARTHEST = 1e6;

/** What a second card of a host takes over from the port of the first. */
const LIKE_FIRST = ['vlans', 'native', 'edge', 'autoEdge', 'bpduGuard', 'bpduFilter', 'rootGuard', 'tcGuard'] as const;

function cardEdits(design: Design, host: string, first: Port, at: string, newId: NewId): Edit[] {
  const free = freePorts(design, at).find((p) => !p.down);
  const link = (port: string) => addElement('link', { id: newId('link'), a: { port }, b: { host } });
  if (free)
    return [
      ...LIKE_FIRST.flatMap((f) => (free[f] === first[f] ? [] : [setField('port', free.id, f, first[f] ?? null)])),
      link(free.id),
    ];
  const fresh = portLike(design, first, at, LIKE_FIRST, newId);
  return [addElement('port', fresh), link(fresh.id)];
}

/** A second card for hosts that hang on one cable or one switch: at the other switch of its pair, else at one like its own. */
function cardSteps({ topology: { design } }: SolvedDesign, { hosts }: Gaps, lost: ReadonlySet<string>, newId: NewId) {
  const tried = hosts.map(({ host, to }) => {
    const { id, bond } = design.hosts[host]!;
    const ports = linksOfHost(design, id).flatMap((l) => ('port' in l.a ? l.a : l.b) as { port: string });
    const first = ports[0] && portById(design, ports[0].port);
    if (!first || bond) return [];
    const home = design.switches.find((s) => s.id === first.switch)!;
    const partner = pairOf(design, home.id)?.switches.find((s) => s !== home.id);
    const away = (s: Switch) => Math.hypot((s.x ?? 0) - (home.x ?? 0), (s.y ?? 0) - (home.y ?? 0));
    const likeness = (s: Switch) =>
      Number(s.id === partner) * 8 +
      Number(s.group === home.group) * 4 +
      Number(s.tier === home.tier) * 2 +
      Number(freePorts(design, s.id).some((p) => !p.down)) -
      // Of those alike the one that is drawn nearest.
      away(s) / FARTHEST;
    return to
      .map((s) => design.switches[s]!)
      .filter((s) => s.id !== home.id && !lost.has(s.id) && !s.off)
      .sort((a, b) => likeness(b) - likeness(a))
      .slice(0, MOST_TRIED)
      .map((s) => cardEdits(design, id, first, s.id, newId));
  });
  // All hosts at once: each of them needs its own.
  return Array.from({ length: MOST_TRIED }, (_, i) =>
    step(
      'card',
      tried.flatMap((ways) => ways[Math.min(i, ways.length - 1)] ?? []),
    ),
  ).flat();
}

/** All ways to join what a failure separates. */
export function joiningSteps(
  solved: SolvedDesign,
  goal: AvailabilityGoal,
  failure: Failure | null,
  gaps: Gaps,
  newId: NewId,
): Step[] {
  const lost = new Set(failure?.elements.flatMap((e) => e.switches));
  return [
    ...vlanSteps(gaps),
    ...cableSteps(solved, gaps, lost, newId),
    ...(gaps.gaps.length > 0 ? allCables(solved, goal, newId) : []),
    ...cardSteps(solved, gaps, lost, newId),
  ];
}
