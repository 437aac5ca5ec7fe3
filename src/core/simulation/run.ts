/** Simulates a script over a design: the same design, script and seed give the same trace, octet for octet. */
import { analysisMessages as say } from '../messages';
import {
  designsOver,
  farEnd,
  filterOf,
  groupBy,
  hasSilenceGuard,
  isClassicMode,
  linkAt,
  modeOf,
  timersOf,
  usualHelloSpread,
} from '../design';
import type { Design, Port, Probe, Script } from '../design';
import { tickBridge } from '../protocols/mst';
import { arrive, shut } from './receive';
import { keepAlive } from './keepalives';
import { isInStorm } from './storms';
import { createWorld, wakeBundleEnd } from './build';
import { lookAtContact, usualProbes } from './data-plane/connectivity';
import { standingOf, tick, wake } from './engines';
import { probeVlans } from './data-plane/loops';
import { becomeConsistent } from './inconsistent-ports';
import { drain, isInconsistent, noteAll } from './switch';
import { planOf } from './plan';
import type { Trace } from '../trace';
import { portList } from '../trace';
import { ScriptFault, carryOut, eventWords, flapWords, intruderSpeaks, missingIn, recover, rootOf } from './script';
import { isMixed, mixtureOf, vlanClasses } from '../network';
import type { Due, World } from './network-state';
import { SECOND } from '../standard';

export interface RunOptions {
  /** Frames and timers after which a run is stopped. */
  readonly most?: number;
  /** Frames and timers after which it pauses. */
  readonly turn?: number;
}

const MOST_HANDLED = 10_000_000;
const A_TURN = 20_000;

/** Whether a port waits for the forward delay twice, since no neighbour agrees: it is shared, or a host is there and it is no edge port. */
function agreesWithNoOne(design: Design, port: Port): boolean {
  if (port.duplex === 'half' || port.linkType === 'shared') return true;
  const link = linkAt(design, port.id);
  return link !== undefined && !port.edge && !port.autoEdge && 'host' in farEnd(link, port.id);
}

/** How long a network needs from being switched on until it stands, in microseconds. */
function warmUp(design: Design): number {
  const classic = design.switches.some((s) => isClassicMode(modeOf(design, s)));
  const most = (of: 'maxAge' | 'forwardDelay') => Math.max(20, ...design.switches.map((s) => timersOf(s)[of]));
  const elements = [...design.ports, ...design.bundles];
  const filtered = elements.some((p) => filterOf(design, p) !== 'none');
  const hellos = [...design.switches.map((s) => timersOf(s).helloTime), ...elements.map((p) => p.helloTime ?? 0)];
  const silences = elements.some((p) => hasSilenceGuard(design, p)) ? 3 * Math.max(...hellos) : 0;
  // Where modes meet, a port can be opposite one that hears it and never agrees.
  const mixed = isMixed(mixtureOf(design));
  const slow = mixed || design.segments.length > 0 || design.ports.some((p) => filtered || agreesWithNoOne(design, p));
  const negotiates = design.bundles.some((b) => b.kind !== 'static') ? 10 : 0;
  const seconds = classic ? most('maxAge') + 2 * most('forwardDelay') + 10 : slow ? 2 * most('forwardDelay') + 12 : 20;
  return (seconds + negotiates + silences) * SECOND;
}

/** A rehearsal under way: built, and moved on by `advance`. */
export interface Rehearsal {
  readonly world: World;
  readonly script: Script;
  readonly probes: readonly Probe[];
}

export function startRehearsal(design: Design, script: Script): Rehearsal {
  const designs = designsOver(design, script).map((d) => d.design);
  const watched = script.events.flatMap((e) => (e.kind === 'hub-loop' || e.kind === 'intruder' ? [e.port] : []));
  const world = createWorld(design, planOf(design, vlanClasses(designs, watched)), {
    seed: script.seed ?? 1,
    linkDelay: script.linkDelay ?? 5,
    processingDelay: script.processingDelay ?? 500,
    helloSpread: (script.helloSpread ?? usualHelloSpread(design)) * 1000,
    warmUp: warmUp(design),
  });
  world.queue.push(0, { kind: 'start' });
  script.events.forEach((event, index) => {
    const steps = event.kind === 'flap' ? event.times * 2 : 1;
    for (let step = 0; step < steps; step++) {
      const at = event.at + (event.kind === 'flap' ? step * event.every : 0);
      // What stands at the start is seen first, so that an event of that moment has a before and an after.
      world.queue.push(Math.max(1, Math.round(at * SECOND)), { kind: 'script', index, step });
    }
  });
  world.queue.push(0, { kind: 'contact' });
  const probes = script.probes ?? usualProbes(world);
  return { world, script, probes };
}

function handle({ world: w, script, probes }: Rehearsal, due: Due): void {
  switch (due.kind) {
    case 'frame':
      arrive(w, due);
      break;
    case 'second':
      if (w.nodes.get(due.node.plan.id) !== due.node) break;
      for (const process of due.node.treeOff ? [] : due.node.processes) {
        tick(process.engine);
        drain(w, process);
      }
      w.queue.push(w.now + SECOND, due);
      break;
    case 'wake':
      if (due.process.engine.kind !== 'stp' || due.process.engine.wakeAt > w.now) break;
      if (!due.process.node.processes.includes(due.process) || due.process.node.treeOff) break;
      wake(due.process.engine, w.now);
      drain(w, due.process);
      break;
    case 'lacp':
      wakeBundleEnd(w, due.bundleEnd);
      break;
    case 'script':
      runEvent(w, script, due.index, due.step);
      break;
    case 'keepalive':
      if (keepAlive(w, due.port, due.keepalives)) shut(w, w.physical.get(due.port)!.own, 'one-way');
      break;
    case 'storm':
      if (isInStorm(w, due)) shut(w, w.physical.get(due.port)!.own, 'storm');
      break;
    case 'recover':
      recover(w, due.port);
      break;
    case 'consistent':
      becomeConsistent(w, due);
      break;
    case 'intruder':
      intruderTicks(w, due);
      break;
    case 'start':
      noteAll(w);
      break;
    case 'contact':
      // Everything else of this moment comes first.
      if (w.queue.next === w.now && !due.last) {
        w.queue.push(w.now, { kind: 'contact', last: true });
        break;
      }
      if (w.now < 0) w.contactDue = false;
      else {
        probeVlans(w);
        lookAtContact(w, probes);
      }
      break;
  }
}

/** A second of a rogue switch. */
function intruderTicks(w: World, due: Extract<Due, { kind: 'intruder' }>): void {
  const intruder = w.intruders.get(due.port);
  if (!intruder) return;
  tickBridge(intruder.bridge);
  intruderSpeaks(w, due.port);
  w.queue.push(w.now + SECOND, due);
}

function runEvent(w: World, script: Script, index: number, step: number): void {
  const event = script.events[index]!;
  const missing = missingIn(w.drawn, event);
  if (missing) return w.record.happened({ kind: 'void', at: w.now, event: index, sentence: missing });
  const root = event.kind === 'root-off' ? rootOf(w, event.vlan) : null;
  const words = event.kind === 'flap' ? flapWords(w.drawn, event, step) : eventWords(w.drawn, event, root);
  const sentence = words[0]!.toUpperCase() + words.slice(1);
  try {
    const taken = root === null ? {} : { switch: root };
    w.record.happened({ kind: 'script', at: w.now, event: index, step, sentence, ...taken });
    carryOut(w, event, step);
  } catch (error) {
    if (!(error instanceof ScriptFault)) throw error;
    w.record.happened({ kind: 'void', at: w.now, event: index, sentence: error.message });
  }
}

/** Runs on until a moment, until a limit is met, or for a turn. */
export function advance(r: Rehearsal, until: number, options: RunOptions = {}): 'there' | 'limit' | 'paused' {
  const { world: w } = r;
  const most = options.most ?? MOST_HANDLED;
  const turn = w.handled + (options.turn ?? Infinity);
  while (w.queue.next <= until) {
    if (w.handled >= turn) return 'paused';
    w.now = w.queue.next;
    handle(r, w.queue.pop());
    w.handled++;
    if (w.handled > most) return 'limit';
  }
  w.now = until;
  return 'there';
}

/** Ports that still changed in the last seconds, and again and again before: the network does not come to rest. */
function restless(trace: Trace): string[] {
  const tail = trace.until - 5 * SECOND;
  return trace.ports
    .filter(({ spans }) => spans.length > 8 && spans.at(-1)!.at > tail)
    .map(({ port }) => port)
    .filter((port, i, all) => all.indexOf(port) === i);
}

/**
 * Rehearses a script turn by turn: after each it yields how far it is, in seconds, and takes whether to stop. A run that is
 * stopped, or meets a limit, gives what there is so far.
 */
export function* rehearsing(
  design: Design,
  script: Script,
  options: RunOptions = {},
): Generator<number, Trace, boolean> {
  const r = startRehearsal(design, script);
  const until = Math.round(script.until * SECOND);
  for (;;) {
    const ended = advance(r, until, { turn: A_TURN, ...options });
    const reached = Math.max(0, r.world.now);
    if (ended !== 'paused') return traceOf(r, reached, ended === 'there' ? 'end' : ended);
    if (yield r.world.now / SECOND) return traceOf(r, reached, 'cancelled');
  }
}

/** Rehearses a script and gives what happened. */
export function rehearse(design: Design, script: Script, options: RunOptions = {}): Trace {
  const run = rehearsing(design, script, options);
  for (;;) {
    const { done, value } = run.next(false);
    if (done) return value;
  }
}

export function traceOf({ world: w }: Rehearsal, until: number, ended: Trace['ended']): Trace {
  const { representative } = w.plan;
  const classes = Object.fromEntries(groupBy(representative.keys(), (vlan) => representative.get(vlan)!));
  const trace = w.record.trace({ until, classes, handled: w.handled, bpdus: w.bpdus, ended, sentence: '' });
  const moving = restless(trace);
  const seconds = (until / SECOND).toFixed(1);
  const sentence =
    ended === 'limit'
      ? say['run-limit']({ seconds, handled: w.handled })
      : ended === 'cancelled'
        ? say['run-cancelled']({ seconds })
        : moving.length > 0
          ? say['run-restless']({ ports: portList(w.plan.design, moving) })
          : '';
  return { ...trace, sentence };
}

/** What the engine of a port says of it in a tree now; null where it is not in the tree. */
function standingNow(w: World, tree: string, id: string) {
  const bp = w.bridgePorts.get(id);
  if (!bp) return null;
  for (const process of bp.node.processes) {
    const i = process.plan.trees.indexOf(tree);
    if (i < 0 || !process.plan.ports.includes(id)) continue;
    const standing = standingOf(process.engine, bp.number, i);
    return standing && { ...standing, inconsistent: isInconsistent(bp, process) };
  }
  return null;
}

/** Role of a port in a tree now, as the solver would call it; null where it is not in the tree. */
export function roleNow(w: World, tree: string, id: string): string | null {
  const standing = standingNow(w, tree, id);
  return standing?.inconsistent ? 'alternate' : (standing?.role ?? null);
}

/** State of a port in a tree now; null where it is not in the tree. */
export function stateNow(w: World, tree: string, id: string): string | null {
  const standing = standingNow(w, tree, id);
  return standing?.inconsistent ? 'discarding' : (standing?.state ?? null);
}
