/** Which VLANs to put into which instances, with which roots, so that every VLAN keeps its paths where possible. */
import { applyEdits, setField } from '../design';
import type { Design, Edit } from '../design';
import { INSTANCE_ID, formatVlanRanges, vlanMembership, instanceTreeId } from '../standard';
import { forwardsRole, nextRoot, rootsOf, solveDesign } from '../trees';
import type { SolvedDesign, SolvedTree } from '../trees';
import { treeOfVlan } from './load';
import { rankEdits } from './root-placement';
import { portsOnLan } from '../network';

export interface AdvisedInstance {
  readonly instance: number;
  readonly vlans: readonly number[];
  /** Id of the switch that becomes root, null for none. */
  readonly root: string | null;
  /** Mb/s offered in its VLANs. */
  readonly load: number;
}

export interface Advice {
  /** Whether it keeps ways as they are or balances load again. */
  readonly kind: 'keep' | 'balance';
  readonly instances: readonly AdvisedInstance[];
  readonly edits: readonly Edit[];
  /** VLANs whose frames take another way than now, with how many ports differ. */
  readonly changed: readonly { readonly vlan: number; readonly ports: number }[];
  /** VLANs that are partitioned, since the instance keeps a link open that does not carry them. */
  readonly parted: readonly number[];
  readonly treesBefore: number;
  readonly treesAfter: number;
  readonly settings: number;
}

interface Group {
  vlans: number[];
  /** The tree whose settings the instance takes over: that of its heaviest VLAN. */
  model: SolvedTree;
  weight: number;
}

/** Ports whose forwarding differs between two trees. */
function apart(a: SolvedTree, b: SolvedTree): number {
  if (a.outcome === b.outcome) return 0;
  let differing = 0;
  a.outcome.role.forEach((role, p) => {
    if (
      a.problem.portTakesPart[p] &&
      b.problem.portTakesPart[p] &&
      forwardsRole(role) !== forwardsRole(b.outcome.role[p])
    )
      differing++;
  });
  return differing;
}

/** VLANs with one outcome together, then merged where it costs least until there are at most `count` groups. */
function groupsOf(solved: SolvedDesign, count: number, weight: (vlan: number) => number): Group[] {
  const byFold = new Map<number, Group>();
  for (const { number } of solved.topology.design.vlans) {
    const model = treeOfVlan(solved, number);
    if (!model) continue;
    const group = byFold.get(model.fold);
    if (group) {
      group.vlans.push(number);
      group.weight += weight(number);
    } else byFold.set(model.fold, { vlans: [number], model, weight: weight(number) });
  }
  const groups = [...byFold.values()];
  while (groups.length > count) {
    let best = { into: 0, from: 1, cost: Infinity };
    for (let i = 0; i < groups.length; i++)
      for (let j = 0; j < groups.length; j++) {
        if (i === j || groups[i]!.weight < groups[j]!.weight) continue;
        const cost = apart(groups[i]!.model, groups[j]!.model) * groups[j]!.weight;
        if (cost < best.cost) best = { into: i, from: j, cost };
      }
    const from = groups[best.from]!;
    groups[best.into]!.vlans.push(...from.vlans);
    groups[best.into]!.weight += from.weight;
    groups.splice(best.from, 1);
  }
  for (const group of groups) group.vlans.sort((a, b) => a - b);
  return groups.sort((a, b) => a.vlans[0]! - b.vlans[0]!);
}

/** Region that the instances are written to: the first of the design, or a new one. */
function regionEdits(design: Design, map: Record<string, string>): Edit[] {
  const [region] = design.regions;
  if (!region) return [{ type: 'add', kind: 'region', value: { id: 'region-1', name: 'region-1', revision: 0, map } }];
  const gone = Object.keys(region.map).filter((key) => !(key in map));
  return [
    ...gone.map((key) => setField('region', region.id, `map.${Number(key)}`, null)),
    ...Object.keys(region.map)
      .filter((key) => key in map)
      .map((key) => setField('region', region.id, `map.${Number(key)}`, '')),
    ...Object.entries(map).map(([key, vlans]) => setField('region', region.id, `map.${Number(key)}`, vlans)),
  ];
}

/** Settings of an instance that the model tree has and that are not in force for all trees anyway. */
function settingEdits(solved: SolvedDesign, { model }: Group, instance: number): Edit[] {
  const { topology } = solved;
  const edits: Edit[] = [];
  topology.design.switches.forEach((s, b) => {
    const value = model.problem.bridgePriority[b]!;
    const now = s.instancePriority?.[String(instance)];
    const general = s.priority ?? 32768;
    const wanted = value === general ? null : value;
    if ((now ?? null) !== wanted) edits.push(setField('switch', s.id, `instancePriority.${instance}`, wanted));
  });
  topology.ports.forEach(({ kind, element }, p) => {
    const cost = model.problem.portCost[p]!;
    const wanted = cost === (element.internalCost ?? topology.portCost[p]!) ? null : cost;
    const table = element.instanceCost;
    if ((table?.[String(instance)] ?? null) !== wanted)
      edits.push(setField(kind, element.id, `instanceCost.${instance}`, wanted));
    const own = element.vlanPriority?.[String(model.tree.vlan)];
    const port = element.instancePriority?.[String(instance)] ?? null;
    if (model.tree.vlan !== null && port !== (own ?? null))
      edits.push(setField(kind, element.id, `instancePriority.${instance}` as 'id', own ?? null));
  });
  return edits;
}

/** Whether two places of the tree can talk in a VLAN: the number of parts its open, carried links make. */
function parts(solved: SolvedDesign, vlan: number): number {
  const { topology } = solved;
  const { portBridge, portLan, portVlans, vlanSets, lanCount } = topology;
  const of = treeOfVlan(solved, vlan)!;
  const carries = (p: number) => vlanMembership(vlanSets[portVlans[p]!]!)[vlan] === 1;
  const parent = [...topology.design.switches.keys()];
  const find = (b: number): number => (parent[b] === b ? b : (parent[b] = find(parent[b]!)));
  for (let lan = 0; lan < lanCount; lan++) {
    const open = [...portsOnLan(topology, lan)].filter(
      (p) => carries(p) && forwardsRole(of.outcome.role[p]) && portLan[p] === lan,
    );
    for (const p of open.slice(1)) parent[find(portBridge[p]!)] = find(portBridge[open[0]!]!);
  }
  const has = new Set<number>();
  topology.ports.forEach((_, p) => {
    if (carries(p) && portLan[p]! >= 0) has.add(find(portBridge[p]!));
  });
  return has.size;
}

/** Everything but the settings of instances: MSTP everywhere, one region, its map. */
function layoutEdits(design: Design, vlanGroups: readonly (readonly number[])[]): Edit[] {
  const map = Object.fromEntries(vlanGroups.map((g, i) => [String(INSTANCE_ID.min + i), formatVlanRanges(g)]));
  return [
    ...(design.mode === 'mstp' ? [] : [{ type: 'settings' as const, field: 'mode' as const, value: 'mstp' }]),
    ...design.switches.flatMap((s) => [
      ...(s.protocol && s.protocol !== 'mstp' ? [setField('switch', s.id, 'protocol', null)] : []),
      ...(s.region ? [setField('switch', s.id, 'region', null)] : []),
      ...Object.keys(s.vlanInstance ?? {}).map((vlan) =>
        setField('switch', s.id, `vlanInstance.${Number(vlan)}`, null),
      ),
    ]),
    ...regionEdits(design, map),
  ];
}

function offeredByVlan({ demands }: Design): (vlan: number) => number {
  const offered = new Map<number, number>();
  for (const d of demands) offered.set(d.vlan, (offered.get(d.vlan) ?? 0) + d.load);
  return (vlan) => offered.get(vlan) ?? 0;
}

/** What a grouping comes to, found by solving the design it leads to; null when it cannot be applied. */
function adviceFor(
  solved: SolvedDesign,
  kind: Advice['kind'],
  vlanGroups: readonly (readonly number[])[],
  edits: readonly Edit[],
): Advice | null {
  const { design } = solved.topology;
  const applied = applyEdits(design, edits);
  if (!applied.ok) return null;
  const after = solveDesign(applied.design);
  const offered = offeredByVlan(design);
  return {
    kind,
    instances: vlanGroups.map((vlans, i) => {
      const of = after.byId.get(instanceTreeId(INSTANCE_ID.min + i));
      const root = of && rootsOf(of)[0];
      return {
        instance: INSTANCE_ID.min + i,
        vlans,
        root: root === undefined ? null : after.topology.design.switches[root]!.id,
        load: vlans.reduce((sum, v) => sum + offered(v), 0),
      };
    }),
    edits,
    changed: design.vlans.flatMap(({ number }) => {
      const ports = apart(treeOfVlan(solved, number)!, onCarried(solved, treeOfVlan(after, number)!, number));
      return ports > 0 ? [{ vlan: number, ports }] : [];
    }),
    parted: design.vlans.map((v) => v.number).filter((v) => parts(after, v) > parts(solved, v)),
    treesBefore: solved.trees.length,
    treesAfter: after.trees.length,
    settings: edits.length,
  };
}

/**
 * Grouping into at most `count` instances (1 to 64) that keeps the paths of every VLAN where possible: each instance
 * takes over the settings of its heaviest VLAN. Null in a design without VLANs or switches.
 */
export function advise(solved: SolvedDesign, count: number): Advice | null {
  const { design } = solved.topology;
  if (design.vlans.length === 0 || design.switches.length === 0) return null;
  const offered = offeredByVlan(design);
  const groups = groupsOf(solved, Math.max(1, count), (vlan) => 1 + offered(vlan));
  const vlans = groups.map((g) => g.vlans);
  const heaviest = [...groups].sort((a, b) => b.weight - a.weight)[0];
  const edits = [
    ...layoutEdits(design, vlans),
    ...groups.flatMap((g, i) => settingEdits(solved, g, INSTANCE_ID.min + i)),
    // The CIST, which holds the rest and the edges of the region, has the roots of the heaviest group.
    ...(heaviest ? settingEdits(solved, heaviest, 0) : []),
  ];
  return adviceFor(solved, 'keep', vlans, edits);
}

/** The two switches that are root of most VLANs, or root and successor where one is root of all. */
export function mainRoots(solved: SolvedDesign): [string, string] | null {
  const { switches } = solved.topology.design;
  const votes = new Float64Array(switches.length);
  for (const of of solved.trees) {
    const root = rootsOf(of)[0];
    if (root === undefined) continue;
    votes[root]! += of.tree.vlans.length || 1;
    const next = nextRoot(of, root);
    if (next >= 0) votes[next]! += 0.5;
  }
  const [a, b] = [...votes.keys()].filter((v) => votes[v]! > 0).sort((x, y) => votes[y]! - votes[x]!);
  return a === undefined || b === undefined ? null : [switches[a]!.id, switches[b]!.id];
}

/**
 * Grouping into `count` instances of equal load (of equal number without traffic), their roots in turn on two
 * switches, each the successor of the other. The VLAN paths follow, so the answer lists what moves.
 */
export function adviseBalanced(solved: SolvedDesign, count: number, roots: readonly [string, string]): Advice | null {
  const { design } = solved.topology;
  if (design.vlans.length === 0 || count < 1) return null;
  const offered = offeredByVlan(design);
  const groups = Array.from({ length: Math.min(count, design.vlans.length) }, () => ({
    vlans: [] as number[],
    sum: 0,
  }));
  const heavyFirst = design.vlans.map((v) => v.number).sort((a, b) => offered(b) - offered(a) || a - b);
  for (const vlan of heavyFirst) {
    const lightest = groups.reduce((m, g) =>
      g.sum < m.sum || (g.sum === m.sum && g.vlans.length < m.vlans.length) ? g : m,
    );
    lightest.vlans.push(vlan);
    lightest.sum += offered(vlan);
  }
  const vlans = groups.map((g) => g.vlans.sort((a, b) => a - b));
  const layout = layoutEdits(design, vlans);
  const applied = applyEdits(design, layout);
  if (!applied.ok) return null;
  const laid = solveDesign(applied.design);
  const side = (n: number) =>
    laid.trees.filter((t) => t.tree.instance && (t.tree.instance - INSTANCE_ID.min) % 2 === n);
  const halves = [
    rankEdits(laid, [...laid.trees.slice(0, 1), ...side(0)], roots),
    rankEdits(laid, side(1), [roots[1], roots[0]]),
  ];
  if (!halves.every((h) => h.ok)) return null;
  return adviceFor(solved, 'balance', vlans, [...layout, ...halves.flatMap((h) => (h.ok ? h.edits : []))]);
}

/** A tree as a VLAN sees it: ports that do not carry the VLAN take no part. */
function onCarried({ topology }: SolvedDesign, of: SolvedTree, vlan: number): SolvedTree {
  const portTakesPart = of.problem.portTakesPart.map((on, p) =>
    on && vlanMembership(topology.vlanSets[topology.portVlans[p]!]!)[vlan] ? 1 : 0,
  );
  return { ...of, problem: { ...of.problem, portTakesPart } };
}

/** Groupings that keep the ways, from as many instances as there are different outcomes down, and balanced ones. */
export function advices(solved: SolvedDesign, most: number): Advice[] {
  const folds = new Set(solved.topology.design.vlans.map((v) => treeOfVlan(solved, v.number)?.fold)).size;
  const highest = Math.max(1, Math.min(folds, most));
  const counts = [...new Set([highest, ...[4, 3, 2].filter((n) => n < highest)])].slice(0, 4);
  const kept = counts.flatMap((count) => advise(solved, count) ?? []);
  const roots = mainRoots(solved);
  const balanced = roots ? [2, 4].filter((n) => n <= most).flatMap((n) => adviseBalanced(solved, n, roots) ?? []) : [];
  return [...kept, ...balanced];
}
