/** Failures one by one or in pairs: what each of them separates, moves, breaks and overloads. */
import { linkById, segmentById } from '../design';
import { busiest, loadsOf } from '../analysis';
import { checkGoals } from '../goals';
import { forwardsRole } from '../trees';
import type { SolvedDesign } from '../trees';
import { fromScratch } from './after';
import type { After, NewRoot, SweepBase } from './after';
import { portsOfLink } from './elements';
import type { Element } from './elements';
import { outageBy } from './outage';
import type { Outage } from './outage';
import { separationOf } from './separation';
import type { Separation } from './separation';
import { takenOn } from './taken-on';

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

/** Whether frames of some tree passed an element: a port of it forwarded. */
function carriesFrames({ topology, trees }: SolvedDesign, { links, segments, switches }: Element): boolean {
  const { design, portIndex } = topology;
  const carries = (ports: readonly string[]) => {
    const own = ports.map((p) => portIndex.get(p) ?? -1);
    return trees.some(({ outcome }) => own.every((p) => forwardsRole(outcome.role[p])));
  };
  return (
    switches.length > 0 ||
    links.some((id) => {
      const link = linkById(design, id);
      return link !== undefined && carries(portsOfLink(link));
    }) ||
    segments.some((id) => segmentById(design, id)?.ports.some((p) => carries([p])))
  );
}

/** Whether frames passed what fails. */
const wasOpen = ({ solved, known: { open } }: SweepBase, elements: readonly Element[]): boolean =>
  elements.some((e) => {
    let own = open.get(e);
    if (own === undefined) open.set(e, (own = carriesFrames(solved, e)));
    return own;
  });

function loads(after: SolvedDesign): Pick<Failure, 'overloaded' | 'fullest'> {
  const { topology } = after;
  const sent = busiest(after, loadsOf(after));
  const overloaded = sent.filter((p) => p.percent > 100);
  return {
    overloaded: overloaded.map(({ port, percent }) => ({ port: topology.ports[port]!.element.id, percent })),
    fullest: sent[0]?.percent ?? 0,
  };
}

/** Goals that held and that the failure breaks. */
const broken = ({ holding, solved }: SweepBase, after: After): string[] =>
  solved.topology.design.goals.length === 0
    ? []
    : checkGoals(after.solved()).flatMap((c) => (c.state === 'broken' && holding.has(c.goal.id) ? [c.goal.id] : []));

type Harm = Pick<Failure, 'separates' | 'goalsBroken' | 'overloaded' | 'fullest'>;

const harmOf = (base: SweepBase, after: After): Harm => ({
  separates: separationOf(after.failed, base.parts, after.parts),
  goalsBroken: broken(base, after),
  ...(base.solved.topology.design.demands.length === 0 ? { overloaded: [], fullest: null } : loads(after.solved())),
});

function whole(base: SweepBase, elements: readonly Element[], after: After, harm: Harm): Failure {
  const { roots, moved, longestPath, seconds, timers } = after.moves();
  const separates = harm.separates.switches.length + harm.separates.hosts.length > 0;
  return {
    elements,
    ...harm,
    roots,
    moved,
    longestPath,
    outage: outageBy(base.solved.topology.design, elements, {
      separates,
      open: wasOpen(base, elements),
      seconds,
      timers,
    }),
  };
}

const afterOf = (base: SweepBase, elements: readonly Element[]): After =>
  takenOn(base, elements) ?? fromScratch(base, elements);

/** One failure: all its elements at once. `scratch`: solved from scratch, as if nothing were known of the design without it. */
export function failureOf(base: SweepBase, elements: readonly Element[], scratch = false): Failure {
  const after = scratch ? fromScratch(base, elements) : afterOf(base, elements);
  return whole(base, elements, after, harmOf(base, after));
}

/** The same of single failures, and of pairs that do harm: of other pairs there are too many to tell, and they are null. */
export function toldFailure(base: SweepBase, elements: readonly Element[]): Failure | null {
  const after = afterOf(base, elements);
  const harm = harmOf(base, after);
  const { separates, goalsBroken, overloaded } = harm;
  const does = separates.switches.length + separates.hosts.length + goalsBroken.length + overloaded.length > 0;
  return does || elements.length === 1 ? whole(base, elements, after, harm) : null;
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
