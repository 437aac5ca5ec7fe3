/** A design with a failure, solved: taken on from the design as it is, where that can be done, else from scratch. */
import { linksOfHost, portById } from '../design';
import type { Design } from '../design';
import { checkGoals } from '../goals';
import { ROLE, movedAt, movedBetween, rootsOf, solveDesign, solveFailed } from '../trees';
import type { Affected, SolvedDesign, SolvedTree, TreeChange, TreeOutcome } from '../trees';
import { remembered } from '../remembered';
import { elementsOf } from './elements';
import type { Element } from './elements';
import { hostVlans, isWhole, reachAfter, reachOf } from './reach';
import type { VlanParts } from './reach';

/** What a sweep compares with: the design as it is. */
export interface SweepBase {
  readonly solved: SolvedDesign;
  readonly parts: readonly VlanParts[];
  /** Ids of goals that are not broken. */
  readonly holding: ReadonlySet<string>;
  readonly elements: readonly Element[];
}

/** The design as it is, solved once for a whole sweep. */
export function sweepBase(solved: SolvedDesign): SweepBase {
  const holding = new Set(checkGoals(solved).flatMap((c) => (c.state === 'broken' ? [] : [c.goal.id])));
  return { solved, parts: reachOf(solved), holding, elements: elementsOf(solved.topology.design) };
}

/** The design with a failure: its trees, what moved in them, and the parts of VLANs. */
export interface After {
  readonly solved: SolvedDesign;
  /** Whether a tree can have changed in more than what failed, by its id. */
  readonly changed: (tree: string) => boolean;
  /** Whether a tree can have other roots. */
  readonly parted: (tree: string) => boolean;
  /** Trees with ports whose roles changed, those apart that failed themselves. */
  readonly moved: readonly TreeChange[];
  /** Ports whose role changed in some tree. */
  readonly portsMoved: number;
  /** Of the VLANs that can have changed. */
  readonly parts: readonly VlanParts[];
}

/** Ports that went down with what failed are no change of a role. */
const movesOnly = (trees: readonly TreeChange[]) => trees.filter((t) => t.ports.some((p) => p.after !== 'disabled'));

/** As if nothing were known of the design without the failure. */
export function fromScratch({ solved: before, parts }: SweepBase, failed: Design): After {
  const solved = solveDesign(failed, before);
  const moved = movesOnly(movedBetween(before, solved, false));
  return {
    solved,
    changed: () => true,
    parted: () => true,
    moved,
    portsMoved: new Set(moved.flatMap((t) => t.ports.flatMap((p) => (p.after === 'disabled' ? [] : [p.id])))).size,
    parts: reachAfter(parts, solved, () => true),
  };
}

/** Taken on from the design as it is, where that can be done; else from scratch. */
export function takenOn(base: SweepBase, failed: Design, elements: readonly Element[]): After {
  const all = {
    links: elements.flatMap((e) => e.links),
    segments: elements.flatMap((e) => e.segments),
    switches: elements.flatMap((e) => e.switches),
  };
  const found = solveFailed(base.solved, failed, all);
  if (!found) return fromScratch(base, failed);
  const { solved, affected } = found;
  return {
    solved,
    changed: (tree) => affected.has(tree),
    parted: (tree) => affected.get(tree)?.parted ?? false,
    ...movedIn(base.solved, solved, affected),
    parts: reachAfter(base.parts, solved, looksAt(base, solved, affected, all)),
  };
}

/** Which VLANs can go other ways than before, so that they are walked again. */
function looksAt(
  base: SweepBase,
  solved: SolvedDesign,
  affected: ReadonlyMap<string, Affected>,
  all: { links: readonly string[]; switches: readonly string[] },
): (parts: VlanParts) => boolean {
  const [moved, parted] = [new Set<number>(), new Set<number>()];
  for (const { tree } of solved.trees) {
    const what = affected.get(tree.id);
    if (!what) continue;
    for (const vlan of tree.vlans) {
      moved.add(vlan);
      if (what.parted) parted.add(vlan);
    }
  }
  const ofHosts = hostVlansHit(base.solved.topology.design, all);
  const hosts = ofHosts.size > 0;
  return (parts) => {
    const { vlans } = parts;
    if (hosts && vlans.some((v) => ofHosts.has(v))) return true;
    // Where all switches that carry a VLAN are joined by its tree, they stay so while they have its root.
    if (isWhole(base.solved, parts)) return vlans.some((v) => parted.has(v));
    return all.switches.length > 0 || vlans.some((v) => moved.has(v));
  };
}

const rootBefore = remembered((of: SolvedTree): number | undefined => rootsOf(of)[0]);

/** What moved in the trees that were solved again; trees that share an outcome are looked at once. */
function movedIn(
  before: SolvedDesign,
  after: SolvedDesign,
  affected: ReadonlyMap<string, Affected>,
): Pick<After, 'moved' | 'portsMoved'> {
  const { design, ports, portIndex } = after.topology;
  const nameOf = (root: number | undefined) => (root === undefined ? null : design.switches[root]!.id);
  const counted = new Uint8Array(ports.length);
  let portsMoved = 0;
  const count = (port: number, role: number) => {
    if (role === ROLE.disabled || counted[port]) return;
    counted[port] = 1;
    portsMoved++;
  };
  const again = after.trees.filter((t) => affected.get(t.tree.id)?.touched === null);
  const whole = again.length > 0 ? movedBetween(before, { ...after, trees: again }, false) : [];
  for (const t of whole) for (const p of t.ports) count(portIndex.get(p.id)!, ROLE[p.after]);
  const known = new Map<TreeOutcome, Omit<TreeChange, 'tree'>>();
  const branches = after.trees.flatMap((now): TreeChange[] => {
    const what = affected.get(now.tree.id);
    if (!what?.touched) return [];
    let found = known.get(now.outcome);
    if (!found) {
      const was = before.byId.get(now.tree.id)!;
      const root = rootBefore(was);
      const moves = what.parted || (root !== undefined && design.switches[root]!.off);
      found = {
        rootAfter: nameOf(moves ? rootsOf(now)[0] : root),
        ports: movedAt(after, was.outcome, now.outcome, what.touched, count),
      };
      known.set(now.outcome, found);
    }
    return [{ tree: now.tree.id, ...found }];
  });
  return { moved: movesOnly([...whole, ...branches]), portsMoved };
}

/** VLANs of hosts by the cables and the switches that they hang on. */
const hostVlansBy = remembered((design: Design): ReadonlyMap<string, readonly number[]> => {
  const found = new Map<string, number[]>();
  const note = (key: string, vlan: number) => found.set(key, [...(found.get(key) ?? []), vlan]);
  hostVlans(design).forEach((vlan, i) => {
    if (vlan === null) return;
    for (const link of linksOfHost(design, design.hosts[i]!.id)) {
      const end = 'port' in link.a ? link.a : link.b;
      note(`link ${link.id}`, vlan);
      const at = 'port' in end ? portById(design, end.port)?.switch : undefined;
      if (at !== undefined) note(`switch ${at}`, vlan);
    }
  });
  return found;
});

/** VLANs of hosts whose cables or switches fail. */
function hostVlansHit(design: Design, all: { links: readonly string[]; switches: readonly string[] }): Set<number> {
  const by = hostVlansBy(design);
  return new Set([
    ...all.links.flatMap((id) => by.get(`link ${id}`) ?? []),
    ...all.switches.flatMap((id) => by.get(`switch ${id}`) ?? []),
  ]);
}
