/**
 * A bridge of classic spanning tree (802.1D-1998 clause 8.7). Timers are moments, not ticks: the caller wakes the bridge
 * at the earliest of them. What it wants sent or known stands in its effects.
 */

import {
  becomeDesignated,
  becomeRoot,
  configurationUpdate,
  isDesignated,
  isRoot,
  portStateSelection,
  setState,
  transmitConfiguration,
} from './procedures';
import type { StpBridge, StpPort, StpPortSettings, StpSettings } from './variables';
import { SECOND } from '../../standard';

function newPort(s: StpPortSettings): StpPort {
  return {
    number: s.number,
    portId: s.portId,
    pathCost: s.pathCost,
    edge: s.edge,
    loopGuard: s.loopGuard ?? false,
    tcGuard: s.tcGuard ?? false,
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
  p.tcGuard = s.tcGuard ?? false;
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
