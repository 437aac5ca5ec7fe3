/** Who is root, who comes next, and by what. */
import { groupBy, priorityInForce, scopeAt } from '../../design';
import type { Switch } from '../../design';
import { treeWords } from '../../goals';
import { reviewMessages as say } from '../../messages';
import { isMacOnlyRoot, makeRootOfEdits, nextRoot, rootsOf } from '../../trees';
import type { SolvedTree } from '../../trees';
import type { Context, Found, Rule } from './rule';

interface Case {
  readonly of: SolvedTree;
  readonly root: number;
  readonly next: number;
}

/** Trees with the root of their largest part and the next one, of parts of two switches and more. */
function cases({ solved }: Context): Case[] {
  return solved.trees.flatMap((of): Case[] => {
    const [root] = rootsOf(of);
    if (root === undefined || of.outcome.root.filter((r) => r === root).length < 2) return [];
    return [{ of, root, next: nextRoot(of, root) }];
  });
}

/** The switch that should be root of some trees: the one that is placed as root of most others, else one of the core. */
function meantRoot(c: Context, trees: readonly SolvedTree[]): Switch | undefined {
  const inTree = (b: number) => trees.every((of) => of.outcome.root[b]! >= 0);
  const votes = new Map<number, number>();
  for (const { of: other, root } of cases(c))
    if (inTree(root) && !isMacOnlyRoot(c.solved, other, root)) votes.set(root, (votes.get(root) ?? 0) + 1);
  const [placed] = [...votes].sort((a, b) => b[1] - a[1]);
  if (placed) return c.design.switches[placed[0]];
  return c.design.switches.find((s, b) => s.tier === 'core' && inTree(b));
}

const hasTiers = ({ design }: Context): boolean => design.switches.some((s) => s.tier && s.tier !== 'access');

/** One finding for all trees with the same switch at fault. */
function together(
  found: readonly Case[],
  key: (c: Case) => number,
  make: (cases: readonly [Case, ...Case[]], of: string) => Found,
): Found[] {
  return [...groupBy(found, key).values()].map((group) =>
    make(group as [Case, ...Case[]], treeWords(group.map((g) => g.of.tree))),
  );
}

export const rootByMac: Rule = {
  code: 'root-by-mac',
  severity: 'risk',
  find: (c) =>
    together(
      cases(c).filter(({ of, root }) => isMacOnlyRoot(c.solved, of, root)),
      ({ root }) => root,
      (group, of) => {
        const [{ root, of: first }] = group;
        const s = c.design.switches[root]!;
        const priority = priorityInForce(c.design, s, first.tree).value;
        const better =
          meantRoot(
            c,
            group.map((g) => g.of),
          ) ?? s;
        const edits = group.flatMap((g) => makeRootOfEdits(c.solved, scopeAt(c.design, better, g.of.tree), better.id));
        return {
          subjects: [c.switchAt(root)],
          sentence: say['root-by-mac']({ name: s.name, of, priority }),
          fix: { label: `Make ${better.name} root of ${of} by its priority`, edits },
        };
      },
    ),
};

export const rootOnAccess: Rule = {
  code: 'root-on-access',
  severity: 'risk',
  find: (c) =>
    hasTiers(c)
      ? together(
          cases(c).filter(({ root }) => c.design.switches[root]!.tier === 'access'),
          ({ root }) => root,
          ([{ root }], of) => ({
            subjects: [c.switchAt(root)],
            sentence: say['root-on-access']({ name: c.switchAt(root).name, of }),
          }),
        )
      : [],
};

const pairKey = ({ root, next }: Case) => root * 100_000 + next;

export const successorOnAccess: Rule = {
  code: 'successor-on-access',
  severity: 'risk',
  find: (c) =>
    hasTiers(c)
      ? together(
          cases(c).filter(
            ({ root, next }) =>
              next >= 0 && c.design.switches[next]!.tier === 'access' && c.design.switches[root]!.tier !== 'access',
          ),
          pairKey,
          ([{ root, next }], of) => ({
            subjects: [c.switchAt(next), c.switchAt(root)],
            sentence: say['successor-on-access']({ name: c.switchAt(next).name, of, root: c.switchAt(root).name }),
          }),
        )
      : [],
};

/** The root is placed by its priority, and who follows is left to addresses. */
export const successorByMac: Rule = {
  code: 'successor-by-mac',
  severity: 'risk',
  find: (c) => {
    const priority = (of: SolvedTree, bridge: number) =>
      priorityInForce(c.design, c.design.switches[bridge]!, of.tree).value;
    const left = cases(c).filter(({ of, root, next }) => {
      if (next < 0 || isMacOnlyRoot(c.solved, of, root)) return false;
      return c.design.switches.some(
        (_, b) => b !== next && b !== root && of.outcome.root[b] === root && priority(of, b) === priority(of, next),
      );
    });
    return together(left, pairKey, ([{ root, next }], of) => ({
      subjects: [c.switchAt(next), c.switchAt(root)],
      sentence: say['successor-by-mac']({ name: c.switchAt(next).name, of, root: c.switchAt(root).name }),
    }));
  },
};
