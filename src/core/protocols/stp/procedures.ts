/** Elements of procedure of classic spanning tree, named and numbered as in 802.1D-1998 clause 8.6. */
import { FLAG, NOTIFICATION, encodeBpdu } from '../frames';
import type { Bpdu } from '../frames';
import type { StpBridge, StpPort, StpSettings, StpState } from './variables';
import { OCTET_SECONDS, SECOND } from '../../standard';

/** Seconds between two configuration BPDUs of a port at least (8.5.1.10). */
const HOLD_TIME = 1;
/** What a bridge adds to the age of a message (8.10.2), in seconds. */
const ageIncrement = ({ finelyAged }: StpSettings): number => (finelyAged ? 1 / OCTET_SECONDS : 1);

export const isRoot = (b: StpBridge): boolean =>
  b.designatedRootMac === b.settings.mac && b.designatedRootPriority === b.settings.priority;

export const isDesignated = (b: StpBridge, p: StpPort): boolean =>
  p.designatedBridgeMac === b.settings.mac &&
  p.designatedBridgePriority === b.settings.priority &&
  p.designatedPort === p.portId;

export const enabled = (b: StpBridge): StpPort[] => b.ports.filter((p) => p.state !== 'disabled');

export function setState(b: StpBridge, p: StpPort, state: StpState): void {
  if (p.state === state) return;
  p.state = state;
  b.effects.push({ kind: 'state', port: p.number, tree: 0 });
}

/** 8.6.1 */
export function transmitConfiguration(b: StpBridge, p: StpPort): void {
  if (p.holdTimer !== null) return void (p.configPending = true);
  const { rootPort } = b;
  const age =
    isRoot(b) || !rootPort ? 0 : rootPort.messageAge + (b.now - rootPort.messageAt) / SECOND + ageIncrement(b.settings);
  if (age >= b.maxAge) return;
  const octets = encodeBpdu({
    type: 'config',
    flags: (p.topologyChangeAcknowledge ? FLAG.acknowledgement : 0) | (b.topologyChange ? FLAG.topologyChange : 0),
    rootPriority: b.designatedRootPriority,
    rootMac: b.designatedRootMac,
    rootPathCost: b.rootPathCost,
    bridgePriority: b.settings.priority,
    bridgeMac: b.settings.mac,
    port: p.portId,
    messageAge: Math.round(age * OCTET_SECONDS),
    maxAge: b.maxAge * OCTET_SECONDS,
    helloTime: b.helloTime * OCTET_SECONDS,
    forwardDelay: b.forwardDelay * OCTET_SECONDS,
  });
  p.topologyChangeAcknowledge = false;
  p.configPending = false;
  b.effects.push({ kind: 'send', port: p.number, octets });
  p.holdTimer = b.now + HOLD_TIME * SECOND;
}

/** 8.6.4 */
export function configBpduGeneration(b: StpBridge): void {
  for (const p of enabled(b)) if (isDesignated(b, p)) transmitConfiguration(b, p);
}

/** 8.6.2.2: whether a message takes the place of what a port holds. */
export function supersedes(b: StpBridge, p: StpPort, m: Bpdu): boolean {
  const order =
    m.rootPriority - p.designatedRootPriority ||
    m.rootMac - p.designatedRootMac ||
    m.rootPathCost - p.designatedCost ||
    m.bridgePriority - p.designatedBridgePriority ||
    m.bridgeMac - p.designatedBridgeMac;
  if (order !== 0) return order < 0;
  // From the designated bridge itself: always, unless that is this one with a worse port.
  return m.bridgeMac !== b.settings.mac || m.port <= p.designatedPort;
}

/** 8.6.2 and 8.6.3 */
export function recordConfiguration(b: StpBridge, p: StpPort, m: Bpdu): void {
  p.designatedRootPriority = m.rootPriority;
  p.designatedRootMac = m.rootMac;
  p.designatedCost = m.rootPathCost;
  p.designatedBridgePriority = m.bridgePriority;
  p.designatedBridgeMac = m.bridgeMac;
  p.designatedPort = m.port;
  p.messageAge = m.messageAge / OCTET_SECONDS;
  p.messageAt = b.now;
  p.messageAgeTimer = b.now + Math.max(0, m.maxAge / OCTET_SECONDS - p.messageAge) * SECOND;
}

/** 8.6.3: the root's times hold for all. */
export function recordTimeouts(b: StpBridge, m: Bpdu): void {
  b.maxAge = m.maxAge / OCTET_SECONDS;
  b.helloTime = Math.max(1, m.helloTime / OCTET_SECONDS);
  b.forwardDelay = m.forwardDelay / OCTET_SECONDS;
  b.topologyChange = (m.flags & FLAG.topologyChange) !== 0;
}

/** 8.6.6 */
export function transmitTcn(b: StpBridge): void {
  if (b.rootPort) b.effects.push({ kind: 'send', port: b.rootPort.number, octets: encodeBpdu(NOTIFICATION) });
}

/** Where a port would lead to: what it holds, with its cost. */
function compareRootCandidates(x: StpPort, y: StpPort): number {
  return (
    x.designatedRootPriority - y.designatedRootPriority ||
    x.designatedRootMac - y.designatedRootMac ||
    x.designatedCost + x.pathCost - (y.designatedCost + y.pathCost) ||
    x.designatedBridgePriority - y.designatedBridgePriority ||
    x.designatedBridgeMac - y.designatedBridgeMac ||
    x.designatedPort - y.designatedPort ||
    x.portId - y.portId
  );
}

/** 8.6.8 */
export function rootSelection(b: StpBridge): void {
  const { priority, mac } = b.settings;
  let best: StpPort | null = null;
  for (const p of enabled(b)) {
    // A port with root guard never becomes root port.
    if (isDesignated(b, p) || p.held || p.rootGuard) continue;
    const worseThanOwn = p.designatedRootPriority - priority || p.designatedRootMac - mac;
    if (worseThanOwn >= 0) continue;
    if (!best || compareRootCandidates(p, best) < 0) best = p;
  }
  b.rootPort = best;
  b.designatedRootPriority = best?.designatedRootPriority ?? priority;
  b.designatedRootMac = best?.designatedRootMac ?? mac;
  b.rootPathCost = best ? best.designatedCost + best.pathCost : 0;
}

/** 8.6.13 */
export function becomeDesignated(b: StpBridge, p: StpPort): void {
  p.designatedRootPriority = b.designatedRootPriority;
  p.designatedRootMac = b.designatedRootMac;
  p.designatedCost = b.rootPathCost;
  p.designatedBridgePriority = b.settings.priority;
  p.designatedBridgeMac = b.settings.mac;
  p.designatedPort = p.portId;
}

/**
 * Whether a port holds a better root than the bridge has, and may not take it: it stays blocked while such messages
 * last (root guard; the classic standard has none, so that it is that of 802.1Q-2018 clause 13.27.64).
 */
export function rootGuarded(b: StpBridge, p: StpPort): boolean {
  const order = p.designatedRootPriority - b.designatedRootPriority || p.designatedRootMac - b.designatedRootMac;
  return p.rootGuard && p.state !== 'disabled' && !isDesignated(b, p) && order < 0;
}

/** 8.6.9 */
export function designatedPortSelection(b: StpBridge): void {
  const { priority, mac } = b.settings;
  for (const p of enabled(b)) {
    if (p.held || rootGuarded(b, p)) continue;
    const sameRoot =
      p.designatedRootPriority === b.designatedRootPriority && p.designatedRootMac === b.designatedRootMac;
    const order =
      b.rootPathCost - p.designatedCost ||
      priority - p.designatedBridgePriority ||
      mac - p.designatedBridgeMac ||
      p.portId - p.designatedPort;
    if (isDesignated(b, p) || !sameRoot || order < 0) {
      if (p.messageAgeTimer !== null && (!sameRoot || order < 0)) p.messageAgeTimer = null;
      becomeDesignated(b, p);
    }
  }
}

/** 8.6.7 */
export function configurationUpdate(b: StpBridge): void {
  rootSelection(b);
  designatedPortSelection(b);
}

/** 8.6.12 */
function makeForwarding(b: StpBridge, p: StpPort): void {
  if (p.state !== 'blocking') return;
  if (p.edge && p.role === 'designated') {
    setState(b, p, 'forwarding');
    return;
  }
  setState(b, p, 'listening');
  p.forwardDelayTimer = b.now + b.forwardDelay * SECOND;
}

/** 8.6.14 */
function makeBlocking(b: StpBridge, p: StpPort): void {
  if (p.state === 'disabled' || p.state === 'blocking') return;
  if (p.state === 'forwarding' || p.state === 'learning') topologyChangeDetection(b);
  setState(b, p, 'blocking');
  p.forwardDelayTimer = null;
}

/** 8.6.11 */
export function portStateSelection(b: StpBridge): void {
  for (const p of enabled(b)) {
    const before = p.role;
    p.role = p === b.rootPort ? 'root' : isDesignated(b, p) && !p.held ? 'designated' : 'blocked';
    if (p.role !== before) b.effects.push({ kind: 'state', port: p.number, tree: 0 });
    if (p.role === 'blocked') {
      p.configPending = false;
      p.topologyChangeAcknowledge = false;
      makeBlocking(b, p);
    } else {
      if (p.role === 'root') {
        p.configPending = false;
        p.topologyChangeAcknowledge = false;
      } else p.messageAgeTimer = null;
      makeForwarding(b, p);
    }
  }
}

/** 8.6.14: the root signals the change at once, other switches notify the root. */
export function topologyChangeDetection(b: StpBridge): void {
  if (isRoot(b)) {
    b.topologyChange = true;
    b.topologyChangeTimer = b.now + (b.settings.maxAge + b.settings.forwardDelay) * SECOND;
    b.effects.push({ kind: 'ageing', short: true });
  } else if (!b.topologyChangeDetected && b.ports.some((p) => p.role === 'designated')) {
    transmitTcn(b);
    b.tcnTimer = b.now + b.settings.helloTime * SECOND;
    b.topologyChangeDetected = true;
  } else if (!b.topologyChangeDetected) return;
  else b.topologyChangeDetected = true;
}

/** A bridge that makes itself root: its own times, and it starts to say hello. */
export function becomeRoot(b: StpBridge): void {
  b.maxAge = b.settings.maxAge;
  b.helloTime = b.settings.helloTime;
  b.forwardDelay = b.settings.forwardDelay;
  topologyChangeDetection(b);
  b.tcnTimer = null;
  configBpduGeneration(b);
  b.helloTimer = b.now + b.helloTime * SECOND;
}

/** 8.6.16: acknowledges a notification. */
export function acknowledge(b: StpBridge, p: StpPort): void {
  p.topologyChangeAcknowledge = true;
  transmitConfiguration(b, p);
}
