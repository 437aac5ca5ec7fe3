/** Goals against a solved design: met, broken or void, each with its reason. */
import { goalMessages as say } from '../messages';
import { isAvailability } from '../design';
import type { Goal, PresentGoal } from '../design';
import { busiest, loadsOf } from '../analysis';
import type { Loads } from '../analysis';
import type { SolvedDesign } from '../trees';
import { breach } from './evaluation';
import { endWords, treeWords } from './words';
import { wantsOf } from './conditions';

export type GoalState = 'met' | 'broken' | 'void';

export interface CheckedGoal {
  readonly goal: Goal;
  readonly state: GoalState;
  /** Why: what breaks it and in which trees, or what it speaks of that is gone; empty when it is met. */
  readonly reason: string;
  /** It is not known yet: void until it is. */
  readonly pending?: boolean;
  /** Ids of the trees in which it is broken. */
  readonly trees: readonly string[];
}

const MOST_TREES = 4;

/** Links that carry more than a share of their rate, busiest first, by port. */
export const overloads = (solved: SolvedDesign, loads: Loads, percent: number) =>
  busiest(solved, loads).filter((p) => p.percent > percent);

function checkLoad(solved: SolvedDesign, goal: Extract<Goal, { type: 'load' }>, loads: Loads): CheckedGoal {
  const over = overloads(solved, loads, goal.percent);
  if (solved.topology.design.demands.length === 0)
    return { goal, state: 'void', reason: say['void-no-traffic'](), trees: [] };
  const [first] = over;
  if (!first) return { goal, state: 'met', reason: '', trees: [] };
  return {
    goal,
    state: 'broken',
    reason: say.overload({
      port: endWords(solved, first.port),
      percent: Math.round(first.percent),
      more: over.length - 1,
    }),
    trees: [...loads.byTree].filter(([, out]) => out[first.port]! > 0).map(([tree]) => tree),
  };
}

/** One goal; `loads` are needed for goals about load and computed when they are not given. */
export function checkGoal(solved: SolvedDesign, goal: PresentGoal, loads?: Loads): CheckedGoal {
  if (goal.type === 'load') return checkLoad(solved, goal, loads ?? loadsOf(solved));
  const wanted = wantsOf(solved, goal);
  if (wanted.void !== null) return { goal, state: 'void', reason: wanted.void, trees: [] };
  const broken = wanted.wants.flatMap(({ tree, want }) => {
    const reason = breach(tree, want);
    return reason === null ? [] : [{ tree: tree.tree, reason }];
  });
  if (broken.length === 0) return { goal, state: 'met', reason: '', trees: [] };
  const reasons = [...new Set(broken.map((b) => b.reason))];
  const named = reasons.slice(0, MOST_TREES).map((reason) => {
    const trees = broken.filter((b) => b.reason === reason).map((b) => b.tree);
    return `${reason} in ${treeWords(trees)}`;
  });
  const sentence = `${named.join('; ')}${reasons.length > MOST_TREES ? '; and more' : ''}.`;
  return {
    goal,
    state: 'broken',
    reason: sentence.charAt(0).toUpperCase() + sentence.slice(1),
    trees: broken.map((b) => b.tree.id),
  };
}

/** All goals of a solved design that speak of the network as it is; what is left after failures is the review's to say. */
export function checkGoals(solved: SolvedDesign): CheckedGoal[] {
  const goals = solved.topology.design.goals.filter((g) => !isAvailability(g)) as PresentGoal[];
  const loads = goals.some((g) => g.type === 'load') ? loadsOf(solved) : undefined;
  return goals.map((goal) => checkGoal(solved, goal, loads));
}
