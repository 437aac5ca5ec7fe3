/** What a switch does with a control frame that arrives: for one of its processes, passed on as data, or a port shut. */
import { receiveAgain, hearBpdu } from '../protocols/mst';
import { receiveLacp, refresh } from './build';
import { portsAround } from './carrier';
import { hear } from './engines';
import { hearKeepalive } from './keepalives';
import { receiveMismatched } from './inconsistent-ports';
import { drain, isInconsistent, noteReceived, passes } from './switch';
import { transmit } from './transmit';
import { addressTo, findReceivers, processFor } from './receiver';
import type { Frame } from './frame';
import type { BridgePort, Due, Node, World } from './network-state';
import { SECOND } from '../standard';

type FrameDue = Extract<Due, { kind: 'frame' }>;
type Sent = Pick<FrameDue, 'index' | 'serial'>;

/** Frames that are remembered as passed on: far more than are on their way at a time. */
const MOST_PASSED = 4096;

/** Whether a frame has come through a switch before: it circles, and what it can tell has been told. */
function passedBefore({ passed }: World, serial: number, node: Node): boolean {
  const by = passed.get(serial);
  if (by?.has(node)) return true;
  if (by) by.add(node);
  else {
    passed.set(serial, new Set([node]));
    if (passed.size > MOST_PASSED) passed.delete(passed.keys().next().value!);
  }
  return false;
}

/** A BPDU that the switch does not understand, or that it should not: on through all open ports of the VLAN. */
function passOn(w: World, into: BridgePort, frame: Frame, { index, serial }: Sent): void {
  const env = frame.opened;
  const vlan = env.named ?? env.vlan ?? 1;
  if (!passes(w, into, vlan) || passedBefore(w, serial, into.node)) return;
  for (const bp of into.node.ports.values())
    if (bp !== into && bp.active[0] !== undefined && passes(w, bp, vlan))
      transmit(w, bp.active[0], frame, index, serial);
}

/** Ports whose light can change with that of a bridge port. */
export const changedBy = (w: World, bp: BridgePort): string[] =>
  ('members' in bp.element ? bp.element.members : [bp.id]).flatMap((id) => portsAround(w, id));

const RECOVERY = { bpdu: 'guardRecovery', 'one-way': 'oneWayRecovery', storm: 'stormRecovery' } as const;

/**
 * Shuts a port: a BPDU was heard although none should be (BPDU guard), its link carries frames one way only, or more broadcast
 * arrives than its storm limit allows.
 */
export function shut(w: World, bp: BridgePort, guard: keyof typeof RECOVERY): void {
  const recovery = bp.node.plan.switch[RECOVERY[guard]];
  bp.shutUntil = recovery === undefined ? Infinity : w.now + recovery * SECOND;
  w.record.happened({
    kind: 'guard',
    at: w.now,
    port: bp.id,
    guard,
    until: recovery === undefined ? null : bp.shutUntil,
  });
  if (recovery !== undefined) w.queue.push(bp.shutUntil, { kind: 'recover', port: bp.id });
  refresh(w, changedBy(w, bp));
}

/** A control frame arrives. */
export function arrive(w: World, { copy, frame, index, serial }: FrameDue): void {
  const receiver = copy.physical?.takes;
  if (receiver && copy.receiver !== receiver) addressTo(w, copy, receiver, frame);
  const { process, bridge } = copy;
  if (receiver && copy.mismatched) return receiveMismatched(w, receiver.bp, copy, frame, index);
  if (receiver && process && receiver.bp.inconsistent && isInconsistent(receiver.bp, process))
    return w.record.heard(index, copy.to, w.now, 'inconsistent');
  if (!receiver || !process) return receive(w, copy.to, frame, { index, serial }, copy.from);
  const { payload } = frame;
  const arrival = { index, to: copy.to };
  const again = bridge && receiveAgain(bridge, copy.index, payload);
  if (again) {
    for (const effect of again.effects) if (effect.kind === 'heard') noteReceived(w, effect, arrival);
    return;
  }
  hear(process.engine, receiver.bp.number, payload, w.now);
  drain(w, process, arrival);
}

/** Looks at a frame in whole. */
function receive(w: World, to: string, frame: Frame, sent: Sent, from: string): void {
  const { index } = sent;
  if (to === 'host') return receiveLacp(w, to, from, frame.payload, index);
  if (to === 'intruder') {
    const intruder = w.intruders.get(from);
    if (!intruder) return;
    const env = frame.opened;
    if (env.kind === 'bpdu' || env.kind === 'vlan-bpdu') hearBpdu(intruder.bridge, 1, env.payload);
    intruder.bridge.effects.length = 0;
    return;
  }
  const physical = w.physical.get(to);
  if (!physical || !physical.carrier || !physical.node.on) return;
  const env = frame.opened;
  if (env.kind === 'lacpdu') return receiveLacp(w, to, from, env.payload, index);
  if (env.kind === 'oampdu') {
    w.record.heard(index, to, w.now, 'keepalive');
    if (hearKeepalive(w, to, env.payload)) shut(w, physical.own, 'one-way');
    return;
  }
  if (physical.held) return;
  const bp = physical.attached ?? physical.own;
  if (!bp.up) return;
  // A switch without trees per VLAN takes their BPDUs for data, which no guard looks at.
  if (env.kind === 'vlan-bpdu' && bp.node.processes[0]?.plan.vlan === null) return passOn(w, bp, frame, sent);
  if (bp.filter === 'always') return;
  if (bp.guard) {
    w.record.heard(index, to, w.now, 'guarded');
    return shut(w, bp, 'bpdu');
  }
  if (bp.filter === 'until-heard' && !bp.yielded) {
    bp.yielded = true;
    findReceivers(w, [bp.node]);
  }
  const { node } = bp;
  const process = node.treeOff ? null : processFor(w, bp, env);
  if (!process) {
    if (node.treeOff) passOn(w, bp, frame, sent);
    else if (env.named === 1) w.record.heard(index, to, w.now, 'again');
    return;
  }
  if (!process.members[bp.number]) return;
  hear(process.engine, bp.number, env.payload, w.now);
  drain(w, process, { index, to });
}
