/** The states between two designs, by which pieces of work are done, and what each piece does in each of them. */
import { applyEdits } from '../design';
import type { Design, Probe } from '../design';
import { effectOf, hasLoop, haveContact, joinedBy, keptBy, lostAt, restOf } from './effect';
import type { Effect, Kept, Rest } from './effect';
import { isByHand } from './gather';
import type { Work } from './gather';
import { NOTHING_LOST, measure } from './measure';
import type { Measured } from './measure';
import { reachesFrom } from './place';
import type { Place } from './place';
import { longestOf } from './rank';

/** One piece of work in one state. */
export interface Turn {
  readonly after: Rest;
  readonly effect: Effect;
  /** Ids of devices that have to be set and cannot be reached for it. */
  readonly consoles: readonly string[];
  readonly lost: number;
}

/** Which pieces are done: a bit each. */
export type Done = bigint;
export const bit = (work: number): Done => 1n << BigInt(work);

export class Ways {
  private readonly states = new Map<Done, Rest>();
  private readonly turns = new Map<string, Turn | null>();
  private readonly known = new Map<string, Measured>();
  readonly goal: Rest;
  readonly kept: Kept;
  /** Rehearsals so far. */
  rehearsals = 0;

  constructor(
    readonly works: readonly Work[],
    start: Design,
    goal: Design,
    readonly pairs: readonly Probe[],
    readonly place: Place | null,
    /** By piece of work, the pieces that must be done before. */
    readonly after: readonly (readonly number[])[],
  ) {
    const rest = restOf(start);
    this.states.set(0n, rest);
    this.goal = restOf(goal);
    this.kept = keptBy(rest, this.goal, pairs);
  }

  /** The same with more pieces of work: what is known of states and rehearsals is kept. */
  with(more: readonly Work[]): Ways {
    const { goal, works, pairs, place, after } = this;
    const wider = new Ways(
      [...works, ...more],
      this.start.solved.topology.design,
      goal.solved.topology.design,
      pairs,
      place,
      [...after, ...more.map(() => [])],
    );
    for (const [done, rest] of this.states) wider.states.set(done, rest);
    for (const [key, measured] of this.known) wider.known.set(key, measured);
    wider.rehearsals = this.rehearsals;
    return wider;
  }

  get start(): Rest {
    return this.states.get(0n)!;
  }

  state(done: Done): Rest | undefined {
    return this.states.get(done);
  }

  /** What a piece of work does when the given ones are done; null where it cannot be done then, or a loop would stand. */
  turn(done: Done, work: number): Turn | null {
    const key = `${done} ${work}`;
    let turn = this.turns.get(key);
    if (turn === undefined) this.turns.set(key, (turn = this.work(done, work)));
    return turn;
  }

  private work(done: Done, work: number): Turn | null {
    if (this.after[work]!.some((w) => (done & bit(w)) === 0n)) return null;
    const before = this.states.get(done)!;
    const { edits } = this.works[work]!;
    const next = done | bit(work);
    let after = this.states.get(next);
    if (!after) {
      const applied = applyEdits(before.solved.topology.design, edits);
      if (!applied.ok) return null;
      after = restOf(applied.design, before.solved);
      this.states.set(next, after);
    }
    if (hasLoop(after) && !hasLoop(before)) return null;
    const effect = effectOf(before, after, edits);
    return { after, effect, consoles: this.unreached(done, work, before, after), lost: this.lostAfter(next, after) };
  }

  /** The last state is the target: what is lost there was meant. */
  private lostAfter(done: Done, after: Rest): number {
    return done === bit(this.works.length) - 1n ? 0 : lostAt(after, this.kept);
  }

  private unreached(done: Done, work: number, before: Rest, after: Rest): string[] {
    const { place } = this;
    if (!place) return [];
    const found = new Set<string>();
    for (const device of this.devicesOf(this.works[work]!, before))
      if (!reachesFrom(before, place, device)) found.add(device);
    this.works.forEach((other, i) => {
      if (i === work || (done & bit(i)) !== 0n) return;
      for (const device of this.devicesOf(other, before))
        if (reachesFrom(before, place, device) && !reachesFrom(after, place, device)) found.add(device);
    });
    return [...found];
  }

  /** Switches that a piece of work sets over the network. */
  private devicesOf(work: Work, rest: Rest): string[] {
    if (isByHand(work)) return [];
    if (work.device === null) return rest.solved.topology.design.switches.map((s) => s.id);
    return work.kind === 'pair' && work.other !== null ? [work.device, work.other] : [work.device];
  }

  /** What a rehearsal says of a piece of work; asked only of what is not quiet. */
  measured(done: Done, work: number): Measured {
    const key = `${done} ${work}`;
    let known = this.known.get(key);
    if (!known) {
      const turn = this.turn(done, work)!;
      if (turn.effect.quiet) known = NOTHING_LOST;
      else {
        const before = this.states.get(done)!;
        const there = this.pairs.filter((p) => this.isThere(before, p));
        known = measure(before.solved.topology.design, this.works[work]!.edits, there, joinedBy(before), (pair) =>
          haveContact(turn.after, pair),
        );
        this.rehearsals++;
      }
      this.known.set(key, known);
    }
    return known;
  }

  /** What a rehearsal of a whole order has found. */
  take(done: Done, work: number, measured: Measured): void {
    this.known.set(`${done} ${work}`, measured);
  }

  isKnown(done: Done, work: number): boolean {
    return this.known.has(`${done} ${work}`) || this.turn(done, work)?.effect.quiet === true;
  }

  private isThere(rest: Rest, { from, to }: Probe): boolean {
    const { hosts } = rest.solved.topology.design;
    return [from, to].every((id) => hosts.some((h) => h.id === id));
  }

  /** Pairs and states that are lost: as the solver has it, and pairs that a rehearsal does not bring back though it should. */
  lost(done: Done, work: number): number {
    const turn = this.turn(done, work)!;
    const { pairs } = this.measured(done, work);
    return turn.lost + pairs.filter((o) => o.seconds === null && haveContact(turn.after, o.pair)).length;
  }

  /** Seconds of the longest outage that ends within the step; null where frames would loop on. */
  seconds(done: Done, work: number): number | null {
    const measured = this.measured(done, work);
    return measured.looped === null ? null : longestOf(measured);
  }
}
