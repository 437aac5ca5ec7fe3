/** What a failure does to one tree. */
import { ROLE, isHit, rootsOf } from '../trees';
import type { Down, FailedTree, SolvedDesign, SolvedTree, Topology, TreeOutcome } from '../trees';
import { treeDiameter } from './tree-diameter';
import type { Diameter } from './tree-diameter';

/** How far a failure can go in a tree. */
export interface Hit {
  /** Whether it moves anything at all. */
  readonly hit: boolean;
  /** Whether switches that are left can have another root. */
  readonly parted: boolean;
}

/** What a failure does to a tree. */
export interface Effect extends Hit {
  /** Whether the word of its root runs out on the way, so that it is not taken on from. */
  readonly spent: boolean;
  /** Ports whose role is other than in the design as it is, what failed among them, and the roles that they have. */
  readonly ports: Int32Array;
  readonly roles: Uint8Array;
  /** The first root; −1 where there is none. */
  readonly root: number;
  readonly diameter: Diameter;
  /** What it takes to settle, by theory; worked out when it is first asked for. */
  seconds?: number;
}

/** Trees with one problem, and so one outcome. */
export interface TreeClass {
  readonly like: SolvedTree;
  readonly trees: readonly SolvedTree[];
  /** Roots of it, that of the largest part first. */
  readonly roots: readonly number[];
  /** What nothing does to it. */
  readonly asIs: Effect;
}

export function classesOf({ trees }: SolvedDesign): TreeClass[] {
  const found = new Map<object, SolvedTree[]>();
  for (const of of trees) {
    const known = found.get(of.problem);
    if (known) known.push(of);
    else found.set(of.problem, [of]);
  }
  return [...found.values()].map((own) => {
    const [like] = own as [SolvedTree];
    const roots = rootsOf(like);
    const none = { ports: new Int32Array(0), roles: new Uint8Array(0) };
    const root = roots[0] ?? -1;
    const asIs = { hit: false, parted: false, spent: false, ...none, root, diameter: treeDiameter(like) };
    return { like, trees: own, roots, asIs };
  });
}

/** Whether a tree with a failure stays as it is where ports go down that nothing hung on without it. */
export function staysWith({ ports, spent }: Effect, down: Down): boolean {
  if (spent || down.bridges.size > 0) return false;
  for (let i = 0; i < ports.length; i++) if (down.ports.has(ports[i]!)) return false;
  return true;
}

/** What a tree comes to that loses nothing but what fails; null where more can change, or has to be looked at. */
export function unhit(
  of: TreeClass,
  before: Effect,
  topology: Topology,
  outcome: TreeOutcome,
  down: Down,
): Effect | null {
  const { roots, like } = of;
  const { bridges } = down;
  const ends = before.diameter.ends;
  // In parts, a switch less can make another part the largest, with its root.
  if (bridges.size > 0 && (before.parted || roots.length !== 1 || bridges.has(before.root))) return null;
  // A switch that nothing hangs on is on no way but those that end at it.
  if (bridges.has(ends[0]) || bridges.has(ends[1])) return null;
  if (isHit(topology, (p) => outcome.role[p]!, down)) return null;
  if (before === of.asIs && bridges.size === 0) return before;
  const was = like.outcome.role;
  const fresh = [...down.ports].filter(
    (p) => was[p] !== ROLE.none && was[p] !== ROLE.disabled && !before.ports.includes(p),
  );
  return {
    hit: before.hit,
    parted: before.parted,
    spent: before.spent,
    root: before.root,
    diameter: before.diameter,
    ports: Int32Array.of(...before.ports, ...fresh),
    roles: Uint8Array.of(
      ...before.roles.map((role, i) => (down.ports.has(before.ports[i]!) ? ROLE.disabled : role)),
      ...fresh.map(() => ROLE.disabled),
    ),
  };
}

/** What became of a tree. `before`: what was done to the tree until then; `down`: all that is. */
export function effectOf(of: TreeClass, before: Effect, now: FailedTree, topology: Topology, down: Down): Effect {
  const { like, roots } = of;
  const { outcome } = now;
  const tree = { ...like, topology, outcome };
  const parted = before.parted || now.parted;
  const keepsRoot = !parted && roots.length === 1 && !down.bridges.has(roots[0]!);
  return {
    hit: before.hit || now.hit,
    parted,
    spent: outcome.spent !== undefined,
    ...changedRoles(like.outcome.role, outcome.role, before.ports, now.touched),
    root: keepsRoot ? roots[0]! : (rootsOf(tree)[0] ?? -1),
    diameter: !now.hit && down.bridges.size === 0 ? before.diameter : treeDiameter(tree),
  };
}

/** 1 for ports that were looked at, while that is done. */
let seen = new Uint8Array(0);

function changedRoles(
  was: Uint8Array,
  now: Uint8Array,
  before: Int32Array,
  touched: readonly number[] | null,
): Pick<Effect, 'ports' | 'roles'> {
  if (seen.length < was.length) seen = new Uint8Array(was.length);
  const found: number[] = [];
  const look = (p: number) => {
    if (seen[p]) return;
    seen[p] = 1;
    found.push(p);
  };
  if (touched) {
    before.forEach(look);
    touched.forEach(look);
  } else for (let p = 0; p < was.length; p++) found.push(p);
  for (const p of found) seen[p] = 0;
  const ports = Int32Array.from(found.filter((p) => was[p] !== now[p]));
  return { ports, roles: Uint8Array.from(ports, (p) => now[p]!) };
}
