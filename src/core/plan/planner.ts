/** The search of a plan's order: by the tables, by theory, by trying, and with steps that help on the way. */
import type { Design, Probe } from '../design';
import { rehearse } from '../simulation';
import { SECOND } from '../standard';
import { planMessages as say } from '../messages';
import { constraintsOf } from './constraints';
import type { Constraint } from './constraints';
import type { Work } from './gather';
import { helpersFor, helpersForStatic, joinedEnds } from './helpers';
import type { Helper } from './helpers';
import { outagesIn, planScript } from './measure';
import { bestOrder, costOf, greedyOrder } from './order';
import type { Order } from './order';
import type { Place } from './place';
import { RESOLUTION, compareCost } from './rank';
import type { Cost } from './rank';
import { Ways, bit, joinedAt } from './ways';

export interface PlanProgress {
  readonly phase: 'table' | 'theory' | 'orders' | 'helpers';
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

/** Rehearses an order in one run, and keeps what each piece of work did in it. */
function rehearseWhole(ways: Ways, order: readonly number[]): void {
  const start = ways.start.solved.topology.design;
  const steps = order.map((w) => ({ edits: ways.works[w]!.edits, label: ways.works[w]!.id.slice(0, 80) }));
  const { script, times } = planScript(start, ways.goal.solved.topology.design, steps, ways.kept.pairs, 'plan');
  const trace = rehearse(start, script);
  let done = 0n;
  order.forEach((work, i) => {
    const before = ways.state(done)!;
    const to = (times[i + 1] ?? script.until) * SECOND;
    ways.take(done, work, outagesIn(trace, joinedAt(before), times[i]! * SECOND, to));
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

  /** What an order costs; a large one is rehearsed as a whole. */
  cost(order: readonly number[], ways = this.ways): Cost | null {
    if (!this.isSmall) rehearseWhole(ways, order);
    return costOf(ways, order);
  }

  /** Place of the first piece of an order that cannot be done in its turn; −1 where all can. */
  stuckAt(order: readonly number[]): number {
    let done = 0n;
    return order.findIndex((work) => {
      if (!this.ways.turn(done, work)) return true;
      done |= bit(work);
      return false;
    });
  }

  take(works: readonly number[] | null): void {
    const cost = works && this.cost(works);
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
      const said = yield this.progress('orders');
      reply = said !== 'on';
      if (said === 'stop') this.stopped = true;
    }
  }

  *theory(): Planning<void> {
    const greedy = greedyOrder(this.ways);
    for (let reply = false; ;) {
      const { done, value } = greedy.next(reply);
      if (done) return this.take(value);
      const said = yield this.progress('theory');
      reply = said === 'stop';
      this.stopped ||= reply;
    }
  }

  /** Tries steps that help at the steps that cost something, as long as one of them does. */
  *helpers(): Planning<void> {
    for (let round = 0; round < MOST_HELPERS && this.best; round++) {
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
        const cost = tried && this.cost(tried.works, tried.ways);
        if (cost && compareCost(cost, (found?.order ?? best).cost) < 0)
          found = { ways: tried.ways, order: { works: tried.works, cost } };
        if ((yield this.progress('helpers')) !== 'on') return found;
      }
    }
    return found;
  }
}
const MOST_HELPERS = 3;

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
