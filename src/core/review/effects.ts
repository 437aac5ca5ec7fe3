/**
 * What failures do to each tree of a design. What a single one does is kept, so that a pair is put together from its halves: a
 * tree that one half leaves as it is, and whose ports that fail keep their roles with the other half, is with both as with that
 * other. What is left is settled again, on the tree as it is with the first half.
 */
import { canPart, downWith, failTree, isHit, sameProblem, sameStructure, topologyWithout } from '../trees';
import type { Down, FailedTree, SolvedDesign, Topology, TreeOutcome } from '../trees';
import type { Element } from './elements';
import { classesOf, effectOf, staysWith, unhit } from './tree-effects';
import type { Effect, Hit, TreeClass } from './tree-effects';

/** The trees of a design with a failure, class by class. */
export interface FailedTrees {
  readonly down: Down;
  readonly hits: readonly Hit[];
  /** All else is put together when it is asked for: most pairs do no harm. */
  readonly effects: () => readonly Effect[];
  /** The network without what failed. */
  readonly topology: () => Topology;
  readonly outcome: (of: number) => TreeOutcome;
}

interface Half {
  readonly down: Down;
  readonly effects: readonly Effect[];
}
interface Lent {
  readonly down: Down;
  readonly effects: readonly (Effect | undefined)[];
}

/** A failure of one element while pairs are made of it. */
interface Single {
  readonly element: Element;
  readonly own: readonly Effect[];
  readonly trees: FailedTrees;
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
  private readonly byVlan: ReadonlyMap<number, number>;
  private readonly singles = new Map<string, Half>();
  /** What an earlier design lends, of the trees that are the same here. */
  private readonly lent: ReadonlyMap<string, Lent>;
  private row: Single | null = null;

  /** `earlier`: of a design before an edit; the trees that the edit cannot touch keep what was found. */
  constructor(
    private readonly solved: SolvedDesign,
    earlier?: Effects,
  ) {
    this.classes = classesOf(solved);
    this.byVlan = new Map(
      this.classes.flatMap(({ trees }, c) => trees.flatMap(({ tree }) => tree.vlans.map((v) => [v, c] as const))),
    );
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
    return elements.length === 1 ? this.single(a!, down).trees : this.whole(down).trees;
  }

  private downWith(elements: readonly Element[]): Down | null {
    return downWith(this.solved, {
      links: elements.flatMap((e) => e.links),
      segments: elements.flatMap((e) => e.segments),
      switches: elements.flatMap((e) => e.switches),
    });
  }

  /** From the design as it is. */
  private whole(down: Down, known: Lent['effects'] = []): Omit<Single, 'element'> {
    const { topology } = this.solved;
    const left = lazily(() => topologyWithout(topology, down));
    const outcomes: TreeOutcome[] = [];
    const fail = (c: number): FailedTree => {
      const found = failTree(topology, left(), this.classes[c]!.like, down, down.bridges);
      outcomes[c] = found.outcome;
      return found;
    };
    const own = this.classes.map((of, c): Effect => {
      const stays = known[c] ?? unhit(of, of.asIs, topology, of.like.outcome, down);
      return stays ?? effectOf(of, of.asIs, fail(c), left(), down);
    });
    const outcome = (c: number) => outcomes[c] ?? fail(c).outcome;
    return { own, trees: { down, hits: own, effects: () => own, topology: left, outcome } };
  }

  private single(element: Element, down: Down): Single {
    const known = this.singles.get(keyOf(element)) ?? this.lent.get(keyOf(element));
    const found = this.whole(down, known && sameDown(known.down, down) ? known.effects : []);
    this.singles.set(keyOf(element), { down, effects: found.own });
    return { ...found, element };
  }

  private half(element: Element): Half | null {
    const known = this.singles.get(keyOf(element));
    if (known) return known;
    const down = this.downWith([element]);
    return down && { down, effects: this.single(element, down).own };
  }

  private ofPair(a: Element, b: Element): FailedTrees | null {
    const second = this.half(b);
    const row = second && this.rowOf(a);
    if (!row || !second) return null;
    const { own, trees: first } = row;
    const down = both(first.down, second.down);
    const left = lazily(() => topologyWithout(first.topology(), second.down));
    const ofFirst = (c: number) => ({ problem: this.classes[c]!.like.problem, outcome: first.outcome(c) });
    const outcomes: TreeOutcome[] = [];
    const fail = (c: number): FailedTree => {
      // What ran out is not taken on from.
      const found = own[c]!.spent
        ? failTree(this.solved.topology, left(), this.classes[c]!.like, down, down.bridges)
        : failTree(first.topology(), left(), ofFirst(c), second.down, down.bridges);
      outcomes[c] = found.outcome;
      return found;
    };
    /** What both do is what one of them does. */
    const alone = (c: number): Effect | null => {
      const [one, two] = [own[c]!, second.effects[c]!];
      if (!two.hit && staysWith(one, second.down)) return one;
      return !one.hit && staysWith(two, first.down) ? two : null;
    };
    const hitOf = (c: number): Hit => {
      const { hit, parted, spent } = own[c]!;
      if (spent || parted) return { hit: true, parted: true };
      const { role } = first.outcome(c);
      if (!isHit(first.topology(), (p) => role[p]!, second.down)) return { hit, parted };
      return { hit: true, parted: canPart(first.topology(), left(), ofFirst(c), second.down) };
    };
    const together = (of: TreeClass, c: number): Effect => {
      if (own[c]!.spent) return effectOf(of, of.asIs, fail(c), left(), down);
      const stays = unhit(of, own[c]!, first.topology(), first.outcome(c), second.down);
      return stays ?? effectOf(of, own[c]!, fail(c), left(), down);
    };
    return {
      down,
      hits: this.classes.map((_, c) => alone(c) ?? hitOf(c)),
      effects: lazily(() => this.classes.map((of, c) => alone(c) ?? together(of, c))),
      topology: left,
      outcome: (c) => outcomes[c] ?? fail(c).outcome,
    };
  }

  /** The first of a pair, kept for the next, which mostly has the same. */
  private rowOf(a: Element): Single | null {
    if (this.row?.element === a) return this.row;
    const down = this.downWith([a]);
    return (this.row = down && this.single(a, down));
  }
}
