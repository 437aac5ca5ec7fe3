/** How much passes: over a path, in a whole tree, and with one member of a bundle lost. */
import { formedBundles, meetsOthers, minimumAt, peersOf } from '../network';
import { linkAt, linkSpeed } from '../design';
import type { Design } from '../design';
import { forwardsRole } from '../trees';
import type { Path } from './path';
import type { SolvedDesign, SolvedTree } from '../trees';

export interface Capacity {
  /** Mb/s of the narrowest place; Infinity where no link is passed. */
  readonly rate: number;
  /** Logical port at the narrowest place; −1 without one. */
  readonly port: number;
  /** The same when each bundle has lost its fastest member; a single cable stays as it is, since it has no member. */
  readonly memberLost: number;
  readonly memberLostPort: number;
}

interface Members {
  /** Mb/s of each active member. */
  readonly speeds: readonly number[];
  /** Members below which the bundle goes down, at the end that asks for more. */
  readonly fewest: number;
}

/** The active members of every formed bundle, by bundle id. */
function membersOf(design: Design): ReadonlyMap<string, Members> {
  return new Map(
    [...formedBundles(design)].map(([id, { bundle, partner, active }]) => {
      const speeds = active.map((m) => linkSpeed(design, linkAt(design, m)!));
      const fewest = Math.max(...[bundle, partner].map((end) => (end ? minimumAt(end, speeds[0]) : 1)));
      return [id, { speeds, fewest }];
    }),
  );
}

/** The narrowest of some ports. */
function narrowest({ topology }: SolvedDesign, ports: Iterable<number>): Capacity {
  const members = membersOf(topology.design);
  let found: Capacity = { rate: Infinity, port: -1, memberLost: Infinity, memberLostPort: -1 };
  for (const port of ports) {
    const { element, kind, rate } = topology.ports[port]!;
    const { speeds, fewest } = (kind === 'bundle' && members.get(element.id)) || { speeds: [], fewest: 0 };
    const sum = speeds.reduce((a, b) => a + b, 0);
    const now = speeds.length > 0 ? sum : rate;
    const less = speeds.length === 0 ? rate : speeds.length - 1 < fewest ? 0 : sum - Math.max(...speeds);
    if (now < found.rate) found = { ...found, rate: now, port };
    if (less < found.memberLost) found = { ...found, memberLost: less, memberLostPort: port };
  }
  return found;
}

/** Capacity of a path: of the links it passes, its hosts' own cables included. */
export const pathCapacity = (solved: SolvedDesign, path: Path): Capacity => narrowest(solved, path.ports);

/** Capacity of a tree: of the links between switches that it keeps open, at both ends. */
export function treeCapacity(solved: SolvedDesign, of: SolvedTree): Capacity {
  const { role } = of.outcome;
  const { topology } = solved;
  const passes = (p: number) =>
    forwardsRole(role[p]) && peersOf(topology, p).some((other) => forwardsRole(role[other]));
  return narrowest(
    solved,
    [...role.keys()].filter((p) => meetsOthers(topology, p) && passes(p)),
  );
}
