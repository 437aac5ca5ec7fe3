/**
 * A bridge of rapid or multiple spanning tree: all its machines, run in the order of the standard until nothing moves.
 * It sends nothing itself: what it wants sent, flushed or known stands in its effects, which the caller takes.
 */
import { bridgeDetectionStep } from './bridge-detection';
import { informationStep } from './information';
import { PortSet } from './port-set';
import { portReceive } from './port-receive';
import { transmitStep } from './port-transmit';
import { migrationStep } from './protocol-migration';
import { bridgeVector, roleSelectionStep } from './role-selection';
import {
  receiveAgain,
  receiveChange,
  rememberReceived,
  rememberHello,
  sendAgain,
  stoodStill,
  tellings,
} from './repeated-messages';
import { roleTransitionsStep } from './role-transitions';
import type { BridgeSettings, BridgeTimers, PortSettings } from './settings';
import { stateTransitionStep } from './state-transition';
import { PORT, tickPort, timerBank } from './timers';
import { topologyChangeStep } from './topology-change';
import { stir, wake } from './procedures';
import { NO_VECTOR, Port, TreePort } from './variables';
import type { Times } from '../times';
import type { MstBridge } from './variables';

const MOST_STEPS = 100_000;

function applyPort(port: Port, s: PortSettings): void {
  port.operPointToPointMAC = s.pointToPoint;
  port.adminEdge = s.edge;
  port.autoEdge = s.autoEdge;
  port.restrictedRole = s.restrictedRole ?? false;
  port.restrictedTcn = s.restrictedTcn ?? false;
  port.loopGuard = s.loopGuard ?? false;
  port.ownHello = s.helloTime ?? null;
  const guarded = s.silenceGuard ?? false;
  const armed = guarded && !port.silenceGuard;
  port.silenceGuard = guarded;
  if (armed && port.trees.length > 0) port.breakSilence();
}

/** Makes room for one more port; the timers of the others move along. */
function growTimers({ timers, ports }: MstBridge): void {
  const slots = new Uint16Array((ports.length + 1) * timers.stride);
  slots.set(timers.slots);
  timers.slots = slots;
  for (const p of ports) {
    p.slots = slots;
    for (const tp of p.trees) tp.slots = slots;
  }
}

/** Adds a port, disabled. */
export function addPort(b: MstBridge, settings: PortSettings): void {
  if (b.timers.slots.length < (b.ports.length + 1) * b.timers.stride) growTimers(b);
  const port = new Port(b.timers, b.ports.length, settings.number);
  port.bdm = settings.edge ? 'EDGE' : 'NOT_EDGE';
  port.operEdge = settings.edge;
  applyPort(port, settings);
  b.trees.forEach((_, tree) =>
    port.trees.push(
      new TreePort(b.timers, port, tree, {
        portId: settings.portId[tree]!,
        externalPathCost: settings.externalCost,
        internalPathCost: settings.internalCost[tree]!,
        own: bridgeVector(b, tree),
        times: b.ownTimes,
      }),
    ),
  );
  b.ports.push(port);
  b.byNumber[port.number] = port;
}

const ownTimes = ({ helloTime, maxAge, forwardDelay, maxHops }: BridgeTimers): Times => ({
  messageAge: 0,
  maxAge,
  forwardDelay,
  helloTime,
  hops: maxHops,
});

/** A bridge that has just started: every port disabled. */
export function createBridge(settings: BridgeSettings, ports: readonly PortSettings[]): MstBridge {
  const timers = timerBank(ports.length, settings.trees.length);
  const b: MstBridge = {
    settings,
    ownTimes: ownTimes(settings.timers),
    trees: [],
    ports: [],
    byNumber: [],
    effects: [],
    heard: [],
    hellos: [],
    timers,
    awake: new PortSet(timers, PORT.awake),
    turn: new PortSet(timers, PORT.turn),
    touched: new PortSet(timers, PORT.touched),
  };
  for (const { instance, priority } of settings.trees)
    b.trees.push({
      instance,
      bridgePriority: priority,
      rootPort: null,
      rootPriority: NO_VECTOR,
      rootTimes: b.ownTimes,
      asked: false,
      followers: [],
    });
  b.trees.forEach((tree, i) => (tree.rootPriority = bridgeVector(b, i)));
  for (const port of ports) addPort(b, port);
  settleAll(b);
  return b;
}

/** Whether a follower looks at the others now: a designated port only until it has agreed. */
const waits = ({ role, agree, proposed }: TreePort): boolean => role !== 'Designated' || proposed || !agree;

/** Steps of the machines that look at a port alone, before roles are selected. */
function hearingSteps(b: MstBridge, p: Port): number {
  let moves = 0;
  while (migrationStep(p)) moves++;
  while (bridgeDetectionStep(p)) moves++;
  for (let t = 0; t < p.trees.length; t++) {
    const tp = p.trees[t]!;
    while (informationStep(b, tp)) moves++;
    if (tp.reselect) b.trees[t]!.asked = true;
  }
  return moves;
}

/**
 * Steps of the machines that carry roles out; where one moved, the port looks again, and so do those that wait for others.
 * The topology change machine is the last: only transmission reads what it sets.
 */
function actingSteps(b: MstBridge, p: Port): number {
  let all = 0;
  for (let t = 0; t < p.trees.length; t++) {
    const tp = p.trees[t]!;
    let moves = 0;
    while (roleTransitionsStep(b, tp)) moves++;
    while (stateTransitionStep(b, tp)) moves++;
    while (topologyChangeStep(b, tp)) all++;
    if (moves === 0) continue;
    wake(b, p);
    for (const other of b.trees[t]!.followers) if (waits(other)) wake(b, other.port);
    all += moves;
  }
  return all;
}

/**
 * Runs the machines of the ports that are awake, and of those that they wake, until nothing moves. Ports at which
 * nothing has changed since stay asleep: in a switch of many ports that is nearly all of them nearly always.
 */
function settle(b: MstBridge): void {
  if (b.awake.to < 0) return;
  const { ports, trees, touched } = b;
  for (let step = 0; b.awake.to >= 0; step++) {
    if (step > MOST_STEPS) throw new Error('settle: the machines of a bridge do not come to rest');
    const turn = b.awake;
    b.awake = b.turn;
    b.turn = turn;
    const { from, to } = turn;
    for (let i = from; i <= to; i++) {
      if (!turn.has(i)) continue;
      touched.add(i);
      const moves = hearingSteps(b, ports[i]!);
      // They are looked at by those that come after them, not by each other again.
      if (moves > 0) ports[i]!.unmoved = 0;
      ports[i]!.moves += moves;
    }
    for (let t = 0; t < trees.length; t++) roleSelectionStep(b, t);
    for (let i = from; i <= to; i++) {
      if (turn.take(i)) ports[i]!.moves += actingSteps(b, ports[i]!);
    }
    turn.emptied();
  }
  transmitTouched(b);
}

/** Nothing is sent before all else stands; and no other machine looks at what sending moves. */
function transmitTouched(b: MstBridge): void {
  const { ports, touched } = b;
  const { from, to } = touched;
  for (let i = from; i <= to; i++) {
    if (!touched.take(i) || sendAgain(b, i)) continue;
    const p = ports[i]!;
    while (transmitStep(b, p)) continue;
    rememberHello(b, p);
  }
  touched.emptied();
}

/** Has all machines run; where everything stands, nothing moves. */
export function settleAll(b: MstBridge): void {
  for (const p of b.ports) wake(b, p);
  settle(b);
}

/** A BPDU arrives at a port, as octets. */
export function hearBpdu(b: MstBridge, number: number, octets: Uint8Array): void {
  const p = b.byNumber[number];
  if (!p) return;
  const again = receiveAgain(b, p.index, octets);
  if (again) return void b.effects.push(...again.effects);
  if (receiveChange(b, p, octets)) return settle(b);
  const before = b.effects.length;
  const { moves } = p;
  for (let t = 0; t < p.trees.length; t++) told[t] = tellings(p.trees[t]!);
  portReceive(b, p, octets);
  wake(b, p);
  settle(b);
  if (stoodStill(b, p, before, moves, told)) rememberReceived(b, p, octets, b.effects.slice(before));
}

/** `tellings` of each tree before the BPDU that is processed. */
const told: number[] = [];

/** One second passes. */
export function tickBridge(b: MstBridge): void {
  const { ports, touched, timers } = b;
  for (let i = 0; i < ports.length; i++) {
    const due = tickPort(timers, i);
    if (due === 'timer') stir(b, ports[i]!);
    else if (due === 'hello') touched.add(i);
  }
  if (b.awake.to >= 0) settle(b);
  else if (touched.to >= 0) transmitTouched(b);
}

/** Ports come into service, or leave it, all at once. */
export function setPortsEnabled(b: MstBridge, numbers: readonly number[], enabled: boolean): void {
  for (const number of numbers) {
    const p = b.byNumber[number];
    if (!p || p.portEnabled === enabled) continue;
    p.portEnabled = enabled;
    p.breakSilence();
    p.loopInconsistent = p.atBorder = p.heldBack = false;
    wake(b, p);
  }
  settle(b);
}

/** mcheck: speaks the rapid protocol at a port again, for as long as no classic BPDU comes (802.1Q-2018 13.27.38). */
export function checkMigration(b: MstBridge, number: number): void {
  const p = b.byNumber[number];
  if (!p) return;
  p.mcheck = true;
  wake(b, p);
  settle(b);
}

/** Holds a port back, or lets it go: see `heldBack`. */
export function holdPort(b: MstBridge, number: number, held: boolean): void {
  const p = b.byNumber[number];
  if (!p || p.heldBack === held) return;
  p.heldBack = held;
  wake(b, p);
  settle(b);
}

/** Takes settings of a port over that may change while it runs: cost, priority, edge, guards. */
export function setPort(b: MstBridge, s: PortSettings): void {
  const p = b.byNumber[s.number];
  if (!p) return;
  applyPort(p, s);
  p.trees.forEach((tp, tree) => {
    tp.portId = s.portId[tree]!;
    tp.externalPathCost = s.externalCost;
    tp.internalPathCost = s.internalCost[tree]!;
    tp.reselect = true;
    tp.selected = false;
  });
  settleAll(b);
}

/** Takes bridge priorities and timers over. */
export function setBridge(b: MstBridge, { trees, timers }: Pick<BridgeSettings, 'trees' | 'timers'>): void {
  b.trees.forEach((tree, i) => (tree.bridgePriority = trees[i]!.priority));
  b.settings = { ...b.settings, trees, timers };
  b.ownTimes = ownTimes(timers);
  for (const p of b.ports)
    for (const tp of p.trees) {
      tp.reselect = true;
      tp.selected = false;
    }
  settleAll(b);
}

/** Takes bridge priorities over. */
export const setPriorities = (b: MstBridge, priorities: readonly number[]): void =>
  setBridge(b, { ...b.settings, trees: b.settings.trees.map((t, i) => ({ ...t, priority: priorities[i]! })) });
