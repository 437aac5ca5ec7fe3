/** Failures one by one or in pairs: what each of them separates, moves, breaks and overloads. */
import { linkById, segmentById } from '../design';
import type { Design } from '../design';
import { busiest, loadsOf } from '../analysis';
import { checkGoals } from '../goals';
import { forwardsRole, rootsOf } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { fromScratch, takenOn } from './after';
import type { After, SweepBase } from './after';
import { portsOfLink, withFailed } from './elements';
import type { Element } from './elements';
import { remembered } from '../remembered';
import { treeDiameter } from './tree-diameter';
import { outageOf } from './outage';
import type { Outage } from './outage';
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
  /** What the fullest port or bundle sends then, in percent of its rate; null where the design has no traffic. */
  readonly fullest: number | null;
  /** Trees in which something moves, and ports whose role changes. */
  readonly moved: { readonly trees: number; readonly ports: number };
  /** Most links that frames pass between two switches in a tree. */
  readonly longestPath: number;
  readonly outage: Outage;
}

const rootId = ({ topology }: SolvedDesign, of: SolvedTree): string | null => {
  const [root] = rootsOf(of);
  return root === undefined ? null : topology.design.switches[root]!.id;
};

/** Roots of each tree of the design as it is, remembered for a whole sweep. */
const rootsBefore = remembered((of: SolvedTree) => rootsOf(of));

function newRoots(before: SolvedDesign, { solved, parted }: After): NewRoot[] {
  const { switches } = solved.topology.design;
  return solved.trees.flatMap((now) => {
    const was = before.byId.get(now.tree.id);
    if (!was || was.outcome === now.outcome) return [];
    // A tree that has one root and that nothing was parted from keeps it, unless it is what failed.
    const roots = rootsBefore(was);
    if (!parted(now.tree.id) && roots.length === 1 && !switches[roots[0]!]!.off) return [];
    const [old, fresh] = [rootId(before, was), rootId(solved, now)];
    return old === fresh ? [] : [{ tree: now.tree.id, before: old, after: fresh }];
  });
}

/** Whether frames of some tree passed what fails: a port of it forwarded. */
function wasOpen({ solved }: SweepBase, failed: readonly Element[]): boolean {
  const { design, portIndex } = solved.topology;
  const carries = (ports: readonly string[]) => {
    const own = ports.map((p) => portIndex.get(p) ?? -1);
    return solved.trees.some(({ outcome }) => own.every((p) => forwardsRole(outcome.role[p])));
  };
  const linkOpen = (id: string) => {
    const link = linkById(design, id);
    return link !== undefined && carries(portsOfLink(link));
  };
  const segmentOpen = (id: string) => segmentById(design, id)?.ports.some((p) => carries([p])) ?? false;
  return failed.some((e) => e.switches.length > 0 || e.links.some(linkOpen) || e.segments.some(segmentOpen));
}

const diameterOf = remembered((of: SolvedTree) => treeDiameter(of));

/** Links between the two switches that are farthest apart in a tree; trees that lost a blocked link alone are as they were. */
function longestPath(base: SweepBase, { solved, changed }: After, elements: readonly Element[]): number {
  const isLink = elements.every((e) => e.switches.length === 0);
  const known = new Map<object, number>();
  let longest = 0;
  for (const of of solved.trees) {
    if (isLink && !changed(of.tree.id)) {
      longest = Math.max(longest, diameterOf(base.solved.byId.get(of.tree.id)!));
      continue;
    }
    if (!known.has(of.outcome)) known.set(of.outcome, treeDiameter(of));
    longest = Math.max(longest, known.get(of.outcome)!);
  }
  return longest;
}

function loads(after: SolvedDesign): Pick<Failure, 'overloaded' | 'fullest'> {
  const { topology } = after;
  if (topology.design.demands.length === 0) return { overloaded: [], fullest: null };
  const sent = busiest(after, loadsOf(after));
  const overloaded = sent.filter((p) => p.percent > 100);
  return {
    overloaded: overloaded.map(({ port, percent }) => ({ port: topology.ports[port]!.element.id, percent })),
    fullest: sent[0]?.percent ?? 0,
  };
}

/** One failure: all its elements at once. `scratch`: solved from scratch, as if nothing were known of the design without it. */
export function failureOf(base: SweepBase, elements: readonly Element[], scratch = false): Failure {
  const failed: Design = withFailed(base.solved.topology.design, elements);
  const after = scratch ? fromScratch(base, failed) : takenOn(base, failed, elements);
  const { moved } = after;
  const separates = separationOf(failed, base.parts, after.parts);
  const parted = separates.switches.length + separates.hosts.length > 0;
  return {
    elements,
    separates,
    roots: newRoots(base.solved, after),
    goalsBroken: checkGoals(after.solved).flatMap((c) =>
      c.state === 'broken' && base.holding.has(c.goal.id) ? [c.goal.id] : [],
    ),
    ...loads(after.solved),
    moved: { trees: moved.length, ports: after.portsMoved },
    longestPath: longestPath(base, after, elements),
    outage: outageOf(after.solved, elements, moved, { separates: parted, open: wasOpen(base, elements) }),
  };
}

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
