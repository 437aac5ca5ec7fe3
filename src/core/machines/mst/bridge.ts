/**
 * A bridge of rapid or multiple spanning tree: all its machines, run in the order of the standard until nothing moves.
 * It sends nothing itself: what it wants sent, flushed or known stands in its effects, which the caller takes.
 */
import { informationStep } from './information';
import { edgeStep, migrationStep, portReceive, tickPort, transmitStep } from './port-machines';
import { bridgeTimes, bridgeVector, roleSelectionStep } from './role-selection';
import { roleTransitionsStep } from './role-transitions';
import { stateTransitionStep } from './state-transition';
import { topologyChangeStep } from './topology-change';
import { MIGRATE_TIME, NO_VECTOR } from './variables';
import type { BridgeSettings, MstBridge, Port, PortSettings, TreePort } from './variables';

const MOST_STEPS = 100_000;

function newTreePort(b: MstBridge, port: Port, tree: number, settings: PortSettings): TreePort {
  const times = bridgeTimes(b);
  return {
    port,
    tree,
    portId: settings.portId[tree]!,
    externalPathCost: settings.externalCost,
    internalPathCost: settings.internalCost[tree]!,
    role: 'Disabled',
    selectedRole: 'Disabled',
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
    reselect: true,
    selected: false,
    updtInfo: false,
    disputed: false,
    master: false,
    mastered: false,
    infoIs: 'Disabled',
    rcvdInfo: 'Other',
    rcvdMsg: false,
    rcvdTc: false,
    tcProp: false,
    fdbFlush: false,
    msgPriority: NO_VECTOR,
    msgTimes: times,
    portPriority: NO_VECTOR,
    portTimes: times,
    designatedPriority: bridgeVector(b, tree),
    designatedTimes: times,
    msti: null,
    fdWhile: times.maxAge,
    rrWhile: times.forwardDelay,
    rbWhile: 0,
    rcvdInfoWhile: 0,
    tcWhile: 0,
    pim: 'DISABLED',
    prt: 'BLOCK',
    pst: 'DISCARDING',
    tcm: 'INACTIVE',
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
    number: settings.number,
    portEnabled: false,
    operPointToPointMAC: true,
    adminEdge: false,
    autoEdge: false,
    operEdge: settings.edge,
    restrictedRole: false,
    restrictedTcn: false,
    loopGuard: false,
    loopInconsistent: false,
    enableBPDUrx: true,
    enableBPDUtx: true,
    mcheck: false,
    sendRSTP: true,
    rcvdBpdu: false,
    rcvdRSTP: false,
    rcvdSTP: false,
    rcvdTcn: false,
    rcvdTcAck: false,
    tcAck: false,
    rcvdInternal: false,
    infoInternal: false,
    newInfo: true,
    newInfoMsti: false,
    bpdu: null,
    helloWhen: 0,
    mdelayWhile: MIGRATE_TIME,
    edgeDelayWhile: MIGRATE_TIME,
    txCount: 0,
    ppm: 'CHECKING_RSTP',
    bdm: settings.edge ? 'EDGE' : 'NOT_EDGE',
    trees: [],
  };
  applyPort(port, settings);
  b.trees.forEach((_, tree) => port.trees.push(newTreePort(b, port, tree, settings)));
  b.ports.push(port);
  b.byNumber.set(port.number, port);
  return port;
}

/** A bridge that has just started: every port disabled. */
export function createBridge(settings: BridgeSettings, ports: readonly PortSettings[]): MstBridge {
  const b: MstBridge = { settings, trees: [], ports: [], byNumber: new Map(), effects: [] };
  for (const { instance, priority } of settings.trees)
    b.trees.push({
      instance,
      bridgePriority: priority,
      rootPort: null,
      rootPriority: NO_VECTOR,
      rootTimes: bridgeTimes(b),
    });
  b.trees.forEach((tree, i) => (tree.rootPriority = bridgeVector(b, i)));
  for (const port of ports) addPort(b, port);
  return b;
}

/** Runs all machines until nothing moves. */
export function settle(b: MstBridge): void {
  const { ports } = b;
  const trees = b.trees.length;
  for (let step = 0; step < MOST_STEPS; step++) {
    let moved = false;
    for (let i = 0; i < ports.length; i++) {
      const p = ports[i]!;
      if (migrationStep(p)) moved = true;
      if (edgeStep(p)) moved = true;
      for (let t = 0; t < trees; t++) if (informationStep(b, p.trees[t]!)) moved = true;
    }
    for (let t = 0; t < trees; t++) if (roleSelectionStep(b, t)) moved = true;
    for (let i = 0; i < ports.length; i++) {
      const p = ports[i]!;
      for (let t = 0; t < trees; t++) {
        const tp = p.trees[t]!;
        while (roleTransitionsStep(b, tp)) moved = true;
        while (stateTransitionStep(b, tp)) moved = true;
        while (topologyChangeStep(b, tp)) moved = true;
      }
    }
    // Nothing is sent before all else stands.
    if (!moved) for (let i = 0; i < ports.length; i++) while (transmitStep(b, ports[i]!)) moved = true;
    if (!moved) return;
  }
  throw new Error('settle: the machines of a bridge do not come to rest');
}

/**
 * Runs the machines of one port; all of them as soon as one of its trees is to be chosen anew, or anything moved that
 * others look at. A repeated hello, and a second in which no timer runs out, move nothing else.
 */
function settleAt(b: MstBridge, p: Port): void {
  while (migrationStep(p) || edgeStep(p)) continue;
  for (const tp of p.trees) while (informationStep(b, tp)) if (tp.reselect) return settle(b);
  for (const tp of p.trees) {
    if (tp.reselect) return settle(b);
    if (roleTransitionsStep(b, tp) || stateTransitionStep(b, tp) || topologyChangeStep(b, tp)) return settle(b);
  }
  while (transmitStep(b, p)) continue;
}

/** A BPDU arrives at a port, as octets. */
export function hearBpdu(b: MstBridge, number: number, octets: Uint8Array): void {
  const p = b.byNumber.get(number);
  if (!p) return;
  portReceive(b, p, octets);
  settleAt(b, p);
}

/** One second passes. */
export function tickBridge(b: MstBridge): void {
  for (const p of b.ports) if (p.portEnabled) tickPort(p);
  for (const p of b.ports) if (p.portEnabled) settleAt(b, p);
}

export function setPortEnabled(b: MstBridge, number: number, enabled: boolean): void {
  const p = b.byNumber.get(number);
  if (!p || p.portEnabled === enabled) return;
  p.portEnabled = enabled;
  p.loopInconsistent = false;
  settle(b);
}

/** Takes settings of a port over that may change while it runs: cost, priority, edge, guards. */
export function setPort(b: MstBridge, s: PortSettings): void {
  const p = b.byNumber.get(s.number);
  if (!p) return;
  applyPort(p, s);
  p.trees.forEach((tp, tree) => {
    tp.portId = s.portId[tree]!;
    tp.externalPathCost = s.externalCost;
    tp.internalPathCost = s.internalCost[tree]!;
    tp.reselect = true;
    tp.selected = false;
  });
  settle(b);
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
  settle(b);
}
