/** The order of pieces of work: the best by rehearsal where all can be compared, else a good one by theory. */
import { Heap } from './heap';
import { FREE, addStep, compareCost, dominates } from './rank';
import type { Cost } from './rank';
import { bit } from './ways';
import type { Done, Ways } from './ways';

export interface Order {
  readonly works: readonly number[];
  readonly cost: Cost;
}

/** How many devices are left to be visited at least, from one of them. */
function visitsLeft({ works }: Ways, done: Done, last: string | null | undefined): number {
  const left = new Set<string | null>();
  works.forEach((w, i) => {
    if ((done & bit(i)) === 0n) left.add(w.device);
  });
  if (last !== undefined) left.delete(last);
  return left.size;
}

const visit = (ways: Ways, last: string | null | undefined, work: number): number =>
  last === ways.works[work]!.device ? 0 : 1;

/** What an order costs by rehearsal; null where a piece of it cannot be done in its turn, or a loop would stand. */
export function costOf(ways: Ways, order: readonly number[]): Cost | null {
  let [done, cost, last]: [Done, Cost, string | null | undefined] = [0n, FREE, undefined];
  for (const work of order) {
    const turn = ways.turn(done, work);
    if (!turn) return null;
    const seconds = ways.seconds(done, work);
    if (seconds === null) return null;
    cost = addStep(cost, {
      consoles: turn.consoles.length,
      lost: ways.lost(done, work),
      seconds,
      visits: visit(ways, last, work),
    });
    done |= bit(work);
    last = ways.works[work]!.device;
  }
  return cost;
}

/** The order of the tables; what cannot be done yet waits until it can. `null` where something never can. */
export function tableOrder(ways: Ways): readonly number[] | null {
  const left = ways.works.map((_, i) => i);
  const order: number[] = [];
  let done: Done = 0n;
  while (left.length > 0) {
    const at = left.findIndex((w) => ways.turn(done, w) !== null);
    if (at < 0) return null;
    const [work] = left.splice(at, 1) as [number];
    order.push(work);
    done |= bit(work);
  }
  return order;
}

/**
 * Takes what costs least by theory each time, at the same device where that is no worse. Yields after each piece, and takes whether
 * to hurry: the rest then follows in the order of the tables.
 */
export function* greedyOrder(ways: Ways): Generator<number, readonly number[] | null, boolean> {
  const left = new Set(ways.works.keys());
  const order: number[] = [];
  let [done, last, hurry]: [Done, string | null | undefined, boolean] = [0n, undefined, false];
  while (left.size > 0) {
    let best: { work: number; cost: Cost } | null = null;
    // Nothing is better than what costs nothing, at this device if there is more to do at it.
    const here = [...left].filter((w) => visit(ways, last, w) === 0);
    const least = { ...FREE, visits: here.length > 0 ? 0 : 1 };
    for (const work of new Set([...here, ...left])) {
      const turn = ways.turn(done, work);
      if (!turn) continue;
      const cost = addStep(FREE, {
        consoles: turn.consoles.length,
        lost: turn.lost,
        seconds: turn.effect.estimate,
        visits: visit(ways, last, work),
      });
      if (!best || compareCost(cost, best.cost) < 0) best = { work, cost };
      if (hurry || compareCost(best.cost, least) <= 0) break;
    }
    if (!best) return null;
    order.push(best.work);
    left.delete(best.work);
    done |= bit(best.work);
    last = ways.works[best.work]!.device;
    if (!hurry) hurry = yield order.length;
  }
  return order;
}

/** A way to some state: how it got there, and what it has cost. */
interface Label {
  readonly done: Done;
  readonly last: string | null | undefined;
  readonly count: number;
  /** With the visits that are left at least. */
  readonly bound: Cost;
  readonly cost: Cost;
  readonly before: Label | null;
  /** The piece of work that led here; its cost is not known yet while `open`. */
  readonly work: number;
  readonly open: boolean;
}

const earlier = (a: Label, b: Label): number => compareCost(a.bound, b.bound) || b.count - a.count;

function wayTo(label: Label): number[] {
  const order: number[] = [];
  for (let at: Label | null = label; at?.before; at = at.before) order.unshift(at.work);
  return order;
}

/** The cost of a way with one piece of work more; null where it cannot be done then. */
function walked(ways: Ways, label: Label): Label | null {
  const from = label.before!;
  const turn = ways.turn(from.done, label.work);
  if (!turn) return null;
  const seconds = ways.seconds(from.done, label.work);
  if (seconds === null) return null;
  const visits = visit(ways, from.last, label.work);
  const lost = ways.lost(from.done, label.work);
  const cost = addStep(from.cost, { consoles: turn.consoles.length, lost, seconds, visits });
  const left = visitsLeft(ways, label.done, label.last);
  return { ...label, open: false, cost, bound: { ...cost, visits: cost.visits + left } };
}

/** Ways of the same state and place: a new one is kept only where no known one is as good in everything. */
class Fronts {
  private readonly fronts = new Map<string, Cost[]>();
  take({ done, last, cost }: Label): boolean {
    const key = `${done} ${last}`;
    const front = this.fronts.get(key) ?? [];
    if (front.some((c) => dominates(c, cost))) return false;
    this.fronts.set(key, [...front.filter((c) => !dominates(cost, c)), cost]);
    return true;
  }
}

/**
 * The best order of all by rehearsal, found best first: the first whole one that comes up is the best, since going on never
 * makes a way cheaper. Yields how many ways it has looked at, and takes whether to stop; stopped, it gives null. `known`: a
 * whole order that is not to be worse than; what cannot be better than it is passed over.
 */
export function* bestOrder(ways: Ways, known: Order | null): Generator<number, Order | null, boolean> {
  const whole = bit(ways.works.length) - 1n;
  const heap = new Heap<Label>(earlier);
  const fronts = new Fronts();
  const start: Label = {
    done: 0n,
    last: undefined,
    count: 0,
    cost: FREE,
    bound: { ...FREE, visits: visitsLeft(ways, 0n, undefined) },
    before: null,
    work: -1,
    open: false,
  };
  heap.push(start);
  for (let looked = 1; ; looked++) {
    const label = heap.pop();
    if (!label) return known;
    if (known && compareCost(label.bound, known.cost) >= 0) return known;
    if (label.open) {
      const next = walked(ways, label);
      if (next) heap.push(next);
    } else if (label.done === whole) return { works: wayTo(label), cost: label.cost };
    else if (fronts.take(label)) expand(ways, label, heap);
    if (yield looked) return null;
  }
}

function expand(ways: Ways, label: Label, heap: Heap<Label>): void {
  ways.works.forEach((w, work) => {
    if ((label.done & bit(work)) !== 0n || ways.after[work]!.some((b) => (label.done & bit(b)) === 0n)) return;
    heap.push({
      done: label.done | bit(work),
      last: w.device,
      count: label.count + 1,
      cost: label.cost,
      bound: label.bound,
      before: label,
      work,
      open: true,
    });
  });
}
