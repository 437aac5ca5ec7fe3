/**
 * The trees of a design in which something has failed, from those that it has: a tree in which no root port went through what
 * failed stays as it is, the others are solved on the same bridges and ports. For designs with one tree, or one a VLAN, without
 * pairs, regions, filters, shut or inconsistent ports; others are solved from scratch.
 */
import { bundleAt, bundleById, farEnd, groupBy, linkAt, linkById, linksOfHost, portById, segmentById } from '../design';
import type { Bundle, Design } from '../design';
import { isMixed, lansOf, mixtureOf, portsOfBridge, portsOnLan } from '../network';
import { remembered } from '../remembered';
import { asBpdusSee } from './guards';
import { solveBranch } from './branch';
import { ROLE } from './outcome';
import type { TreeOutcome } from './outcome';
import type { TreeProblem } from './problem';
import { solveTree } from './solve';
import type { SolvedDesign, SolvedTree } from './solved';
import type { Topology } from './topology';

/** What goes dark and what goes off, by ids. */
export interface Failed {
  readonly links: readonly string[];
  readonly segments: readonly string[];
  readonly switches: readonly string[];
}

export interface SolvedFailed {
  readonly solved: SolvedDesign;
  /** Trees that were solved again, by id; the others lost what failed and nothing else. */
  readonly affected: ReadonlyMap<string, Affected>;
}
/** What can have changed in a tree. */
export interface Affected {
  /** Ports whose role can have changed; null for all. */
  readonly touched: readonly number[] | null;
  /** Whether switches that are left can have another root than before. */
  readonly parted: boolean;
}

/** Whether a solved design is of the kind that can be taken on from. */
const isPlain = remembered(({ topology, trees }: SolvedDesign): boolean => {
  const { design } = topology;
  const mixture = mixtureOf(design);
  if (mixture.mst || isMixed(mixture) || design.pairs.length > 0 || topology.shut) return false;
  if (asBpdusSee(topology) !== topology || topology.ports.some(({ element }) => element.silenceGuard)) return false;
  return trees.every(({ topology: own, outcome }) => own === topology && !outcome.spent && !outcome.silent);
});

/** What a member's cable leads to: the bundle or the host there; null for a single port, and for no cable. */
function leadsTo(design: Design, member: string): string | null {
  const link = linkAt(design, member);
  const end = link && farEnd(link, member);
  if (!end) return null;
  return 'host' in end ? end.host : (bundleAt(design, end.port)?.id ?? null);
}

/** Whether a bundle fails as one port: all its cables lead to one partner, whose cables all lead back, and all of them go dark. */
function failsWhole(design: Design, bundle: Bundle, links: ReadonlySet<string>): boolean {
  const partner = leadsTo(design, bundle.members[0]!);
  const far = partner === null ? undefined : bundleById(design, partner);
  const dark = (member: string) => links.has(linkAt(design, member)?.id ?? '');
  // Members that stand alone carry what they are set to themselves, a host goes on with its other cards.
  const alike = (b: Bundle) => b.members.every((m) => (portById(design, m)?.vlans ?? 'all') === (b.vlans ?? 'all'));
  return (
    partner !== null &&
    alike(bundle) &&
    (far ? alike(far) : linksOfHost(design, partner).every((l) => links.has(l.id))) &&
    bundle.members.every((m) => leadsTo(design, m) === partner && dark(m)) &&
    (far?.members.every((m) => leadsTo(design, m) === bundle.id) ?? true)
  );
}

/** Links at each switch. */
const linksAt = remembered((design: Design): ReadonlyMap<string, readonly string[]> => {
  const ends = design.links.flatMap(({ id, a, b }) =>
    [a, b].flatMap((e) => ('port' in e ? [{ id, at: portById(design, e.port)?.switch ?? '' }] : [])),
  );
  return new Map([...groupBy(ends, ({ at }) => at)].map(([at, own]) => [at, own.map(({ id }) => id)]));
});

/** Links that go dark, by themselves or with a switch at one of their ends. */
const linksDown = (design: Design, { links, switches }: Failed): Set<string> =>
  new Set([...links, ...switches.flatMap((id) => linksAt(design).get(id) ?? [])]);

/** Logical ports that go down; null where a bundle loses some of its members alone, and so stays or changes its rate. */
function portsDown({ design, portIndex, ...topology }: Topology, failed: Failed): Set<number> | null {
  const links = linksDown(design, failed);
  const down = new Set<number>();
  for (const id of links) {
    const link = linkById(design, id);
    for (const end of link ? [link.a, link.b] : []) {
      if (!('port' in end)) continue;
      const bundle = bundleAt(design, end.port);
      if (bundle && (topology.ports[portIndex.get(end.port)!]!.kind !== 'bundle' || !failsWhole(design, bundle, links)))
        return null;
      down.add(portIndex.get(end.port)!);
    }
  }
  for (const id of failed.switches) {
    const bridge = topology.bridgeIndex.get(id);
    if (bridge !== undefined) for (const port of portsOfBridge(topology, bridge)) down.add(port);
  }
  for (const id of failed.segments)
    for (const port of segmentById(design, id)?.ports ?? []) down.add(portIndex.get(port)!);
  return down;
}

/** Whether some switch that goes on had its root port through what fails, or looked at a port of it. */
function isAffected(
  topology: Topology,
  { role, designatedPort }: TreeOutcome,
  down: ReadonlySet<number>,
  off: ReadonlySet<number>,
): boolean {
  const { portBridge, portLan } = topology;
  for (const p of down) {
    if (!off.has(portBridge[p]!) && role[p] === ROLE.root) return true;
    const lan = portLan[p]!;
    if (lan < 0 || designatedPort[lan] !== p) continue;
    for (const q of portsOnLan(topology, lan)) if (!down.has(q) && role[q] !== ROLE.none) return true;
  }
  return false;
}

/** The outcome with ports that are down, and bridges that are off; nothing else changes. */
function without(outcome: TreeOutcome, down: ReadonlySet<number>, off: ReadonlySet<number>): TreeOutcome {
  const role = outcome.role.slice();
  for (const p of down) if (role[p] !== ROLE.none) role[p] = ROLE.disabled;
  if (off.size === 0) return { ...outcome, role };
  const [root, rootPort] = [outcome.root.slice(), outcome.rootPort.slice()];
  for (const b of off) root[b] = rootPort[b] = -1;
  return { ...outcome, role, root, rootPort };
}

/** One tree that lost a root port, on what is left. */
function again(topology: Topology, problem: TreeProblem, off: ReadonlySet<number>): TreeOutcome {
  if (off.size === 0) return solveTree(topology, problem);
  const bridgeTakesPart = problem.bridgeTakesPart.slice();
  for (const b of off) bridgeTakesPart[b] = 0;
  return solveTree(topology, { ...problem, bridgeTakesPart });
}

/**
 * The trees with some failed elements, `design` with them failed; null where they have to be solved from scratch. Bundles that
 * go down as a whole stay as ports that are down.
 */
export function solveFailed(base: SolvedDesign, design: Design, failed: Failed): SolvedFailed | null {
  if (!isPlain(base)) return null;
  const { topology } = base;
  const down = portsDown(topology, failed);
  if (!down) return null;
  const off = new Set(failed.switches.flatMap((id) => topology.bridgeIndex.get(id) ?? []));
  const portLan = topology.portLan.slice();
  for (const p of down) portLan[p] = -1;
  const left: Topology = { ...topology, design, ...lansOf(topology.lanCount, portLan) };
  const known = new Map<TreeProblem, { outcome: TreeOutcome; affected: Affected | null }>();
  const affected = new Map<string, Affected>();
  const trees = base.trees.map((of): SolvedTree => {
    let found = known.get(of.problem);
    if (!found) {
      found = { outcome: without(of.outcome, down, off), affected: null };
      if (isAffected(topology, of.outcome, down, off)) {
        const branch = solveBranch(topology, left, of.problem, of.outcome, down, off);
        found = branch
          ? { outcome: branch.outcome, affected: branch }
          : { outcome: again(left, of.problem, off), affected: { touched: null, parted: true } };
      }
      known.set(of.problem, found);
    }
    if (found.affected) affected.set(of.tree.id, found.affected);
    return { ...of, topology: left, outcome: found.outcome };
  });
  const solved = { topology: left, trees, byId: new Map(trees.map((t) => [t.tree.id, t])), solvedCount: known.size };
  return { solved, affected };
}
