/** A design with a failure, as a review looks at it. */
import type { Design, TimersInForce } from '../design';
import { timersInForce } from '../analysis';
import { checkGoals } from '../goals';
import { movedBetween, rootsOf, solveDesign } from '../trees';
import type { SolvedDesign, SolvedTree, TreeChange } from '../trees';
import { Effects } from './effects';
import type { Hit } from './tree-effects';
import { elementsOf, withFailed } from './elements';
import type { Element } from './elements';
import { settlingOf } from './outage';
import { reachAfter, reachOf } from './reach';
import type { VlanParts } from './reach';
import { treeDiameter } from './tree-diameter';

/** What a sweep compares with: the design as it is. */
export interface SweepBase {
  readonly solved: SolvedDesign;
  readonly parts: readonly VlanParts[];
  /** Ids of goals that are not broken. */
  readonly holding: ReadonlySet<string>;
  readonly elements: readonly Element[];
  readonly effects: Effects;
  readonly known: {
    /** Parts of VLANs with a failure. */
    readonly walks: WeakMap<Hit, Map<VlanParts, VlanParts>>;
    /** Whether frames passed an element. */
    readonly open: Map<Element, boolean>;
  };
}

/** The design as it is, solved once for a whole sweep. `earlier`: before an edit, for the trees that the edit cannot touch. */
export function sweepBase(solved: SolvedDesign, earlier?: SweepBase): SweepBase {
  const holding = new Set(checkGoals(solved).flatMap((c) => (c.state === 'broken' ? [] : [c.goal.id])));
  return {
    solved,
    parts: reachOf(solved),
    holding,
    elements: elementsOf(solved.topology.design),
    effects: new Effects(solved, earlier?.effects),
    known: { walks: new WeakMap(), open: new Map() },
  };
}

export interface NewRoot {
  readonly tree: string;
  /** Ids of switches; null where there is none. */
  readonly before: string | null;
  readonly after: string | null;
}

/** What a failure moves. */
export interface Moves {
  readonly roots: readonly NewRoot[];
  /** Trees in which something moves, and ports whose role changes, those apart that failed themselves. */
  readonly moved: { readonly trees: number; readonly ports: number };
  /** Links between the two switches that are farthest apart in a tree. */
  readonly longestPath: number;
  /** What the slowest tree takes to settle, by theory. */
  readonly seconds: () => number;
  readonly timers: () => TimersInForce;
}

/** The design with a failure: its trees, the parts of VLANs, and what moved. */
export interface After {
  readonly failed: () => Design;
  readonly solved: () => SolvedDesign;
  /** Of the VLANs that can have changed. */
  readonly parts: readonly VlanParts[];
  readonly moves: () => Moves;
}

/** Ports that went down with what failed are no change of a role. */
const movesOnly = (trees: readonly TreeChange[]) => trees.filter((t) => t.ports.some((p) => p.after !== 'disabled'));

function newRoots(before: SolvedDesign, after: SolvedDesign): NewRoot[] {
  const rootId = ({ topology }: SolvedDesign, of: SolvedTree) => topology.design.switches[rootsOf(of)[0]!]?.id ?? null;
  return after.trees.flatMap((now) => {
    const was = before.byId.get(now.tree.id);
    if (!was) return [];
    const [old, fresh] = [rootId(before, was), rootId(after, now)];
    return old === fresh ? [] : [{ tree: now.tree.id, before: old, after: fresh }];
  });
}

/** As if nothing were known of the design without the failure. */
export function fromScratch({ solved: before, parts }: SweepBase, elements: readonly Element[]): After {
  const failed = withFailed(before.topology.design, elements);
  const solved = solveDesign(failed, before);
  const moved = movesOnly(movedBetween(before, solved, false));
  return {
    failed: () => failed,
    solved: () => solved,
    parts: reachAfter(parts, solved),
    moves: () => ({
      roots: newRoots(before, solved),
      moved: {
        trees: moved.length,
        ports: new Set(moved.flatMap((t) => t.ports.flatMap((p) => (p.after === 'disabled' ? [] : [p.id])))).size,
      },
      longestPath: Math.max(0, ...solved.trees.map((of) => treeDiameter(of).links)),
      seconds: () => settlingOf(solved, moved, elements),
      timers: () => timersInForce(solved),
    }),
  };
}
