/** What changed between two readings of one network: roots, roles, members, cables, and devices that came or went. */
import type { ObservedNetwork } from '../design';
import { changeMessages as say } from '../messages';
import { treeWordsOf } from './tree-words';

export interface ObservedChange {
  readonly kind: 'device' | 'link' | 'root' | 'role' | 'bundle';
  /** Whether the network rearranged itself, or lost something. */
  readonly alarm: boolean;
  readonly switch: string | null;
  readonly text: string;
}

const ends = ({ links }: ObservedNetwork): Set<string> =>
  new Set(links.map(({ a, b }) => `${a.switch} ${a.port} – ${b.switch} ${b.port}`));

/** Something that changed in one tree or alike in several. */
interface TreeChange extends Omit<ObservedChange, 'text'> {
  readonly trees: string[];
  readonly words: (tree: string) => string;
}

function inTrees(before: ObservedNetwork, after: ObservedNetwork): ObservedChange[] {
  const was = new Map(before.trees.map((t) => [t.id, t]));
  const found = new Map<string, TreeChange>();
  const note = (tree: string, change: Omit<TreeChange, 'trees'>) => {
    const key = change.words('');
    const known = found.get(key);
    if (known) known.trees.push(tree);
    else found.set(key, { ...change, trees: [tree] });
  };
  for (const { id, root, ports } of after.trees) {
    const old = was.get(id);
    if (!old) continue;
    if (old.root !== root) {
      const roots = { before: old.root ?? 'none', after: root ?? 'none' };
      note(id, { kind: 'root', alarm: true, switch: root, words: (tree) => say.root({ tree, ...roots }) });
    }
    const earlier = new Map(old.ports.map((p) => [`${p.switch} ${p.port}`, p]));
    for (const p of ports) {
      const port = `${p.switch} ${p.port}`;
      const q = earlier.get(port);
      if (!q || (q.role === p.role && q.state === p.state)) continue;
      const state = (of: typeof p) => [...new Set([of.role, of.state])].filter(Boolean).join(' ');
      const turn = { port, before: state(q), after: state(p) };
      note(id, {
        kind: 'role',
        alarm: q.role !== p.role,
        switch: p.switch,
        words: (tree) => say.port({ tree, ...turn }),
      });
    }
  }
  return [...found.values()].map(({ kind, alarm, switch: at, trees, words }) => ({
    kind,
    alarm,
    switch: at,
    text: words(treeWordsOf(trees)),
  }));
}

function inBundles(before: ObservedNetwork, after: ObservedNetwork): ObservedChange[] {
  const was = new Map(before.bundles.map((b) => [`${b.switch} ${b.name}`, b]));
  return after.bundles.flatMap((b): ObservedChange[] => {
    const old = was.get(`${b.switch} ${b.name}`);
    if (!old || old.active.join() === b.active.join()) return [];
    const text = say.members({
      bundle: `${b.switch} ${b.name}`,
      before: old.active.length,
      after: b.active.length,
      of: b.members.length,
    });
    return [{ kind: 'bundle', alarm: b.active.length < old.active.length, switch: b.switch, text }];
  });
}

/** Changes from one reading to the next, in the order of their weight. */
export function changesBetween(before: ObservedNetwork, after: ObservedNetwork): ObservedChange[] {
  const names = (n: ObservedNetwork) => new Set(n.switches.filter((s) => s.source.length > 0).map((s) => s.name));
  const [old, now] = [names(before), names(after)];
  const [cables, plugged] = [ends(before), ends(after)];
  return [
    ...[...old]
      .filter((n) => !now.has(n))
      .map((n): ObservedChange => ({ kind: 'device', alarm: true, switch: n, text: say.silent({ name: n }) })),
    ...[...now]
      .filter((n) => !old.has(n))
      .map((n): ObservedChange => ({ kind: 'device', alarm: false, switch: n, text: say.answers({ name: n }) })),
    ...[...cables]
      .filter((c) => !plugged.has(c))
      .map((c): ObservedChange => ({ kind: 'link', alarm: true, switch: null, text: say.unplugged({ link: c }) })),
    ...[...plugged]
      .filter((c) => !cables.has(c))
      .map((c): ObservedChange => ({ kind: 'link', alarm: false, switch: null, text: say.plugged({ link: c }) })),
    ...inTrees(before, after),
    ...inBundles(before, after),
  ];
}
