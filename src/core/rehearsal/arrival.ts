/** What a switch does with a control frame that arrives: for one of its processes, passed on as data, or a port shut. */
import { openEnvelope } from '../frames';
import type { Envelope } from '../frames';
import { hearBpdu } from '../machines/mst';
import { hear } from './engines';
import { accessVlan, drain, passes, transmit } from './network';
import type { BridgePort, Frame, Process, World } from './world';
import { SECOND } from './world';

const open = (frame: Frame): Envelope => (frame.opened ??= openEnvelope(frame.octets));

/**
 * The process that a BPDU is for; null where the switch takes it for data. An untagged one is VLAN 1's, or that of the
 * access port it comes in at.
 */
function processFor(w: World, bp: BridgePort, env: Envelope): Process | null {
  const { node } = bp;
  if (env.kind === 'bpdu') {
    const own = accessVlan(bp) || 1;
    return node.byVlan.get(0) ?? node.byVlan.get(w.plan.representative.get(own) ?? own) ?? null;
  }
  return node.byVlan.get(env.named!) ?? null;
}

/** A BPDU that the switch does not understand, or that it should not: on through all open ports of the VLAN. */
function passOn(w: World, into: BridgePort, env: Envelope, frame: Frame, index: number): void {
  const vlan = env.named ?? env.vlan ?? 1;
  if (!passes(w, into, vlan)) return;
  for (const bp of into.node.ports.values())
    if (bp !== into && bp.active[0] !== undefined && passes(w, bp, vlan)) transmit(w, bp.active[0], frame, index);
}

/** Shuts a port on which a BPDU was heard although none should be (BPDU guard). */
function shut(w: World, bp: BridgePort): void {
  const recovery = bp.node.plan.switch.guardRecovery;
  bp.shutUntil = recovery === undefined ? Infinity : w.now + recovery * SECOND;
  w.record.happened({
    kind: 'guard',
    at: w.now,
    port: bp.id,
    guard: 'bpdu',
    until: recovery === undefined ? null : bp.shutUntil,
  });
  if (recovery !== undefined) w.queue.push(bp.shutUntil, { kind: 'recover', port: bp.id });
  w.refresh();
}

/** A control frame arrives at a physical port. */
export function receive(w: World, to: string, frame: Frame, index: number, from: string): void {
  if (to === 'host') return w.hearLacp(to, from, open(frame).payload, index);
  if (to === 'intruder') {
    const intruder = w.intruders.get(from);
    if (!intruder) return;
    const env = open(frame);
    if (env.kind === 'bpdu' || env.kind === 'vlan-bpdu') hearBpdu(intruder.bridge, 1, env.payload);
    intruder.bridge.effects.length = 0;
    return;
  }
  const physical = w.physical.get(to);
  if (!physical || !physical.carrier || !physical.node.on) return;
  const env = open(frame);
  if (env.kind === 'lacpdu') return w.hearLacp(to, from, env.payload, index);
  if (physical.held) return;
  const bp = physical.attached ?? physical.own;
  if (!bp.up || bp.element.bpduFilter) return;
  if (bp.element.bpduGuard) {
    w.record.heard(index, to, w.now, 'guarded');
    return shut(w, bp);
  }
  const { node } = bp;
  const process = node.treeOff ? null : processFor(w, bp, env);
  if (!process) {
    // Only BPDUs of single VLANs, and those that reach a switch without spanning tree, travel as data.
    if (env.kind === 'vlan-bpdu' ? node.treeOff || node.processes[0]?.plan.vlan === null : node.treeOff)
      passOn(w, bp, env, frame, index);
    return;
  }
  if (!process.members[bp.number]) return;
  hear(process.engine, bp.number, env.payload, w.now);
  drain(w, process, index, to);
}
