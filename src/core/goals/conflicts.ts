/** Which goals stand in each other's way. */
import { breachMessages as reasons, goalMessages as say } from '../messages';
import type { Goal } from '../design';
import type { SolvedDesign, SolvedTree } from '../trees';
import type { CheckedGoal } from './check';
import { breach } from './evaluation';
import { Lab } from './trial';
import { QUICK, searchTree } from './search';
import type { Want } from './conditions';
import { goalSentence, treeWords } from './words';

export interface Contradiction {
  /** One goal that cannot be met by itself, or several that cannot be met together. */
  readonly goals: readonly Goal[];
  readonly tree: string;
  /** Whether the goals exclude each other by what they say; otherwise no setting was found that meets them. */
  readonly certain: boolean;
  readonly sentence: string;
}

interface Asked {
  readonly want: Want;
  readonly goal: Goal;
}

/** Whether two conditions exclude each other whatever the settings. */
function exclude(a: Want, b: Want): boolean {
  if (a.kind === 'root' && b.kind === 'root')
    return a.bridge !== b.bridge || (a.next !== null && b.next !== null && a.next !== b.next);
  if (a.kind === 'root' && b.kind === 'last') return b.bridges.includes(a.bridge);
  if (a.kind === 'carry' && b.kind === 'carry') return a.port === b.port && a.yes !== b.yes;
  if (a.kind === 'cut' && b.kind === 'carry') return a.port === b.port && b.yes;
  return false;
}

const both = (solved: SolvedDesign, goals: readonly Goal[]) =>
  goals.map((goal) => `“${goalSentence(solved.topology.design, goal).replace(/\.$/, '')}”`).join(' and ');

/** Why a single condition can never hold here; null where that cannot be known. */
function impossible(of: SolvedTree, want: Want): string | null {
  const { topology } = of;
  if (want.kind === 'cut' || want.kind === 'carry') {
    const role = of.outcome.role[want.port];
    if (topology.portLan[want.port]! < 0) return reasons['link-down']();
    if (role === 0 || !of.problem.portTakesPart[want.port]) return reasons['port-outside']();
  }
  return null;
}

/** The smallest sets of conditions of one tree that cannot be met, as goals. */
function within(solved: SolvedDesign, of: SolvedTree, asked: readonly Asked[]): Contradiction[] {
  const trees = treeWords([of.tree]);
  const tree = of.tree.id;
  for (const [i, a] of asked.entries())
    for (const b of asked.slice(i + 1))
      if (exclude(a.want, b.want))
        return [
          {
            goals: [a.goal, b.goal],
            tree,
            certain: true,
            sentence: say.contradict({ goals: both(solved, [a.goal, b.goal]), trees }),
          },
        ];
  const works = (list: readonly Asked[]) =>
    searchTree(
      solved,
      of,
      list.map((l) => l.want),
      QUICK,
    ).length > 0;
  const alone = asked.filter((a) => breach(new Lab(solved, of).base, a.want) !== null && !works([a]));
  if (alone.length > 0)
    return alone.map((a) => {
      const reason = impossible(of, a.want);
      return {
        goals: [a.goal],
        tree,
        certain: reason !== null,
        sentence: reason
          ? say.impossible({ goals: both(solved, [a.goal]), trees, reason })
          : say['not-found-alone']({ goals: both(solved, [a.goal]), trees }),
      };
    });
  // Leave out one after the other what the rest fails without as well.
  let core = [...asked];
  for (const a of asked) {
    const rest = core.filter((b) => b !== a);
    if (rest.length > 0 && !works(rest)) core = rest;
  }
  const goals = [...new Set(core.map((c) => c.goal))];
  return [
    {
      goals,
      tree,
      certain: false,
      sentence: say['not-found-together']({ goals: both(solved, goals), trees }),
    },
  ];
}

/** State in the way where no proposal meets every goal. */
export function contradictions(
  solved: SolvedDesign,
  broken: readonly CheckedGoal[],
  stuck: readonly SolvedTree[],
  asked: ReadonlyMap<SolvedTree, readonly Asked[]>,
): Contradiction[] {
  const seen = new Set<string>();
  const found = stuck.slice(0, 6).flatMap((of) => within(solved, of, asked.get(of) ?? []));
  const load = broken.filter((c) => c.goal.type === 'load');
  const rest =
    found.length === 0 && load.length > 0
      ? load.map((c) => ({
          goals: [c.goal],
          tree: '',
          certain: false,
          sentence: say['no-path-for-load']({ goals: both(solved, [c.goal]) }),
        }))
      : [];
  return [...found, ...rest].filter((c) => {
    const key = c.goals.map((g) => g.id).join();
    return seen.has(key) ? false : seen.add(key);
  });
}
