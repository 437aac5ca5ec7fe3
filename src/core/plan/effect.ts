/** What a piece of work does to a network at rest, as the solver has it: what moves, who loses whom, how long by theory. */
import type { Design, Edit, Probe } from '../design';
import { GENTLE_AT_PORTS } from './gather';
import { bundleVerdicts } from '../network';
import { remembered } from '../remembered';
import { reachOf, settlingOf } from '../review';
import type { VlanParts } from '../review';
import { loopingPorts, movedBetween, rootsOf, solveDesign } from '../trees';
import type { MovedTree, SolvedDesign } from '../trees';

/** A network at rest. */
export interface Rest {
  readonly solved: SolvedDesign;
  readonly parts: readonly VlanParts[];
}

export function restOf(design: Design, before?: SolvedDesign): Rest {
  const solved = solveDesign(design, before);
  return { solved, parts: reachOf(solved) };
}

/** Whether frames may loop for good: a filter hides a ring from spanning tree, or a static bundle of several members has no other end. */
export const hasLoop = remembered(
  ({ solved }: Rest): boolean =>
    solved.trees.some((tree) => loopingPorts(solved.topology, tree).size > 0) ||
    bundleVerdicts(solved.topology.design).some(
      (v) => v.outcome === 'one-sided' && v.members.filter((m) => m.state === 'active').length > 1,
    ),
);

/** Part of a VLAN by its number. */
const partsOfVlan = remembered(
  (rest: Rest): ReadonlyMap<number, VlanParts> =>
    new Map(rest.parts.flatMap((p) => p.vlans.map((v) => [v, p] as const))),
);

/** Ids of the switches that a VLAN joins with the largest part of it. */
function joinedSwitches(rest: Rest, vlan: number): ReadonlySet<string> {
  const parts = partsOfVlan(rest).get(vlan);
  const { switches } = rest.solved.topology.design;
  return new Set(
    parts ? switches.flatMap((s, i) => (parts.partOf[i] === parts.largest && parts.largest >= 0 ? [s.id] : [])) : [],
  );
}

/** Whether two hosts have contact. */
export function haveContact(rest: Rest, { from, to, vlan }: Probe): boolean {
  const parts = partsOfVlan(rest).get(vlan);
  const { hosts } = rest.solved.topology.design;
  const of = (id: string) => parts?.hosts.get(hosts.findIndex((h) => h.id === id)) ?? [];
  const there = of(to);
  return of(from).some((p) => there.includes(p));
}

/** Whether frames of a VLAN pass between two switches. */
export function switchesMeet(rest: Rest, vlan: number, a: string, b: string): boolean {
  const parts = partsOfVlan(rest).get(vlan);
  const { switches } = rest.solved.topology.design;
  const of = (id: string) => parts?.partOf[switches.findIndex((s) => s.id === id)] ?? -1;
  return of(a) >= 0 && of(a) === of(b);
}

/** VLANs of a design, and for each the switches that it joins. */
export const joinedBy = remembered(
  (rest: Rest): ReadonlyMap<number, ReadonlySet<string>> =>
    new Map(rest.solved.topology.design.vlans.map((v) => [v.number, joinedSwitches(rest, v.number)])),
);

/** What both ends of a plan have: what must not be lost on the way. */
export interface Kept {
  readonly pairs: readonly Probe[];
  /** Switches by VLAN that are joined before and after. */
  readonly vlans: ReadonlyMap<number, ReadonlySet<string>>;
}

export function keptBy(start: Rest, goal: Rest, pairs: readonly Probe[]): Kept {
  const after = joinedBy(goal);
  return {
    pairs: pairs.filter((p) => haveContact(start, p) && haveContact(goal, p)),
    vlans: new Map(
      [...joinedBy(start)].map(([vlan, own]) => [vlan, new Set([...own].filter((s) => after.get(vlan)?.has(s)))]),
    ),
  };
}

/** How many pairs, and switches in VLANs, are without what they have before and after. */
export function lostAt(rest: Rest, kept: Kept): number {
  const now = joinedBy(rest);
  // A switch that is off is so on purpose.
  const off = new Set(rest.solved.topology.design.switches.flatMap((s) => (s.off ? [s.id] : [])));
  let lost = kept.pairs.filter((p) => !haveContact(rest, p)).length;
  for (const [vlan, own] of kept.vlans) {
    const joined = now.get(vlan);
    for (const s of own) if (!joined?.has(s) && !off.has(s)) lost++;
  }
  return lost;
}

const SWITCH_QUIET: ReadonlySet<string> = new Set([
  'priority',
  'vlanPriority',
  'instancePriority',
  'lacpPriority',
  'guardRecovery',
  'oneWayRecovery',
  'stormRecovery',
  'ageingTime',
  'edgeGuard',
]);
const PORT_QUIET: ReadonlySet<string> = new Set(GENTLE_AT_PORTS);

/** Settings that restart nothing, at a switch that is root of nothing: without a moved port no frame is lost. */
function isGentle(edit: Edit, before: Rest, after: Rest): boolean {
  if (edit.type !== 'set') return false;
  const [field] = edit.field.split('.') as [string];
  if (edit.kind === 'port' || edit.kind === 'bundle') return PORT_QUIET.has(field);
  return edit.kind === 'switch' && SWITCH_QUIET.has(field) && !isRoot(before, edit.id) && !isRoot(after, edit.id);
}

function isRoot({ solved }: Rest, id: string): boolean {
  const index = solved.topology.bridgeIndex.get(id);
  return solved.trees.some((tree) => rootsOf(tree).some((r) => r === index));
}

export interface Effect {
  readonly moved: readonly MovedTree[];
  /** Nothing moves and nothing restarts: no rehearsal is needed to know that no frame is lost. */
  readonly quiet: boolean;
  /** Seconds that the worst pair is out by theory. */
  readonly estimate: number;
}

/** Seconds in which two ends agree on a bundle, or a switch that starts its trees again with its neighbours. */
const AGREE_ON_BUNDLE = 2;

export function effectOf(before: Rest, after: Rest, edits: readonly Edit[]): Effect {
  const moved = movedBetween(before.solved, after.solved, false).filter(
    (t) => t.ports.length > 0 || t.rootBefore !== t.rootAfter,
  );
  const quiet = moved.length === 0 && edits.every((e) => isGentle(e, before, after));
  if (quiet) return { moved, quiet, estimate: 0 };
  const bundles = edits.some(
    (e) => e.type !== 'settings' && (e.kind === 'bundle' || e.kind === 'pair') && !isGentle(e, before, after),
  );
  const restarts = edits.some((e) => e.type === 'set' && e.kind === 'switch' && ['protocol', 'mac'].includes(e.field));
  const agree = bundles || restarts ? AGREE_ON_BUNDLE : 0;
  return { moved, quiet, estimate: Math.max(settlingOf(after.solved, moved, []), agree) };
}
