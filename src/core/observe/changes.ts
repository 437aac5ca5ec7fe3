/** What changed between two readings of one network: roots, roles, members, cables, and devices that came or went. */
import type { ObservedNetwork } from '../design';
import { changeMessages as say } from '../messages';
import { treeWordsOf } from './tree-words';

export interface ObservedChange {
  /** Whether the network rearranged itself, or lost something. */
  readonly alarm: boolean;
  readonly switch: string | null;
  readonly text: string;
}

const ends = ({ links }: ObservedNetwork): Set<string> =>
  new Set(links.map(({ a, b }) => `${a.switch} ${a.port} – ${b.switch} ${b.port}`));

function inTrees(before: ObservedNetwork, after: ObservedNetwork): ObservedChange[] {
  const was = new Map(before.trees.map((t) => [t.id, t]));
  return after.trees.flatMap((tree): ObservedChange[] => {
    const old = was.get(tree.id);
    if (!old) return [];
    const found: ObservedChange[] = [];
    if (old.root !== tree.root)
      found.push({
        alarm: true,
        switch: tree.root,
        text: say.root({ tree: treeWordsOf([tree.id]), before: old.root ?? 'none', after: tree.root ?? 'none' }),
      });
    const ports = new Map(old.ports.map((p) => [`${p.switch} ${p.port}`, p]));
    for (const p of tree.ports) {
      const earlier = ports.get(`${p.switch} ${p.port}`);
      if (!earlier || (earlier.role === p.role && earlier.state === p.state)) continue;
      const words = (q: typeof p) => [...new Set([q.role, q.state])].filter(Boolean).join(' ');
      found.push({
        alarm: earlier.role !== p.role,
        switch: p.switch,
        text: say.port({
          tree: treeWordsOf([tree.id]),
          port: `${p.switch} ${p.port}`,
          before: words(earlier),
          after: words(p),
        }),
      });
    }
    return found;
  });
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
    return [{ alarm: b.active.length < old.active.length, switch: b.switch, text }];
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
      .map((n): ObservedChange => ({ alarm: true, switch: n, text: say.silent({ name: n }) })),
    ...[...now]
      .filter((n) => !old.has(n))
      .map((n): ObservedChange => ({ alarm: false, switch: n, text: say.answers({ name: n }) })),
    ...[...cables]
      .filter((c) => !plugged.has(c))
      .map((c): ObservedChange => ({ alarm: true, switch: null, text: say.unplugged({ link: c }) })),
    ...[...plugged]
      .filter((c) => !cables.has(c))
      .map((c): ObservedChange => ({ alarm: false, switch: null, text: say.plugged({ link: c }) })),
    ...inTrees(before, after),
    ...inBundles(before, after),
  ];
}
