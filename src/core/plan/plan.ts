/** The plan of a change: from one design to another, step by step, in the order that interrupts least. */
import { applyEdits, switchById } from '../design';
import type { Design, Edit, Probe } from '../design';
import { hostVlans } from '../review';
import type { MovedTree } from '../trees';
import { planMessages as say } from '../messages';
import { worksInOneGo } from './arrange';
import { checksOf, deviceName, workedAt } from './checks';
import { frameOf } from './frame';
import { gatherWork } from './gather';
import type { Work } from './gather';
import type { Measured } from './measure';
import type { Order } from './order';
import { managementVlan } from './place';
import type { Place } from './place';
import { pinnedIn } from './constraints';
import type { PinnedStep } from './constraints';
import { Planner, withNeeded } from './planner';
import type { PlanProgress, Planning, Reply } from './planner';
import { compareCost } from './rank';
import type { Cost } from './rank';
import { setLines } from './set-lines';
import type { SetLine } from './set-lines';
import { bit } from './ways';
import type { Ways } from './ways';

export interface PlanOptions {
  /** Id of the host or the switch that the engineer works from; absent: no account is taken of it. */
  readonly at?: string;
  /** VLAN in which switches are managed; absent: by its name, else that of the place. */
  readonly managementVlan?: number;
  /** Pairs that should keep contact; absent: hosts of one VLAN, each with the first of them. */
  readonly watch?: readonly Probe[];
  /** Whether steps may be added that are taken back again; absent: yes. */
  readonly temporary?: boolean;
  /** Steps that stay in their place, whatever it costs. */
  readonly pins?: readonly PinnedStep[];
}

export interface PlanStep {
  readonly work: Work;
  /** The network before and after, at rest. */
  readonly before: Design;
  readonly after: Design;
  readonly set: readonly SetLine[];
  readonly inverse: readonly Edit[];
  readonly moved: readonly MovedTree[];
  readonly measured: Measured;
  /** Ids of devices that cannot be reached for it. */
  readonly consoles: readonly string[];
  readonly see: readonly string[];
  readonly otherwise: string;
}

export interface ChangePlan {
  readonly steps: readonly PlanStep[];
  readonly cost: Cost;
  /** The order of the tables, for comparison; null where it leads through a loop, or cannot be carried out. */
  readonly table: Cost | null;
  readonly tableIsKnown: boolean;
  /** Whether no order of these steps is better. */
  readonly exact: boolean;
  /** The order was given: nothing was searched. */
  readonly given: boolean;
  /** Ways that were looked at in the search. */
  readonly looked: number;
  readonly constraints: readonly { readonly first: string; readonly then: string; readonly sentence: string }[];
  readonly place: Place | null;
  readonly pairs: readonly Probe[];
}

export type Planned =
  { readonly ok: true; readonly plan: ChangePlan } | { readonly ok: false; readonly sentence: string };

/** Pairs of hosts that are watched where none are named: hosts of one VLAN, each with the first of them. */
const MOST_PAIRS = 12;
export function usualPairs(design: Design): Probe[] {
  const first = new Map<number, string>();
  return hostVlans(design)
    .flatMap((vlan, i): Probe[] => {
      if (vlan === null) return [];
      const { id } = design.hosts[i]!;
      const from = first.get(vlan);
      if (from === undefined) first.set(vlan, id);
      return from === undefined ? [] : [{ from, to: id, vlan }];
    })
    .slice(0, MOST_PAIRS);
}

function placeOf(from: Design, { at, managementVlan: vlan }: PlanOptions): Place | null {
  const known = at !== undefined && (switchById(from, at) || from.hosts.some((h) => h.id === at));
  return known ? { at, vlan: vlan ?? managementVlan(from, at) } : null;
}

/** What cannot be planned, in a sentence; null where it can. */
function refusal(from: Design, to: Design, works: readonly Work[]): string | null {
  const ids = new Set(from.switches.map((s) => s.id));
  if (from.switches.length > 0 && !to.switches.some((s) => ids.has(s.id))) return say['no-common-switch']();
  return works.length === 0 ? say['nothing-to-do']() : null;
}

/** Plans a change; yields how far it is, and takes whether to go on. */
export function* planning(from: Design, to: Design, options: PlanOptions = {}): Planning<Planned> {
  const { start, goal } = frameOf(from, to);
  const works = gatherWork(start, goal);
  const sentence = refusal(from, to, works);
  if (sentence !== null) return { ok: false, sentence };
  const pairs = options.watch ?? usualPairs(from);
  const needed = withNeeded(works, start, goal, options.temporary !== false);
  const constraints = [...needed.constraints, ...pinnedIn(needed.works, options.pins ?? [])];
  const planner = new Planner(needed.works, start, goal, pairs, placeOf(from, options), constraints);
  if ((yield planner.progress('table')) === 'stop') planner.stopped = true;
  // A large one is ordered first, and compared with the order of the tables while there is time.
  if (planner.isSmall) yield* planner.compare();
  yield* planner.theory();
  if (!planner.isSmall && !planner.stopped) yield* planner.compare();
  if (planner.isSmall && !planner.stopped) yield* planner.orders();
  if (options.temporary !== false && !planner.stopped) yield* planner.helpers();
  if (!planner.best)
    return {
      ok: false,
      sentence: say['no-order']({ works: works.map((w) => `${w.kind} at ${workedAt(start, goal, w)}`).join(', ') }),
    };
  const plan = planOf(planner, planner.best);
  return { ok: true, plan: planner.stopped ? plan : yield* inOneGo(plan, start, goal, options) };
}

/** The plan with settings of one switch that follow each other as one step, where that costs no more. */
function* inOneGo(plan: ChangePlan, start: Design, goal: Design, { pins = [] }: PlanOptions): Planning<ChangePlan> {
  const steps = plan.steps.map((s) => s.work);
  const works = worksInOneGo(steps, new Set(pins.map((p) => p.step)));
  if (!works) return plan;
  const planner = new Planner(works, start, goal, plan.pairs, plan.place, []);
  const order = works.map((_, i) => i);
  const cost = planner.stuckAt(order) >= 0 ? null : yield* planner.cost(order);
  if (!cost || compareCost(cost, plan.cost) > 0) return plan;
  return { ...plan, steps: planOf(planner, { works: order, cost }).steps, cost };
}

/** Plans a change without a pause. `enough`: asked again and again, whether the best so far will do. */
export function planChange(
  from: Design,
  to: Design,
  options: PlanOptions = {},
  enough?: (progress: PlanProgress) => boolean,
): Planned {
  const run = planning(from, to, options);
  for (let reply: Reply = 'on'; ;) {
    const { done, value } = run.next(reply);
    if (done) return value;
    reply = enough?.(value) ? 'enough' : 'on';
  }
}

/** What a planning leads to when nothing stops it. */
function finished<T>(run: Planning<T>): T {
  for (;;) {
    const { done, value } = run.next('on');
    if (done) return value;
  }
}

/** The plan of given steps in a given order: nothing is searched. */
export function planArranged(from: Design, to: Design, works: readonly Work[], options: PlanOptions = {}): Planned {
  const { start, goal } = frameOf(from, to);
  const pairs = options.watch ?? usualPairs(from);
  const planner = new Planner(works, start, goal, pairs, placeOf(from, options), []);
  const order = works.map((_, i) => i);
  const wrong = planner.stuckAt(order);
  if (wrong >= 0) {
    const name = deviceName(start, goal, works[wrong]!.device);
    return { ok: false, sentence: say['not-here']({ step: wrong + 1, name }) };
  }
  const cost = finished(planner.cost(order));
  if (!cost) return { ok: false, sentence: say['loops-here']() };
  [planner.table, planner.tableIsKnown] = [cost, true];
  return { ok: true, plan: { ...planOf(planner, { works: order, cost }), given: true } };
}

function planOf({ ways, table, tableIsKnown, exact, looked, constraints }: Planner, best: Order): ChangePlan {
  let done = 0n;
  const steps = best.works.map((work): PlanStep => {
    const [before, turn] = [ways.state(done)!, ways.turn(done, work)!];
    const measured = ways.measured(done, work);
    done |= bit(work);
    return stepOf(ways.works[work]!, before.solved.topology.design, turn, measured);
  });
  return {
    steps,
    cost: best.cost,
    table,
    tableIsKnown,
    exact,
    given: false,
    looked,
    constraints: constraints.map(({ first, then, sentence }) => ({
      first: ways.works[first]!.id,
      then: ways.works[then]!.id,
      sentence,
    })),
    place: ways.place,
    pairs: ways.kept.pairs,
  };
}

function stepOf(work: Work, before: Design, turn: NonNullable<ReturnType<Ways['turn']>>, measured: Measured): PlanStep {
  const applied = applyEdits(before, work.edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  const { after, effect, consoles } = turn;
  return {
    work,
    before,
    after: after.solved.topology.design,
    set: setLines(before, applied.design, work.edits),
    inverse: applied.inverse,
    moved: effect.moved,
    measured,
    consoles,
    ...checksOf(work, after, effect.moved),
  };
}
