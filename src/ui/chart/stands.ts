/** What stands in a tree at each port and switch: told by the solver, or by a run for one of its moments. */
import { heldIn, loopingPorts, isMacOnlyRoot, nextRoot, roleAt, rootsOf } from '../../core/trees';
import type { Role, SolvedDesign, SolvedTree } from '../../core/trees';
import type { PegItem, Standing } from './scene-items';

export interface PortStands {
  /** The letter of its peg. */
  readonly role: PegItem['role'];
  /** What becomes of frames of the tree there. */
  readonly frames: 'pass' | 'blocked' | 'down' | 'outside';
  /** Blocked since the two ends differ in what they send untagged. */
  readonly inconsistent?: boolean;
  /** Frames loop through it. */
  readonly looping?: boolean;
  /** Shut down by its BPDU guard. */
  readonly shut?: boolean;
}

export interface Stands {
  /** By the id of a port or bundle. */
  readonly port: (id: string) => PortStands;
  /** By the place of the switch in the design. */
  readonly switch: (index: number) => Standing;
}

const FRAMES: Record<Role, PortStands['frames']> = {
  root: 'pass',
  designated: 'pass',
  master: 'pass',
  alternate: 'blocked',
  backup: 'blocked',
  disputed: 'blocked',
  disabled: 'down',
  none: 'outside',
};

/** What stands where nothing is wrong, by role. */
const PLAIN = Object.fromEntries(Object.entries(FRAMES).map(([role, frames]) => [role, { role, frames }])) as Readonly<
  Record<Role, PortStands>
>;

function standings(solved: SolvedDesign, of: SolvedTree): Standing[] {
  const { design, actsAs } = solved.topology;
  const standing = design.switches.map((s, b): Standing =>
    s.off ? 'off' : of.outcome.root[actsAs[b]!]! < 0 ? 'outside' : 'plain',
  );
  for (const root of rootsOf(of)) {
    standing[root] = isMacOnlyRoot(solved, of, root) ? 'mac-only-root' : 'root';
    const next = nextRoot(of, root);
    if (next >= 0) standing[next] = 'next';
  }
  actsAs.forEach((acts, b) => (standing[b] = standing[acts]!));
  return standing;
}

/** What the solver says of one tree, once it is at rest. */
export function solvedStands(solved: SolvedDesign, of: SolvedTree): Stands {
  const { topology } = solved;
  const held = new Set(heldIn(topology, of.tree.vlan));
  const standing = standings(solved, of);
  const looping = loopingPorts(topology, of);
  return {
    switch: (index) => standing[index]!,
    port: (id) => {
      const port = topology.portIndex.get(id)!;
      const plain = PLAIN[roleAt(of, port)];
      const [inconsistent, loops, shut] = [held.has(port), looping.has(port), topology.shut?.has(port) === true];
      if (!inconsistent && !loops && !shut) return plain;
      return {
        ...plain,
        ...(inconsistent ? { inconsistent } : {}),
        ...(loops ? { looping: loops } : {}),
        ...(shut ? { shut } : {}),
      };
    },
  };
}
