/** What a bridge of classic spanning tree does with a BPDU that it receives (802.1D-1998 clause 8.7.1, 8.7.2). */
import type { StpBridge, StpPort, StpHeard } from './variables';
import type { Bpdu } from '../frames';
import { SECOND } from '../../standard';
import {
  portStateSelection,
  isRoot,
  supersedes,
  recordConfiguration,
  rootGuarded,
  configurationUpdate,
  transmitTcn,
  recordTimeouts,
  configBpduGeneration,
  isDesignated,
  transmitConfiguration,
  topologyChangeDetection,
  acknowledge,
} from './procedures';
import { FLAG, decodeBpdu } from '../frames';
import type { HeldVector } from '../../standard';

/** 8.7.1: a configuration BPDU arrives. */
function receivedConfig(b: StpBridge, p: StpPort, m: Bpdu): StpHeard {
  if (p.held) {
    // Whatever arrives shows that the neighbour can be heard again (loop guard).
    p.held = false;
    b.effects.push({ kind: 'state', port: p.number, tree: 0 });
    configurationUpdate(b);
    portStateSelection(b);
  }
  const wasRoot = isRoot(b);
  if (supersedes(b, p, m)) {
    const repeated =
      p.designatedBridgeMac === m.bridgeMac && p.designatedCost === m.rootPathCost && p.designatedRootMac === m.rootMac;
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
    return rootGuarded(b, p) ? 'ignored' : repeated ? 'repeated' : 'better';
  }
  if (!isDesignated(b, p)) return 'ignored';
  transmitConfiguration(b, p);
  return 'answered';
}

/** 8.7.2: a notification arrives. */
function receivedTcn(b: StpBridge, p: StpPort): StpHeard {
  if (!isDesignated(b, p)) return 'ignored';
  if (!p.tcGuard) topologyChangeDetection(b);
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
