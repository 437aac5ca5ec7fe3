/**
 * What devices decide against what the standard makes of what they say: LANs with two that take themselves for designated,
 * regions that are one by name and none by digest, and roles that differ from
 * those of the solved drawing.
 */
import type { Design, ObservedEnd, ObservedNetwork, ObservedQuestion } from '../design';
import { observeMessages as say, roleMessages } from '../messages';
import { ROLES, solveDesign } from '../trees';
import { treeWordsOf } from './tree-words';
import { elementCalled, endWords, switchCalled, treeCalled } from './draw/names';

const deviates = (end: { switch: string | null; port: string | null }, text: string): ObservedQuestion => ({
  kind: 'deviates',
  switch: end.switch,
  port: end.port,
  text,
});

type ObservedTree = ObservedNetwork['trees'][number];
type TreePort = ObservedTree['ports'][number];

/** Every LAN of a tree as what spanning tree has there: a port, or the bundle that it carries for; LANs with an end that does neither are left out. */
function lansOf(observed: ObservedNetwork, tree: ObservedTree): TreePort[][] {
  const at = new Map<string, TreePort>(tree.ports.map((p) => [endWords(p), p]));
  const holder = new Map(
    observed.bundles.flatMap((b) => b.active.map((m) => [endWords({ switch: b.switch, port: m }), b] as const)),
  );
  const onLan = (end: ObservedEnd): TreePort | undefined => {
    const alone = at.get(endWords(end));
    if (alone && alone.state !== 'disabled') return alone;
    const bundle = holder.get(endWords(end));
    return bundle && at.get(endWords({ switch: bundle.switch, port: bundle.name }));
  };
  const seen = new Set<string>();
  return [...observed.links.map((l) => [l.a, l.b]), ...observed.segments.map((s) => s.ports)].flatMap((ends) => {
    const lan = [...new Set(ends.map(onLan))];
    const key = lan
      .map((p) => (p ? endWords(p) : ''))
      .sort()
      .join('\n');
    if (seen.has(key) || lan.length < 2 || lan.includes(undefined)) return [];
    seen.add(key);
    return [lan as TreePort[]];
  });
}

function designatedTwice(observed: ObservedNetwork): ObservedQuestion[] {
  return observed.trees.flatMap((tree) =>
    lansOf(observed, tree).flatMap((lan): ObservedQuestion[] => {
      if (lan.some((p) => p.role === null)) return [];
      const designated = lan.filter((p) => p.role === 'designated');
      const ends = (ports: readonly TreePort[]) => ports.map(endWords);
      if (designated.length > 1)
        return [deviates(lan[0]!, say['designated-twice']({ tree: treeWordsOf([tree.id]), ends: ends(designated) }))];
      const none = designated.length === 0 && lan.every((p) => p.role !== 'disabled');
      return none ? [deviates(lan[0]!, say['designated-none']({ tree: treeWordsOf([tree.id]), ends: ends(lan) }))] : [];
    }),
  );
}

function unlikeDigests({ switches }: ObservedNetwork): ObservedQuestion[] {
  const byName = new Map<string, { digests: Map<string, string[]> }>();
  for (const { name, region } of switches) {
    if (!region?.digest) continue;
    const key = `${region.name}, revision ${region.revision}`;
    const found = byName.get(key) ?? { digests: new Map<string, string[]>() };
    byName.set(key, found);
    found.digests.set(region.digest, [...(found.digests.get(region.digest) ?? []), name]);
  }
  return [...byName].flatMap(([region, { digests }]) => {
    if (digests.size < 2) return [];
    const [most, ...others] = [...digests].sort((a, b) => b[1].length - a[1].length);
    return others.flatMap(([digest, names]) =>
      names.map((name) =>
        deviates(
          { switch: name, port: null },
          say['unlike-digest']({ name, region, digest, others: most![1], usual: most![0] }),
        ),
      ),
    );
  });
}

/** Roles that the drawing comes to otherwise, once for each tree of a switch; what follows from an unlike root is said there. */
function decidesOtherwise(design: Design, observed: ObservedNetwork): ObservedQuestion[] {
  const solved = solveDesign(design);
  const macs = new Map(observed.switches.map((s) => [s.name, s.mac]));
  return observed.trees.flatMap((of) => {
    const tree = treeCalled(solved, of.id);
    if (!tree) return [];
    const bySwitch = new Map<string, string[]>();
    for (const p of of.ports) {
      const s = switchCalled(design, p.switch, macs.get(p.switch) ?? null);
      const e = s && elementCalled(design, s, p.port);
      const index = e && solved.topology.portIndex.get(e.id);
      if (!e || index === undefined || p.role === null || p.role === 'disabled' || !tree.problem.portTakesPart[index])
        continue;
      // Without a cable in the drawing nothing is known of what the port hears.
      if (solved.topology.portLan[index]! < 0) continue;
      const role = ROLES[tree.outcome.role[index]!]!;
      const same =
        role === p.role || (role === 'master' && p.role === 'root') || (role === 'disputed' && p.role === 'designated');
      if (role === 'none' || role === 'disabled' || same) continue;
      bySwitch.set(p.switch, [
        ...(bySwitch.get(p.switch) ?? []),
        roleMessages['role-against']({ port: e.name, reported: p.role, solved: role }),
      ]);
    }
    return [...bySwitch].map(([name, ports]) =>
      deviates({ switch: name, port: null }, say['decides-otherwise']({ name, tree: treeWordsOf([of.id]), ports })),
    );
  });
}

/** Everything in which devices deviate from the standard or from each other. */
export function checkObserved(design: Design, observed: ObservedNetwork): ObservedQuestion[] {
  return [...designatedTwice(observed), ...unlikeDigests(observed), ...decidesOtherwise(design, observed)];
}
