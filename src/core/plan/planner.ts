/** The search of a plan's order: by the tables, by theory, by trying, and with steps that help on the way. */
import type { Design, Probe } from '../design';
import { rehearsing } from '../simulation';
import { SECOND, vlanOfTreeId } from '../standard';
import type { Trace } from '../trace';
import { planMessages as say } from '../messages';
import { constraintsOf } from './constraints';
import type { Constraint } from './constraints';
import { joinedBy } from './effect';
import type { Work } from './gather';
import { helpersFor, helpersForStatic, joinedEnds } from './helpers';
import type { Helper } from './helpers';
import { NOTHING_LOST, outagesIn, planScript } from './measure';
import type { Measured } from './measure';
import { bestOrder, costOf, greedyOrder, tableOrder } from './order';
import type { Order } from './order';
import type { Place } from './place';
import { RESOLUTION, compareCost } from './rank';
import type { Cost } from './rank';
import { Ways, bit } from './ways';
import type { Turn } from './ways';

export interface PlanProgress {
  readonly phase: 'table' | 'theory' | 'rehearsal' | 'orders' | 'helpers';
  /** Ways looked at, and rehearsals so far. */
  readonly looked: number;
  readonly rehearsals: number;
  readonly best: Cost | null;
}
/** `enough`: the best so far will do, go on with what comes after; `stop`: finish now. */
export type Reply = 'on' | 'enough' | 'stop';
export type Planning<T> = Generator<PlanProgress, T, Reply>;

/** More pieces of work, or more switches, than this are ordered by theory and rehearsed as a whole. */
const FEW_WORKS = 16;
const FEW_SWITCHES = 30;

/** What theory says of a step that was not rehearsed. */
function byTheory({ effect }: Turn): Measured {
  const vlans = effect.moved.flatMap(({ tree }) => vlanOfTreeId(tree) ?? []);
  const moved = effect.estimate > 0 ? [{ vlans, seconds: effect.estimate }] : [];
  return { ...NOTHING_LOST, vlans: moved, byTheory: true };
}

/** Keeps what each piece of work of an order did in a run of all of it; what the run did not reach has the figures of theory. */
function takeAll(ways: Ways, order: readonly number[], times: readonly number[], until: number, trace: Trace): void {
  let done = 0n;
  order.forEach((work, i) => {
    const before = ways.state(done)!;
    const turn = ways.turn(done, work);
    if (!turn) return;
    const to = (times[i + 1] ?? until) * SECOND;
    const seen = trace.until >= to;
    ways.take(done, work, seen ? outagesIn(trace, joinedBy(before), times[i]! * SECOND, to) : byTheory(turn));
    done |= bit(work);
  });
}

/** Work and constraints with those helpers that no order can do without. */
export function withNeeded(
  works: readonly Work[],
  start: Design,
  goal: Design,
  temporary: boolean,
): { works: readonly Work[]; constraints: readonly Constraint[] } {
  if (!temporary) {
    const joined = joinedEnds(works, start, goal);
    return { works: joined, constraints: constraintsOf(joined, start, goal) };
  }
  const constraints = constraintsOf(works, start, goal);
  const all = [...works];
  const more: Constraint[] = [];
  for (const { before, after, around } of helpersForStatic(works, start, goal)) {
    const sentence = say['static-shut']();
    for (const work of before) {
      for (const then of around) more.push({ first: all.length, then, sentence });
      all.push(work);
    }
    for (const work of after) {
      for (const first of around) more.push({ first, then: all.length, sentence });
      all.push(work);
    }
  }
  return { works: all, constraints: [...constraints, ...more] };
}

export class Planner {
  ways: Ways;
  looked = 0;
  best: Order | null = null;
  table: Cost | null = null;
  tableIsKnown = false;
  exact = false;
  stopped = false;

  constructor(
    works: readonly Work[],
    readonly start: Design,
    readonly goal: Design,
    pairs: readonly Probe[],
    place: Place | null,
    readonly constraints: readonly Constraint[],
  ) {
    this.ways = new Ways(works, start, goal, pairs, place, orderOf(works.length, constraints));
  }

  get isSmall(): boolean {
    return this.ways.works.length <= FEW_WORKS && this.start.switches.length <= FEW_SWITCHES;
  }

  progress(phase: PlanProgress['phase']): PlanProgress {
    return { phase, looked: this.looked, rehearsals: this.ways.rehearsals, best: this.best?.cost ?? null };
  }

  /** What an order costs; a large one is rehearsed as a whole, unless that is cut short. */
  *cost(order: readonly number[], cut: (said: Reply) => boolean = isStop, ways = this.ways): Planning<Cost | null> {
    if (this.isSmall || this.stuckAt(order, ways) >= 0) return costOf(ways, order);
    const start = ways.start.solved.topology.design;
    const steps = order.map((w) => ({ edits: ways.works[w]!.edits, label: ways.works[w]!.id.slice(0, 80) }));
    const { script, times } = planScript(start, ways.goal.solved.topology.design, steps, ways.kept.pairs, 'plan');
    const run = rehearsing(start, script);
    for (let reply = false; ;) {
      const { done, value } = run.next(reply);
      if (done) {
        takeAll(ways, order, times, script.until, value);
        return costOf(ways, order);
      }
      reply = cut(this.heard(yield this.progress('rehearsal')));
    }
  }

  /** What was said, with a stop remembered. */
  private heard(said: Reply): Reply {
    this.stopped ||= said === 'stop';
    return said;
  }

  /** Place of the first piece of an order that cannot be done in its turn; −1 where all can. */
  stuckAt(order: readonly number[], ways = this.ways): number {
    let done = 0n;
    return order.findIndex((work) => {
      if (!ways.turn(done, work)) return true;
      done |= bit(work);
      return false;
    });
  }

  *take(works: readonly number[] | null): Planning<void> {
    const cost = works && (yield* this.cost(works));
    if (works && cost && (!this.best || compareCost(cost, this.best.cost) < 0)) this.best = { works, cost };
  }

  /** The order of the tables, for comparison; one that is cut short is not known. */
  *compare(): Planning<void> {
    const works = tableOrder(this.ways);
    let whole = true;
    const cut = (said: Reply) => {
      if (said !== 'on') whole = false;
      return said !== 'on';
    };
    const cost = works && (yield* this.cost(works, cut));
    if (!whole) return;
    this.table = cost;
    this.tableIsKnown = true;
    if (works && cost && (!this.best || compareCost(cost, this.best.cost) < 0)) this.best = { works, cost };
  }

  *orders(): Planning<void> {
    const search = bestOrder(this.ways, this.best);
    for (let reply = false; ;) {
      const { done, value } = search.next(reply);
      if (done) {
        if (value) [this.best, this.exact] = [value, true];
        return;
      }
      this.looked = value;
      reply = this.heard(yield this.progress('orders')) !== 'on';
    }
  }

  *theory(): Planning<void> {
    const greedy = greedyOrder(this.ways);
    for (let reply = false; ;) {
      const { done, value } = greedy.next(reply);
      if (done) return yield* this.take(value);
      reply = this.heard(yield this.progress('theory')) !== 'on';
    }
  }

  /** Tries steps that help at the steps that cost something, as long as one of them does. */
  *helpers(): Planning<void> {
    for (let round = 0; round < (this.isSmall ? MOST_HELPERS : FEW_HELPERS) && this.best; round++) {
      const better = yield* this.betterWith(this.best);
      if (!better) return;
      [this.ways, this.best] = [better.ways, better.order];
      // Orders with these steps were not all compared.
      this.exact = false;
    }
  }

  private *betterWith(best: Order): Planning<{ ways: Ways; order: Order } | null> {
    let found: { ways: Ways; order: Order } | null = null;
    for (const work of costly(this.ways, best)) {
      for (const helper of helpersFor(this.ways.works, this.start, this.goal, work)) {
        const tried = withHelper(this.ways, best.works, helper);
        const cost = tried && (yield* this.cost(tried.works, isStop, tried.ways));
        // What was cut short is no measure.
        if (this.stopped) return found;
        if (cost && compareCost(cost, (found?.order ?? best).cost) < 0)
          found = { ways: tried.ways, order: { works: tried.works, cost } };
        if ((yield this.progress('helpers')) !== 'on') return found;
      }
    }
    return found;
  }
}
/** Rounds of helpers: each of a large plan takes a rehearsal of the whole for every step that it tries. */
const MOST_HELPERS = 8;
const FEW_HELPERS = 3;

const isStop = (said: Reply): boolean => said === 'stop';

const orderOf = (count: number, constraints: readonly Constraint[]): number[][] =>
  Array.from({ length: count }, (_, i) => constraints.flatMap((c) => (c.then === i ? [c.first] : [])));

/** Pieces of work that interrupt, longest first. */
function costly(ways: Ways, { works }: Order): number[] {
  let done = 0n;
  const found: { work: number; seconds: number }[] = [];
  for (const work of works) {
    const seconds = (ways.seconds(done, work) ?? 0) + 1000 * ways.lost(done, work);
    if (seconds >= RESOLUTION) found.push({ work, seconds });
    done |= bit(work);
  }
  return found.sort((a, b) => b.seconds - a.seconds).map((f) => f.work);
}

/** An order with the steps of a helper around those that it helps. */
function withHelper(ways: Ways, order: readonly number[], helper: Helper): { ways: Ways; works: number[] } | null {
  const have = new Set(ways.works.map((w) => w.id));
  if ([...helper.before, ...helper.after].some((w) => have.has(w.id))) return null;
  const places = helper.around.map((w) => order.indexOf(w)).filter((p) => p >= 0);
  if (places.length === 0) return null;
  const [first, last] = [Math.min(...places), Math.max(...places)];
  const n = ways.works.length;
  const before = helper.before.map((_, i) => n + i);
  const after = helper.after.map((_, i) => n + before.length + i);
  const works = [
    ...order.slice(0, first),
    ...before,
    ...order.slice(first, last + 1),
    ...after,
    ...order.slice(last + 1),
  ];
  return { ways: ways.with([...helper.before, ...helper.after]), works };
}
