/**
 * What failures do to each tree of a design. What a single one does is kept, so that a pair is put together from its halves: a
 * tree that one half leaves as it is, and whose ports that fail keep their roles with the other half, is with both as with that
 * other. What is left is settled again, on the tree as it is with the first half.
 */
import { ROLE, downWith, failTree, isHit, rootsOf, sameProblem, sameStructure, topologyWithout } from '../trees';
import type { Down, FailedTree, SolvedDesign, SolvedTree, Topology, TreeOutcome } from '../trees';
import type { Element } from './elements';
import { treeDiameter } from './tree-diameter';
import type { Diameter } from './tree-diameter';

/** What a failure does to a tree. */
export interface Effect {
  /** Whether it moves anything at all. */
  readonly hit: boolean;
  /** Whether switches that are left can have another root. */
  readonly parted: boolean;
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
}

/** The trees of a design with a failure, class by class. */
export interface FailedTrees {
  readonly down: Down;
  readonly effects: readonly Effect[];
  /** The network without what failed; put together when it is asked for, as outcomes are. */
  readonly topology: () => Topology;
  readonly outcome: (of: number) => TreeOutcome;
}

type Half = Pick<FailedTrees, 'down' | 'effects'>;
interface Lent {
  readonly down: Down;
  readonly effects: readonly (Effect | undefined)[];
}

/** A failure of one element while pairs are made of it. */
interface Single extends FailedTrees {
  readonly element: Element;
}

function classesOf({ trees }: SolvedDesign): TreeClass[] {
  const found = new Map<object, SolvedTree[]>();
  for (const of of trees) {
    const known = found.get(of.problem);
    if (known) known.push(of);
    else found.set(of.problem, [of]);
  }
  return [...found.values()].map((own) => ({ like: own[0]!, trees: own, roots: rootsOf(own[0]!) }));
}

/** A value that is worked out when it is first asked for. */
export function lazily<T extends object>(make: () => T): () => T {
  let known: T | undefined;
  return () => (known ??= make());
}

const both = (a: Down, b: Down): Down => ({
  ports: new Set([...a.ports, ...b.ports]),
  bridges: new Set([...a.bridges, ...b.bridges]),
});

const sameSet = (a: ReadonlySet<number>, b: ReadonlySet<number>) => a.size === b.size && [...a].every((n) => b.has(n));
const sameDown = (a: Down, b: Down) => sameSet(a.ports, b.ports) && sameSet(a.bridges, b.bridges);

/** Whether two solved designs have the same bridges, ports and LANs by the same numbers. */
const sameIds = ({ topology: a }: SolvedDesign, { topology: b }: SolvedDesign): boolean =>
  sameStructure(a, b) &&
  a.design.switches.every((s, i) => s.id === b.design.switches[i]!.id) &&
  a.ports.every((p, i) => p.element.id === b.ports[i]!.element.id);

/** Without what follows from more than the tree itself. */
function afresh(effect: Effect | undefined): Effect | undefined {
  const own = effect && { ...effect };
  delete own?.seconds;
  return own;
}

const keyOf = ({ kind, id }: Element) => `${kind} ${id}`;

export class Effects {
  readonly classes: readonly TreeClass[];
  private readonly asIs: readonly Effect[];
  private readonly byVlan: ReadonlyMap<number, number>;
  private readonly singles = new Map<string, Half>();
  /** What an earlier design lends, of the trees that are the same here. */
  private readonly lent: ReadonlyMap<string, Lent>;
  private row: Single | null = null;
  private readonly seen: Uint8Array;

  /** `earlier`: of a design before an edit; the trees that the edit cannot touch keep what was found. */
  constructor(
    private readonly solved: SolvedDesign,
    earlier?: Effects,
  ) {
    this.classes = classesOf(solved);
    this.byVlan = new Map(
      this.classes.flatMap(({ trees }, c) => trees.flatMap(({ tree }) => tree.vlans.map((v) => [v, c] as const))),
    );
    this.asIs = this.classes.map(({ like, roots }) => ({
      hit: false,
      parted: false,
      spent: false,
      ports: new Int32Array(0),
      roles: new Uint8Array(0),
      root: roots[0] ?? -1,
      diameter: treeDiameter(like),
    }));
    this.seen = new Uint8Array(solved.topology.ports.length);
    this.lent = earlier && sameIds(earlier.solved, solved) ? earlier.lends(this.classes) : new Map();
  }

  /** What was found of trees that have the same problem in another design with the same bridges, ports and LANs. */
  private lends(to: readonly TreeClass[]): Map<string, Lent> {
    const places = to.map(({ like }) => {
      const own = this.solved.byId.get(like.tree.id);
      return own && sameProblem(own.problem, like.problem) ? this.classes.findIndex((c) => c.trees.includes(own)) : -1;
    });
    const found = new Map<string, Lent>();
    for (const known of [this.lent, this.singles])
      for (const [key, { down, effects }] of known)
        found.set(key, { down, effects: places.map((c) => (c < 0 ? undefined : afresh(effects[c]))) });
    return found;
  }

  /** The class of the tree that a VLAN's frames follow. */
  classOf(vlan: number): number {
    return this.byVlan.get(vlan) ?? 0;
  }

  /** Failures all at once; null where they have to be solved from scratch. */
  of(elements: readonly Element[]): FailedTrees | null {
    const [a, b, ...more] = elements;
    const halves = a && b && more.length === 0 ? this.ofPair(a, b) : null;
    if (halves) return halves;
    const down = this.downWith(elements);
    if (!down) return null;
    return elements.length === 1 ? this.single(a!, down) : this.whole(down);
  }

  private downWith(elements: readonly Element[]): Down | null {
    return downWith(this.solved, {
      links: elements.flatMap((e) => e.links),
      segments: elements.flatMap((e) => e.segments),
      switches: elements.flatMap((e) => e.switches),
    });
  }

  /** From the design as it is. */
  private whole(down: Down, known: Lent['effects'] = []): FailedTrees {
    const { topology } = this.solved;
    const left = lazily(() => topologyWithout(topology, down));
    const outcomes: TreeOutcome[] = [];
    const fail = (c: number): FailedTree => {
      const found = failTree(topology, left(), this.classes[c]!.like, down, down.bridges);
      outcomes[c] = found.outcome;
      return found;
    };
    const effectOf = (c: number): Effect => {
      const { outcome } = this.classes[c]!.like;
      const stays = this.unhit(c, this.asIs[c]!, topology, outcome, down);
      return stays ?? this.effectOf(c, this.asIs[c]!, fail(c), left(), down);
    };
    const effects = this.classes.map((_, c) => known[c] ?? effectOf(c));
    return { down, effects, topology: left, outcome: (c) => outcomes[c] ?? fail(c).outcome };
  }

  private single(element: Element, down: Down): Single {
    const known = this.singles.get(keyOf(element)) ?? this.lent.get(keyOf(element));
    const found = this.whole(down, known && sameDown(known.down, down) ? known.effects : []);
    this.singles.set(keyOf(element), { down, effects: found.effects });
    return { ...found, element };
  }

  private half(element: Element): Half | null {
    const known = this.singles.get(keyOf(element));
    if (known) return known;
    const down = this.downWith([element]);
    return down && this.single(element, down);
  }

  private ofPair(a: Element, b: Element): FailedTrees | null {
    const second = this.half(b);
    const first = second && this.rowOf(a);
    if (!first || !second) return null;
    const down = both(first.down, second.down);
    const left = lazily(() => topologyWithout(first.topology(), second.down));
    const outcomes: TreeOutcome[] = [];
    const fail = (c: number): FailedTree => {
      const { problem } = this.classes[c]!.like;
      // What ran out is not taken on from.
      const found = first.effects[c]!.spent
        ? failTree(this.solved.topology, left(), this.classes[c]!.like, down, down.bridges)
        : failTree(first.topology(), left(), { problem, outcome: first.outcome(c) }, second.down, down.bridges);
      outcomes[c] = found.outcome;
      return found;
    };
    const effects = this.classes.map((_, c): Effect => {
      const [one, two] = [first.effects[c]!, second.effects[c]!];
      if (!two.hit && this.staysWith(one, second.down)) return one;
      if (!one.hit && this.staysWith(two, first.down)) return two;
      if (one.spent) return this.effectOf(c, this.asIs[c]!, fail(c), left(), down);
      const stays = this.unhit(c, one, first.topology(), first.outcome(c), second.down);
      return stays ?? this.effectOf(c, one, fail(c), left(), down);
    });
    return { down, effects, topology: left, outcome: (c) => outcomes[c] ?? fail(c).outcome };
  }

  /** The first of a pair, kept for the next, which mostly has the same. */
  private rowOf(a: Element): Single | null {
    if (this.row?.element === a) return this.row;
    const down = this.downWith([a]);
    return (this.row = down && this.single(a, down));
  }

  /** Whether a tree with a failure stays as it is where ports go down that nothing hung on without it. */
  private staysWith({ ports, spent }: Effect, down: Down): boolean {
    if (spent || down.bridges.size > 0) return false;
    for (let i = 0; i < ports.length; i++) if (down.ports.has(ports[i]!)) return false;
    return true;
  }

  /** What a tree comes to that loses nothing but what fails; null where more can change, or has to be looked at. */
  private unhit(of: number, before: Effect, topology: Topology, outcome: TreeOutcome, down: Down): Effect | null {
    const { roots, like } = this.classes[of]!;
    const { bridges } = down;
    const ends = before.diameter.ends;
    // In parts, a switch less can make another part the largest, with its root.
    if (bridges.size > 0 && (before.parted || roots.length !== 1 || bridges.has(before.root))) return null;
    // A switch that nothing hangs on is on no way but those that end at it.
    if (bridges.has(ends[0]) || bridges.has(ends[1])) return null;
    if (isHit(topology, (p) => outcome.role[p]!, down)) return null;
    if (before === this.asIs[of] && bridges.size === 0) return before;
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

  /** `before`: what was done to the tree until then; `down`: all that is. */
  private effectOf(of: number, before: Effect, now: FailedTree, topology: Topology, down: Down): Effect {
    const { like, roots } = this.classes[of]!;
    const { outcome } = now;
    const tree = { ...like, topology, outcome };
    const parted = before.parted || now.parted;
    const keepsRoot = !parted && roots.length === 1 && !down.bridges.has(roots[0]!);
    return {
      hit: before.hit || now.hit,
      parted,
      spent: outcome.spent !== undefined,
      ...this.changedRoles(like.outcome.role, outcome.role, before.ports, now.touched),
      root: keepsRoot ? roots[0]! : (rootsOf(tree)[0] ?? -1),
      diameter: !now.hit && down.bridges.size === 0 ? before.diameter : treeDiameter(tree),
    };
  }

  private changedRoles(
    was: Uint8Array,
    now: Uint8Array,
    before: Int32Array,
    touched: readonly number[] | null,
  ): Pick<Effect, 'ports' | 'roles'> {
    const { seen } = this;
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
}
