/**
 * A bridge of rapid or multiple spanning tree: all its machines, run in the order of the standard until nothing moves.
 * It sends nothing itself: what it wants sent, flushed or known stands in its effects, which the caller takes.
 */
import { sameOctets } from '../../frames';
import { informationStep } from './information';
import { edgeStep, migrationStep, portReceive, tickPort, transmitStep } from './port-machines';
import { bridgeTimes, bridgeVector, roleSelectionStep } from './role-selection';
import { roleTransitionsStep } from './role-transitions';
import { stateTransitionStep } from './state-transition';
import { topologyChangeStep } from './topology-change';
import { updtRcvdInfoWhile, wake } from './procedures';
import { MIGRATE_TIME, NO_VECTOR } from './variables';
import type { BridgeSettings, MstBridge, Port, PortSettings, Repeated, TreePort } from './variables';

const MOST_STEPS = 100_000;

function newTreePort(b: MstBridge, port: Port, tree: number, settings: PortSettings): TreePort {
  const times = bridgeTimes(b);
  return {
    // What every second and every BPDU looks at stands together, so that it is fetched together.
    port,
    tree,
    role: 'Disabled',
    tcWhile: 0,
    fdWhile: times.maxAge,
    rcvdInfoWhile: 0,
    rrWhile: times.forwardDelay,
    rbWhile: 0,
    infoIs: 'Disabled',
    rcvdInfo: 'Other',
    rcvdMsg: false,
    selected: false,
    updtInfo: false,
    reselect: true,
    selectedRole: 'Disabled',
    portTimes: times,
    pim: 'DISABLED',
    prt: 'BLOCK',
    pst: 'DISCARDING',
    tcm: 'INACTIVE',
    learn: false,
    learning: false,
    forward: false,
    forwarding: false,
    agree: false,
    agreed: false,
    proposed: false,
    proposing: false,
    // As INIT_PORT leaves it.
    sync: true,
    synced: false,
    reRoot: true,
    disputed: false,
    rcvdTc: false,
    tcProp: false,
    master: false,
    mastered: false,
    fdbFlush: false,
    portId: settings.portId[tree]!,
    externalPathCost: settings.externalCost,
    internalPathCost: settings.internalCost[tree]!,
    msgPriority: NO_VECTOR,
    msgTimes: times,
    portPriority: NO_VECTOR,
    designatedPriority: bridgeVector(b, tree),
    designatedTimes: times,
    msti: null,
  };
}

function applyPort(port: Port, s: PortSettings): void {
  port.operPointToPointMAC = s.pointToPoint;
  port.adminEdge = s.edge;
  port.autoEdge = s.autoEdge;
  port.restrictedRole = s.restrictedRole ?? false;
  port.restrictedTcn = s.restrictedTcn ?? false;
  port.loopGuard = s.loopGuard ?? false;
}

/** Adds a port, disabled. */
export function addPort(b: MstBridge, settings: PortSettings): Port {
  const port: Port = {
    portEnabled: false,
    helloWhen: 0,
    mdelayWhile: MIGRATE_TIME,
    edgeDelayWhile: MIGRATE_TIME,
    txCount: 0,
    newInfo: true,
    newInfoMsti: false,
    trees: [],
    index: b.ports.length,
    number: settings.number,
    enableBPDUrx: true,
    enableBPDUtx: true,
    sendRSTP: true,
    ppm: 'CHECKING_RSTP',
    heardBefore: null,
    sentBefore: null,
    bdm: settings.edge ? 'EDGE' : 'NOT_EDGE',
    operEdge: settings.edge,
    adminEdge: false,
    autoEdge: false,
    operPointToPointMAC: true,
    restrictedRole: false,
    restrictedTcn: false,
    loopGuard: false,
    loopInconsistent: false,
    mcheck: false,
    rcvdBpdu: false,
    rcvdRSTP: false,
    rcvdSTP: false,
    rcvdTcn: false,
    rcvdTcAck: false,
    tcAck: false,
    rcvdInternal: false,
    infoInternal: false,
    bpdu: null,
  };
  applyPort(port, settings);
  b.trees.forEach((_, tree) => port.trees.push(newTreePort(b, port, tree, settings)));
  b.ports.push(port);
  for (const set of [b.awake, b.turn, b.touched]) set.push(false);
  b.byNumber[port.number] = port;
  return port;
}

/** A bridge that has just started: every port disabled. */
export function createBridge(settings: BridgeSettings, ports: readonly PortSettings[]): MstBridge {
  const b: MstBridge = {
    settings,
    trees: [],
    ports: [],
    byNumber: [],
    effects: [],
    awake: [],
    anyAwake: false,
    turn: [],
    touched: [],
    moves: 0,
  };
  for (const { instance, priority } of settings.trees)
    b.trees.push({
      instance,
      bridgePriority: priority,
      rootPort: null,
      rootPriority: NO_VECTOR,
      rootTimes: bridgeTimes(b),
      asked: false,
      followers: [],
    });
  b.trees.forEach((tree, i) => (tree.rootPriority = bridgeVector(b, i)));
  for (const port of ports) addPort(b, port);
  settleAll(b);
  return b;
}

/** Steps of the machines that look at a port alone, before roles are selected. */
function hearingSteps(b: MstBridge, p: Port): number {
  let moves = 0;
  while (migrationStep(p)) moves++;
  while (edgeStep(p)) moves++;
  for (let t = 0; t < p.trees.length; t++) {
    const tp = p.trees[t]!;
    while (informationStep(b, tp)) moves++;
    if (tp.reselect) b.trees[t]!.asked = true;
  }
  return moves;
}

/** Steps of the machines that carry roles out; ports that wait for others look again where one moved. */
function actingSteps(b: MstBridge, p: Port): number {
  let all = 0;
  for (let t = 0; t < p.trees.length; t++) {
    const tp = p.trees[t]!;
    let moves = 0;
    while (roleTransitionsStep(b, tp)) moves++;
    while (stateTransitionStep(b, tp)) moves++;
    while (topologyChangeStep(b, tp)) moves++;
    if (moves === 0) continue;
    for (const other of b.trees[t]!.followers) wake(b, other.port);
    all += moves;
  }
  return all;
}

/**
 * Runs the machines of the ports that are awake, and of those that they wake, until nothing moves. Ports at which
 * nothing has changed since stay asleep: in a switch of many ports that is nearly all of them nearly always.
 */
function settle(b: MstBridge): void {
  if (!b.anyAwake) return;
  const { ports, trees, touched } = b;
  for (let step = 0; b.anyAwake; step++) {
    if (step > MOST_STEPS) throw new Error('settle: the machines of a bridge do not come to rest');
    const turn = b.awake;
    b.awake = b.turn;
    b.turn = turn;
    b.anyAwake = false;
    for (let i = 0; i < ports.length; i++) {
      if (!turn[i]) continue;
      touched[i] = true;
      const moves = hearingSteps(b, ports[i]!);
      if (moves > 0) wake(b, ports[i]!);
      b.moves += moves;
    }
    for (let t = 0; t < trees.length; t++) if (roleSelectionStep(b, t)) b.moves++;
    for (let i = 0; i < ports.length; i++) {
      if (!turn[i]) continue;
      turn[i] = false;
      const moves = actingSteps(b, ports[i]!);
      if (moves > 0) wake(b, ports[i]!);
      b.moves += moves;
    }
  }
  transmitTouched(b);
}

/** Nothing is sent before all else stands; and no other machine looks at what sending moves. */
function transmitTouched(b: MstBridge): void {
  const { ports, touched } = b;
  for (let i = 0; i < ports.length; i++) {
    if (!touched[i]) continue;
    touched[i] = false;
    while (transmitStep(b, ports[i]!)) continue;
  }
}

/** Has all machines run; where everything stands, nothing moves. */
export function settleAll(b: MstBridge): void {
  for (const p of b.ports) wake(b, p);
  settle(b);
}

/** What receiving can change of a tree at a port without any machine moving on. */
const tellings = (tp: TreePort): number =>
  (tp.agreed ? 1 : 0) |
  (tp.proposing ? 2 : 0) |
  (tp.proposed ? 4 : 0) |
  (tp.disputed ? 8 : 0) |
  (tp.mastered ? 16 : 0) |
  (tp.rcvdTc ? 32 : 0) |
  (tp.agree ? 64 : 0) |
  (tp.synced ? 128 : 0);

/** Takes in a BPDU that is the one before, octet for octet, where nothing moved since: only timers start again. */
function hearAgain(b: MstBridge, p: Port, { effects }: Repeated): void {
  for (const tp of p.trees) if (tp.rcvdInfo === 'RepeatedDesignated') updtRcvdInfoWhile(tp);
  p.edgeDelayWhile = MIGRATE_TIME;
  for (const effect of effects) b.effects.push(effect);
}

/** `tellings` of each tree before the BPDU that is taken in. */
const told: number[] = [];

/** A BPDU arrives at a port, as octets. */
export function hearBpdu(b: MstBridge, number: number, octets: Uint8Array): void {
  const p = b.byNumber[number];
  if (!p) return;
  const before = p.heardBefore;
  if (before && before.moves === b.moves && p.ppm === 'SENSING' && sameOctets(before.octets, octets))
    return hearAgain(b, p, before);
  for (let t = 0; t < p.trees.length; t++) told[t] = tellings(p.trees[t]!);
  const { moves } = b;
  const effects = b.effects.length;
  portReceive(b, p, octets);
  wake(b, p);
  settle(b);
  const heard = b.effects.slice(effects);
  // Each tree that took its message moved its machine once, and that is all.
  const still =
    b.moves === moves + heard.length &&
    heard.every((e) => e.kind === 'heard') &&
    p.trees.every((tp, i) => tellings(tp) === told[i]);
  if (still) b.moves = moves;
  p.heardBefore = still ? { octets, moves, effects: heard } : null;
}

/** One second passes. */
export function tickBridge(b: MstBridge): void {
  const { ports, touched } = b;
  let greets = false;
  for (let i = 0; i < ports.length; i++) {
    const p = ports[i]!;
    if (!p.portEnabled) continue;
    const due = tickPort(p);
    if (due === 'timer') wake(b, p);
    else if (due === 'hello') touched[i] = greets = true;
  }
  if (b.anyAwake) settle(b);
  else if (greets) transmitTouched(b);
}

/** Ports come into service, or leave it, all at once. */
export function setPortsEnabled(b: MstBridge, numbers: readonly number[], enabled: boolean): void {
  for (const number of numbers) {
    const p = b.byNumber[number];
    if (!p || p.portEnabled === enabled) continue;
    p.portEnabled = enabled;
    p.loopInconsistent = false;
    wake(b, p);
  }
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

/** Takes bridge priorities over. */
export function setPriorities(b: MstBridge, priorities: readonly number[]): void {
  b.trees.forEach((tree, i) => (tree.bridgePriority = priorities[i]!));
  b.settings = { ...b.settings, trees: b.settings.trees.map((t, i) => ({ ...t, priority: priorities[i]! })) };
  for (const p of b.ports)
    for (const tp of p.trees) {
      tp.reselect = true;
      tp.selected = false;
    }
  settleAll(b);
}
