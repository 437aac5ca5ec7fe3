/**
 * What failures do to the trees of a design, from what these are: a tree in which no root port went through what failed stays as
 * it is, of the others the branches that hung on it are settled again. For designs with one tree, or one a VLAN, without pairs,
 * regions, filters, shut or inconsistent ports; others are solved from scratch.
 */
import { bundleAt, bundleById, farEnd, groupBy, linkAt, linkById, linksOfHost, portById, segmentById } from '../design';
import type { Bundle, Design } from '../design';
import { isMixed, lansOf, mixtureOf, portsOfBridge, portsOnLan } from '../network';
import { remembered } from '../remembered';
import { asBpdusSee } from './guards';
import { partsBranch, solveBranch } from './branch';
import { ROLE } from './outcome';
import type { TreeOutcome } from './outcome';
import { solveTree } from './solve';
import type { SolvedDesign, SolvedTree } from './solved';
import type { Topology } from './topology';

/** What goes dark and what goes off, by ids. */
export interface Failed {
  readonly links: readonly string[];
  readonly segments: readonly string[];
  readonly switches: readonly string[];
}

/** The same by index: logical ports and bridges. */
export interface Down {
  readonly ports: ReadonlySet<number>;
  readonly bridges: ReadonlySet<number>;
}

/** What became of a tree. */
export interface FailedTree {
  readonly outcome: TreeOutcome;
  /** Whether some bridge had its root port through what failed; the tree lost what failed and nothing else, where none had. */
  readonly hit: boolean;
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

/** What goes down with a failure; null where its trees have to be solved from scratch. */
export function downWith(base: SolvedDesign, failed: Failed): Down | null {
  if (!isPlain(base)) return null;
  const ports = portsDown(base.topology, failed);
  return ports && { ports, bridges: new Set(failed.switches.flatMap((id) => base.topology.bridgeIndex.get(id) ?? [])) };
}

/** Bridges and ports as they were, without the LANs of ports that are down. Bundles that go down as a whole stay ports. */
export function topologyWithout(topology: Topology, { ports }: Down): Topology {
  const portLan = topology.portLan.slice();
  for (const p of ports) portLan[p] = -1;
  return { ...topology, ...lansOf(topology.lanCount, portLan) };
}

/** Whether some switch that goes on has its root port through what fails, or looks at a port of it. */
export function isHit(topology: Topology, roleOf: (port: number) => number, { ports, bridges }: Down): boolean {
  const { portBridge, portLan } = topology;
  for (const p of ports) {
    const role = roleOf(p);
    if (role === ROLE.root && !bridges.has(portBridge[p]!)) return true;
    if (role !== ROLE.designated || portLan[p]! < 0) continue;
    for (const q of portsOnLan(topology, portLan[p]!)) if (!ports.has(q) && roleOf(q) !== ROLE.none) return true;
  }
  return false;
}

/** The outcome with ports that are down, and bridges that are off; nothing else changes. */
function without(outcome: TreeOutcome, { ports, bridges }: Down): TreeOutcome {
  const role = outcome.role.slice();
  for (const p of ports) if (role[p] !== ROLE.none) role[p] = ROLE.disabled;
  if (bridges.size === 0) return { ...outcome, role };
  const [root, rootPort] = [outcome.root.slice(), outcome.rootPort.slice()];
  for (const b of bridges) root[b] = rootPort[b] = -1;
  return { ...outcome, role, root, rootPort };
}

/**
 * A tree that lost ports and bridges. `topology`: as it was; `left`: without them; `off`: all bridges that are off, those of
 * earlier failures too.
 */
export function failTree(
  topology: Topology,
  left: Topology,
  { problem, outcome }: Pick<SolvedTree, 'problem' | 'outcome'>,
  down: Down,
  off: ReadonlySet<number>,
): FailedTree {
  if (!isHit(topology, (p) => outcome.role[p]!, down))
    return { outcome: without(outcome, down), hit: false, touched: [...down.ports], parted: false };
  const branch = solveBranch(topology, left, problem, outcome, down.ports, down.bridges);
  if (branch) return { ...branch, hit: true };
  const bridgeTakesPart = problem.bridgeTakesPart.slice();
  for (const b of off) bridgeTakesPart[b] = 0;
  return { outcome: solveTree(left, { ...problem, bridgeTakesPart }), hit: true, touched: null, parted: true };
}

/** Whether a tree that is hit can have another root somewhere: the same as `parted` of what it comes to, or yes. */
export const canPart = (
  topology: Topology,
  left: Topology,
  { problem, outcome }: Pick<SolvedTree, 'problem' | 'outcome'>,
  down: Down,
): boolean => partsBranch(topology, left, problem, outcome, down.ports, down.bridges);
