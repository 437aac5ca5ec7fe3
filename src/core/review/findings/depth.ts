/** How deep trees are, and whether timers are made for it. */
import { groupBy, timersFit, timersOf } from '../../design';
import { treeWords } from '../../goals';
import { documentMessages, reviewMessages as say } from '../../messages';
import { timersForDiameter } from '../../standard';
import { nextRoot, rootsOf } from '../../trees';
import { treeDiameter } from '../tree-diameter';
import { namesOf } from './rule';
import type { Context, Found, Rule } from './rule';

/** Switches on the longest way for which usual timers are made. */
const MOST_SWITCHES = 7;

export const tooDeep: Rule = {
  code: 'too-deep',
  severity: 'fault',
  find: (c) => {
    const deep = c.solved.trees.flatMap((of) => {
      const roots = rootsOf(of);
      return of.outcome.spent ? roots.slice(1).map((root) => ({ root, of })) : [];
    });
    return [...groupBy(deep, (d) => d.root)].map(([root, group]): Found => ({
      subjects: [c.switchAt(root)],
      sentence: say['too-deep']({ name: c.switchAt(root).name, of: treeWords(group.map((g) => g.of.tree)) }),
    }));
  },
};

/** Trees by how long their longest way is and who is root, in links. */
function diameters(c: Context) {
  const known = new Map<object, number>();
  const of = c.solved.trees.flatMap((tree) => {
    const [root] = rootsOf(tree);
    if (root === undefined) return [];
    if (!known.has(tree.outcome)) known.set(tree.outcome, treeDiameter(tree).links);
    return [{ tree, root, links: known.get(tree.outcome)! }];
  });
  return [...groupBy(of, ({ root, links }) => `${root} ${links}`).values()];
}

export const sevenSwitches: Rule = {
  code: 'seven-switches',
  severity: 'risk',
  find: (c) =>
    diameters(c).flatMap((group): Found[] => {
      const [{ root, links }] = group as [(typeof group)[number]];
      if (links + 1 <= MOST_SWITCHES) return [];
      return [
        {
          subjects: [c.switchAt(root)],
          sentence: say['seven-switches']({ of: treeWords(group.map((g) => g.tree.tree)), links }),
        },
      ];
    }),
};

/** Timers that a root has set, and that are shorter than the network needs. */
export const timersDiameter: Rule = {
  code: 'timers-diameter',
  severity: 'risk',
  find: (c) =>
    diameters(c).flatMap((group): Found[] => {
      const [{ root, links }] = group as [(typeof group)[number]];
      const { maxAge, helloTime } = timersOf(c.design.switches[root]!);
      const needs = Math.ceil(timersForDiameter(Math.max(2, links + 1), helloTime).maxAge);
      if (maxAge >= needs || links + 1 > MOST_SWITCHES) return [];
      const { name } = c.switchAt(root);
      return [
        {
          subjects: [c.switchAt(root)],
          sentence: say['timers-diameter']({
            name,
            of: treeWords(group.map((g) => g.tree.tree)),
            links,
            needs,
            has: maxAge,
          }),
        },
      ];
    }),
};

/** Timers that devices take and the standard does not: what one switch still believes, another one has given up (802.1D-2004 17.14). */
export const timersTogether: Rule = {
  code: 'timers-together',
  severity: 'fault',
  find: (c) =>
    c.design.switches.flatMap((s): Found[] => {
      const { helloTime: hello, maxAge: age, forwardDelay: delay } = timersOf(s);
      if (timersFit({ helloTime: hello, maxAge: age, forwardDelay: delay })) return [];
      return [
        {
          subjects: [c.switchAt(c.design.switches.indexOf(s))],
          sentence: documentMessages.timersTogether(s.name, hello, age, delay),
        },
      ];
    }),
};

export const helloUnlike: Rule = {
  code: 'hello-unlike',
  severity: 'remark',
  find: (c) => {
    const roots = new Set(
      c.solved.trees.flatMap((of) => {
        const [root] = rootsOf(of);
        const next = root === undefined ? -1 : nextRoot(of, root);
        return [root ?? -1, next].filter((b) => b >= 0);
      }),
    );
    const hellos = new Set([...roots].map((b) => timersOf(c.design.switches[b]!).helloTime));
    if (hellos.size < 2) return [];
    const names = [...roots].map((b) => `${c.switchAt(b).name} ${timersOf(c.design.switches[b]!).helloTime} s`);
    return [
      { subjects: [...roots].map((b) => c.switchAt(b)), sentence: say['hello-unlike']({ names: namesOf(names) }) },
    ];
  },
};
