/** A design as a network that can be asked: it runs in the simulation, and an agent a switch tells of it as it stands. */
import type { SnmpCredentials } from '../../api/observe';
import type { Design, Script, ScriptEvent } from '../../core/design';
import { AnswerBook, agentAnswers, logicalNames } from '../../core/observe';
import type { Asker } from '../../core/observe';
import { advance, snapshotOf, startRehearsal } from '../../core/simulation';
import type { Rehearsal, SwitchSnapshot } from '../../core/simulation';
import { SECOND } from '../../core/standard';
import { serveAgent } from './agent';
import type { AgentAddress } from './agent';

export interface StandInSwitch extends AgentAddress {
  readonly id: string;
  readonly name: string;
}

export interface StandInOptions {
  readonly script?: Script;
  readonly port: number;
  /** Seconds of the network in one of ours. */
  readonly speed: number;
  readonly credentials: readonly SnmpCredentials[];
}

/** Milliseconds between two moves of the network, and for how long what an agent says stands. */
const TICK = 100;
const FRESH = 1000;
/** Events a turn: the agents go on answering in between. */
const TURN = 20_000;

/** 127.20.0.1, 127.20.0.2 …: one address a switch. */
const addressOf = (nth: number): string => `127.20.${Math.floor(nth / 250)}.${(nth % 250) + 1}`;

export class StandIn {
  private readonly run: Rehearsal;
  private readonly books = new Map<string, AnswerBook>();
  private readonly events: ScriptEvent[];
  private snapshots: {
    readonly at: number;
    readonly of: ReadonlyMap<string, SwitchSnapshot>;
    readonly lit: ReadonlySet<string>;
  };
  private readonly started = Date.now();
  private readonly agents: { close: () => void }[] = [];
  private timer: NodeJS.Timeout | null = null;
  /** Those that answer; the second of a pair that acts as one does so once it is on its own. */
  readonly switches: readonly StandInSwitch[];
  private readonly all: readonly StandInSwitch[];
  private readonly addresses: ReadonlyMap<string, string>;

  constructor(
    design: Design,
    private readonly options: StandInOptions,
  ) {
    this.events = [...(options.script?.events ?? [])];
    const script: Script = {
      id: 'stand-in',
      name: 'stand-in',
      until: 36_000,
      probes: [],
      ...options.script,
      events: this.events,
    };
    this.run = startRehearsal(design, script);
    // Switched on long ago: it stands when the first question comes.
    advance(this.run, 0);
    this.all = this.run.world.plan.design.switches.map((s, i) => ({
      id: s.id,
      name: s.name,
      address: addressOf(i),
      port: options.port,
    }));
    this.addresses = new Map(this.all.map((s) => [s.id, s.address]));
    this.snapshots = this.look();
    this.switches = this.all.filter((s) => this.snapshots.of.has(s.id));
  }

  /** Microseconds of the network since it was asked first. */
  get now(): number {
    return Math.round(((Date.now() - this.started) / 1000) * this.options.speed * SECOND);
  }

  private look(): StandIn['snapshots'] {
    const all = snapshotOf(this.run.world);
    this.books.clear();
    return { at: Date.now(), of: new Map(all.map((s) => [s.id, s])), lit: new Set(all.flatMap((s) => [...s.lit])) };
  }

  private book(id: string, asker: Asker): AnswerBook {
    if (Date.now() - this.snapshots.at > FRESH) this.snapshots = this.look();
    const key = [id, asker.community ?? '', asker.logical ?? ''].join('\n');
    let book = this.books.get(key);
    if (!book) {
      const { of, lit } = this.snapshots;
      const snapshot = of.get(id);
      const place = { addresses: this.addresses, uptime: Math.round((Date.now() - this.started) / 10) };
      // A switch that is off answers nothing.
      const answers = snapshot?.on
        ? agentAnswers(this.run.world.plan.design, snapshot, place, (port) => lit.has(port), asker)
        : [];
      this.books.set(key, (book = new AnswerBook(answers)));
    }
    return book;
  }

  private logicalOf(id: string): string[] {
    const snapshot = this.snapshots.of.get(id);
    return snapshot ? logicalNames(snapshot) : [];
  }

  /** Starts every agent and the clock. */
  async start(): Promise<void> {
    for (const s of this.all)
      this.agents.push(
        await serveAgent(s, this.options.credentials, {
          book: (asker) => this.book(s.id, asker),
          logical: this.logicalOf(s.id),
        }),
      );
    const tick = () => {
      advance(this.run, this.now, { turn: TURN });
      this.timer = setTimeout(tick, TICK);
    };
    tick();
  }

  /** Lets something happen now. */
  happen(event: ScriptEvent): void {
    // What the agents say is looked at again once it has happened.
    this.snapshots = { ...this.snapshots, at: Date.now() - FRESH + 2 * TICK };
    const index = this.events.push(event) - 1;
    this.run.world.queue.push(Math.max(this.run.world.now, this.now), { kind: 'script', index, step: 0 });
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer);
    for (const agent of this.agents) agent.close();
  }
}
