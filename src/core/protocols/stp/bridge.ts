/**
 * A bridge of classic spanning tree (802.1D-1998 clause 8.7). Timers are moments, not ticks: the caller wakes the bridge
 * at the earliest of them. What it wants sent or known stands in its effects.
 */
import { FLAG, decodeBpdu } from '../frames';
import type { Bpdu } from '../frames';
import {
  acknowledge,
  becomeDesignated,
  becomeRoot,
  configBpduGeneration,
  configurationUpdate,
  isDesignated,
  isRoot,
  portStateSelection,
  recordConfiguration,
  recordTimeouts,
  setState,
  supersedes,
  topologyChangeDetection,
  transmitConfiguration,
  transmitTcn,
} from './procedures';
import type { HeldVector } from '../../standard';
import type { StpBridge, StpHeard, StpPort, StpPortSettings, StpSettings } from './variables';
import { OCTET_SECONDS, SECOND } from '../../standard';

function newPort(s: StpPortSettings): StpPort {
  return {
    number: s.number,
    portId: s.portId,
    pathCost: s.pathCost,
    edge: s.edge,
    loopGuard: s.loopGuard ?? false,
    rootGuard: s.rootGuard ?? false,
    held: false,
    state: 'disabled',
    role: 'disabled',
    designatedRootPriority: 0,
    designatedRootMac: 0,
    designatedCost: 0,
    designatedBridgePriority: 0,
    designatedBridgeMac: 0,
    designatedPort: 0,
    topologyChangeAcknowledge: false,
    configPending: false,
    messageAgeTimer: null,
    messageAge: 0,
    messageAt: 0,
    forwardDelayTimer: null,
    holdTimer: null,
  };
}

/** 8.8.1: a bridge that has just started, every port disabled. */
export function createStpBridge(settings: StpSettings, ports: readonly StpPortSettings[], now: number): StpBridge {
  const b: StpBridge = {
    settings,
    ports: [],
    byNumber: [],
    effects: [],
    designatedRootPriority: settings.priority,
    designatedRootMac: settings.mac,
    rootPathCost: 0,
    rootPort: null,
    maxAge: settings.maxAge,
    helloTime: settings.helloTime,
    forwardDelay: settings.forwardDelay,
    topologyChangeDetected: false,
    topologyChange: false,
    helloTimer: now + settings.helloTime * SECOND,
    tcnTimer: null,
    topologyChangeTimer: null,
    now,
  };
  for (const port of ports) addStpPort(b, port);
  return b;
}

export function addStpPort(b: StpBridge, settings: StpPortSettings): void {
  const port = newPort(settings);
  b.ports.push(port);
  b.byNumber[port.number] = port;
}

/** 8.8.2 and 8.8.3: a port comes into service or leaves it. */
export function setStpPortEnabled(b: StpBridge, number: number, on: boolean, now: number): void {
  b.now = now;
  const p = b.byNumber[number];
  if (!p || on === (p.state !== 'disabled')) return;
  if (on) {
    becomeDesignated(b, p);
    p.state = 'blocking';
    p.messageAgeTimer = p.forwardDelayTimer = p.holdTimer = null;
    p.topologyChangeAcknowledge = p.configPending = false;
    b.effects.push({ kind: 'state', port: number, tree: 0 });
    portStateSelection(b);
    // No one on the LAN has been told anything yet.
    if (isDesignated(b, p)) transmitConfiguration(b, p);
    return;
  }
  const wasRoot = isRoot(b);
  becomeDesignated(b, p);
  setState(b, p, 'disabled');
  p.role = 'disabled';
  p.topologyChangeAcknowledge = p.configPending = false;
  p.messageAgeTimer = p.forwardDelayTimer = p.holdTimer = null;
  p.held = false;
  configurationUpdate(b);
  portStateSelection(b);
  if (isRoot(b) && !wasRoot) becomeRoot(b);
}

/** Whether a guarded port hears of a better root than the bridge knows: it is held while such messages last. */
function claimsRoot(b: StpBridge, p: StpPort, m: Bpdu): boolean {
  const order = m.rootPriority - b.designatedRootPriority || m.rootMac - b.designatedRootMac;
  return p.rootGuard && order < 0;
}

function hold(b: StpBridge, p: StpPort, m: Bpdu): void {
  p.messageAgeTimer = b.now + (m.maxAge / OCTET_SECONDS) * SECOND;
  if (p.held) return;
  p.held = true;
  b.effects.push({ kind: 'state', port: p.number, tree: 0 });
  portStateSelection(b);
}

/** 8.7.1: a configuration BPDU arrives. */
function receivedConfig(b: StpBridge, p: StpPort, m: Bpdu): StpHeard {
  if (claimsRoot(b, p, m)) {
    hold(b, p, m);
    return 'ignored';
  }
  const wasRoot = isRoot(b);
  if (supersedes(b, p, m)) {
    const repeated =
      p.designatedBridgeMac === m.bridgeMac && p.designatedCost === m.rootPathCost && p.designatedRootMac === m.rootMac;
    p.held = false;
    recordConfiguration(b, p, m);
    configurationUpdate(b);
    portStateSelection(b);
    if (!isRoot(b) && wasRoot) {
      b.helloTimer = null;
      if (b.topologyChangeDetected) {
        b.topologyChangeTimer = null;
        transmitTcn(b);
        b.tcnTimer = b.now + b.settings.helloTime * SECOND;
      }
    }
    if (p === b.rootPort) {
      const told = b.topologyChange;
      recordTimeouts(b, m);
      if (told !== b.topologyChange) b.effects.push({ kind: 'ageing', short: b.topologyChange });
      configBpduGeneration(b);
      if (m.flags & FLAG.acknowledgement) {
        b.topologyChangeDetected = false;
        b.tcnTimer = null;
      }
    }
    return repeated ? 'repeated' : 'better';
  }
  if (!isDesignated(b, p)) return 'ignored';
  transmitConfiguration(b, p);
  return 'answered';
}

/** 8.7.2: a notification arrives. */
function receivedTcn(b: StpBridge, p: StpPort): StpHeard {
  if (!isDesignated(b, p)) return 'ignored';
  topologyChangeDetection(b);
  acknowledge(b, p);
  return 'notification';
}

/** What a port holds, as a vector; there are no regions, so the designated bridge stands for its own. */
function heldBy(b: StpBridge, p: StpPort): HeldVector {
  return {
    whose: isDesignated(b, p) ? 'Mine' : 'Received',
    vector: {
      rootPriority: p.designatedRootPriority,
      rootMac: p.designatedRootMac,
      externalCost: p.designatedCost,
      regionalPriority: p.designatedBridgePriority,
      regionalMac: p.designatedBridgeMac,
      internalCost: 0,
      bridgePriority: p.designatedBridgePriority,
      bridgeMac: p.designatedBridgeMac,
      port: p.designatedPort,
    },
  };
}

/** A BPDU arrives at a port, as octets. One of the rapid protocol is taken for a configuration BPDU's better (9.3.4). */
export function hearStpBpdu(b: StpBridge, number: number, octets: Uint8Array, now: number): void {
  b.now = now;
  const p = b.byNumber[number];
  const m = decodeBpdu(octets);
  // Classic bridges know versions by their type: what is neither of its two types is dropped.
  if (!p || p.state === 'disabled' || !m || (m.type !== 'config' && m.type !== 'notification')) return;
  const held = m.type === 'config' ? heldBy(b, p) : null;
  const info = m.type === 'notification' ? receivedTcn(b, p) : receivedConfig(b, p, m);
  b.effects.push({ kind: 'heard', port: number, tree: 0, info, held: info === 'repeated' ? null : held });
}

/** 8.7.3 hello, 8.7.4 message age, 8.7.5 forward delay, 8.7.6 notification, 8.7.7 topology change, 8.7.8 hold. */
export function wakeStpBridge(b: StpBridge, now: number): void {
  b.now = now;
  for (const p of b.ports) {
    if (p.messageAgeTimer !== null && p.messageAgeTimer <= now) messageAgeExpired(b, p);
    if (p.forwardDelayTimer !== null && p.forwardDelayTimer <= now) forwardDelayExpired(b, p);
    if (p.holdTimer !== null && p.holdTimer <= now) {
      p.holdTimer = null;
      if (p.configPending) transmitConfiguration(b, p);
    }
  }
  if (b.helloTimer !== null && b.helloTimer <= now) {
    b.helloTimer = isRoot(b) ? now + b.helloTime * SECOND : null;
    if (isRoot(b)) configBpduGeneration(b);
  }
  if (b.tcnTimer !== null && b.tcnTimer <= now) {
    transmitTcn(b);
    b.tcnTimer = now + b.settings.helloTime * SECOND;
  }
  if (b.topologyChangeTimer !== null && b.topologyChangeTimer <= now) {
    b.topologyChangeTimer = null;
    b.topologyChangeDetected = b.topologyChange = false;
    b.effects.push({ kind: 'ageing', short: false });
  }
}

function messageAgeExpired(b: StpBridge, p: StpPort): void {
  p.messageAgeTimer = null;
  const wasRoot = isRoot(b);
  if (p.rootGuard && p.held) {
    p.held = false;
    b.effects.push({ kind: 'state', port: p.number, tree: 0 });
  } else if (p.loopGuard) {
    p.held = true;
    b.effects.push({ kind: 'state', port: p.number, tree: 0 });
  } else becomeDesignated(b, p);
  configurationUpdate(b);
  portStateSelection(b);
  if (isRoot(b) && !wasRoot) becomeRoot(b);
}

function forwardDelayExpired(b: StpBridge, p: StpPort): void {
  p.forwardDelayTimer = null;
  if (p.state === 'listening') {
    setState(b, p, 'learning');
    p.forwardDelayTimer = b.now + b.forwardDelay * SECOND;
  } else if (p.state === 'learning') {
    setState(b, p, 'forwarding');
    if (!p.edge) topologyChangeDetection(b);
  }
}

/** Takes cost, priority and edge of a port over (8.8.5, 8.8.6). */
export function setStpPort(b: StpBridge, s: StpPortSettings, now: number): void {
  b.now = now;
  const p = b.byNumber[s.number];
  if (!p) return;
  if (isDesignated(b, p)) p.designatedPort = s.portId;
  p.portId = s.portId;
  p.pathCost = s.pathCost;
  p.edge = s.edge;
  p.loopGuard = s.loopGuard ?? false;
  p.rootGuard = s.rootGuard ?? false;
  configurationUpdate(b);
  portStateSelection(b);
}

/** Takes a bridge priority over (8.8.4). */
export function setStpPriority(b: StpBridge, priority: number, now: number): void {
  b.now = now;
  const wasRoot = isRoot(b);
  const designated = b.ports.filter((p) => isDesignated(b, p));
  b.settings = { ...b.settings, priority };
  for (const p of designated) p.designatedBridgePriority = priority;
  configurationUpdate(b);
  portStateSelection(b);
  if (isRoot(b) && !wasRoot) becomeRoot(b);
}

/** Takes timers over: they are in force at once in the tree of which the bridge is root. */
export function setStpTimers(b: StpBridge, timers: Pick<StpSettings, 'helloTime' | 'maxAge' | 'forwardDelay'>): void {
  b.settings = { ...b.settings, ...timers };
  if (!isRoot(b)) return;
  b.maxAge = timers.maxAge;
  b.helloTime = timers.helloTime;
  b.forwardDelay = timers.forwardDelay;
}

/** The earliest moment at which a timer runs out; null when none runs. */
export function nextStpTimer(b: StpBridge): number | null {
  let next = Infinity;
  const consider = (t: number | null) => {
    if (t !== null && t < next) next = t;
  };
  consider(b.helloTimer);
  consider(b.tcnTimer);
  consider(b.topologyChangeTimer);
  for (const p of b.ports) {
    consider(p.messageAgeTimer);
    consider(p.forwardDelayTimer);
    consider(p.holdTimer);
  }
  return next === Infinity ? null : next;
}
