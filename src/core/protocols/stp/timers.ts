/** Timers of a bridge of classic spanning tree, as moments: what runs out next, and what happens then (802.1D-1998 clause 8.7). */
import type { StpBridge, StpPort } from './variables';
import {
  transmitConfiguration,
  isRoot,
  configBpduGeneration,
  transmitTcn,
  becomeDesignated,
  configurationUpdate,
  portStateSelection,
  becomeRoot,
  setState,
  topologyChangeDetection,
} from './procedures';
import { SECOND } from '../../standard';

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
  if (p.loopGuard) {
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
