/** Failures one by one or in pairs: what each of them separates, moves, breaks and overloads. */
import type { Design } from '../design';
import { loadsOf, percentOut } from '../analysis';
import { checkGoals } from '../goals';
import { forwardsRole, movedBetween, rootsOf, solveDesign } from '../trees';
import type { MovedTree, SolvedDesign, SolvedTree } from '../trees';
import { elementsOf, withFailed } from './elements';
import type { Element } from './elements';
import { treeDiameter } from './tree-diameter';
import { outageOf } from './outage';
import type { Outage } from './outage';
import { reachOf } from './reach';
import type { VlanParts } from './reach';
import { separationOf } from './separation';
import type { Separation } from './separation';

export interface NewRoot {
  readonly tree: string;
  /** Ids of switches; null where there is none. */
  readonly before: string | null;
  readonly after: string | null;
}

export interface Failure {
  readonly elements: readonly Element[];
  readonly separates: Separation;
  readonly roots: readonly NewRoot[];
  /** Ids of goals that hold without the failure and not with it. */
  readonly goalsBroken: readonly string[];
  /** Ports and bundles that send more than their rate with it, in percent of it; busiest first. */
  readonly overloaded: readonly { readonly port: string; readonly percent: number }[];
  /** Trees in which something moves, and ports whose role changes. */
  readonly moved: { readonly trees: number; readonly ports: number };
  /** Most links that frames pass between two switches in a tree. */
  readonly longestPath: number;
  readonly outage: Outage;
}

/** What a sweep compares with: the design as it is. */
export interface SweepBase {
  readonly solved: SolvedDesign;
  readonly parts: readonly VlanParts[];
  /** Ids of goals that are not broken. */
  readonly holding: ReadonlySet<string>;
  readonly elements: readonly Element[];
}

/** The design as it is, solved once for a whole sweep. */
export function sweepBase(solved: SolvedDesign): SweepBase {
  const holding = new Set(checkGoals(solved).flatMap((c) => (c.state === 'broken' ? [] : [c.goal.id])));
  return { solved, parts: reachOf(solved), holding, elements: elementsOf(solved.topology.design) };
}

const rootId = ({ topology }: SolvedDesign, of: SolvedTree): string | null => {
  const [root] = rootsOf(of);
  return root === undefined ? null : topology.design.switches[root]!.id;
};

function newRoots(before: SolvedDesign, after: SolvedDesign): NewRoot[] {
  return after.trees.flatMap((now) => {
    const was = before.byId.get(now.tree.id);
    if (!was || was.outcome === now.outcome) return [];
    const [old, fresh] = [rootId(before, was), rootId(after, now)];
    return old === fresh ? [] : [{ tree: now.tree.id, before: old, after: fresh }];
  });
}

/** Whether frames of some tree passed what fails: a port of it forwarded. */
function wasOpen({ solved }: SweepBase, failed: readonly Element[]): boolean {
  const { design, portIndex } = solved.topology;
  const links = new Set(failed.flatMap((e) => e.links));
  const segments = new Set(failed.flatMap((e) => e.segments));
  const switches = new Set(failed.flatMap((e) => e.switches));
  const carries = (ports: readonly string[]) =>
    solved.trees.some(({ outcome }) => ports.every((p) => forwardsRole(outcome.role[portIndex.get(p) ?? -1])));
  return (
    switches.size > 0 ||
    design.links.some((l) => links.has(l.id) && carries([l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : [])))) ||
    design.segments.some((s) => segments.has(s.id) && s.ports.some((p) => carries([p])))
  );
}

/** Links between the two switches that are farthest apart in a tree. */
function longestPath({ trees }: SolvedDesign): number {
  const known = new Map<object, number>();
  for (const of of trees) if (!known.has(of.outcome)) known.set(of.outcome, treeDiameter(of));
  return Math.max(0, ...known.values());
}

function overloaded(after: SolvedDesign): Failure['overloaded'] {
  const { topology } = after;
  if (topology.design.demands.length === 0) return [];
  const loads = loadsOf(after);
  return [...topology.ports.keys()]
    .map((p) => ({ port: topology.ports[p]!.element.id, percent: percentOut(after, loads, p) }))
    .filter((p) => p.percent > 100)
    .sort((a, b) => b.percent - a.percent);
}

/** Ports of failed cables go down with them; they are no change of a role. */
const portsMoved = (moved: readonly MovedTree[]): number =>
  new Set(moved.flatMap((t) => t.ports.flatMap((p) => (p.after === 'disabled' ? [] : [p.id])))).size;

/** One failure, solved from scratch: all its elements at once. */
export function failureOf(base: SweepBase, elements: readonly Element[]): Failure {
  const failed: Design = withFailed(base.solved.topology.design, elements);
  const after = solveDesign(failed, base.solved);
  const moved = movedBetween(base.solved, after);
  const separates = separationOf(failed, base.parts, reachOf(after));
  const parted = separates.switches.length + separates.hosts.length > 0;
  return {
    elements,
    separates,
    roots: newRoots(base.solved, after),
    goalsBroken: checkGoals(after).flatMap((c) =>
      c.state === 'broken' && base.holding.has(c.goal.id) ? [c.goal.id] : [],
    ),
    overloaded: overloaded(after),
    moved: { trees: moved.filter((t) => t.ports.length > 0).length, ports: portsMoved(moved) },
    longestPath: longestPath(after),
    outage: outageOf(after, elements, moved, { separates: parted, open: wasOpen(base, elements) }),
  };
}

/** Every single failure, as it is found. */
export function* singleFailures(base: SweepBase): Generator<Failure> {
  for (const element of base.elements) yield failureOf(base, [element]);
}

/** Every pair of failures, as it is found; a part of a whole that fails with it is left out. */
export function* pairFailures(base: SweepBase): Generator<Failure> {
  const { elements } = base;
  for (let i = 0; i < elements.length; i++)
    for (let j = i + 1; j < elements.length; j++)
      if (!within(elements[i]!, elements[j]!)) yield failureOf(base, [elements[i]!, elements[j]!]);
}

/** Whether one of two elements fails with the other anyway. */
function within(a: Element, b: Element): boolean {
  const all = (part: Element, whole: Element) =>
    part.links.every((l) => whole.links.includes(l)) &&
    part.switches.every((s) => whole.switches.includes(s)) &&
    part.segments.every((s) => whole.segments.includes(s));
  return all(a, b) || all(b, a);
}

/** Pairs that `pairFailures` would look at, at most. */
export const pairCount = ({ elements }: SweepBase): number => (elements.length * (elements.length - 1)) / 2;

const RANK: Record<Outage['kind'], number> = {
  separated: 5,
  'forward-delay': 4,
  hellos: 3,
  milliseconds: 2,
  immediate: 1,
  none: 0,
};

/** Worst first: who is separated, then goals, overload, and how long. */
export const byWorst = (a: Failure, b: Failure): number =>
  b.separates.switches.length - a.separates.switches.length ||
  b.separates.hosts.length - a.separates.hosts.length ||
  b.goalsBroken.length - a.goalsBroken.length ||
  b.overloaded.length - a.overloaded.length ||
  RANK[b.outage.kind] - RANK[a.outage.kind] ||
  (b.outage.seconds ?? 0) - (a.outage.seconds ?? 0) ||
  b.moved.ports - a.moved.ports;
