/**
 * Ports that are inconsistent: the ends of a cable do not agree on what travels untagged, so that BPDUs come in
 * another VLAN than theirs. A switch with a tree per VLAN holds the port in both VLANs for as long as they do.
 */
import { decodeBpdu } from '../protocols/frames';
import { SECOND, TIMERS } from '../standard';
import type { Frame } from './frame';
import { holdPort } from '../protocols/mst';
import { contactSoon, drain, isInconsistent, note } from './switch';
import type { BridgePort, Copy, Due, Process, World } from './network-state';

/** Microseconds for which such a BPDU counts: as long as a bridge of the kind keeps what it heard. */
function lifetime({ engine }: Process, payload: Uint8Array): number {
  const bpdu = decodeBpdu(payload);
  const { helloTime, maxAge } =
    bpdu && bpdu.type !== 'notification'
      ? { helloTime: bpdu.helloTime / 256, maxAge: bpdu.maxAge / 256 }
      : { helloTime: TIMERS.helloTime.default, maxAge: TIMERS.maxAge.default };
  return (engine.kind === 'mst' ? 3 * helloTime : maxAge) * SECOND;
}

/** A BPDU of another VLAN has come. */
export function receiveMismatched(w: World, bp: BridgePort, copy: Copy, frame: Frame, index: number): void {
  w.record.heard(index, copy.to, w.now, 'stray');
  for (const vlan of copy.mismatched!) {
    const process = bp.node.byVlan.get(w.plan.representative.get(vlan) ?? vlan);
    if (!process?.members[bp.number]) continue;
    const run = process.plan.vlan!;
    const until = w.now + lifetime(process, frame.payload);
    const held = isInconsistent(bp, process);
    bp.inconsistent ??= new Map();
    bp.inconsistent.set(run, until);
    if (held) continue;
    w.queue.push(until, { kind: 'consistent', bp, vlan: run });
    turned(w, bp, run);
  }
}

function turned(w: World, bp: BridgePort, vlan: number): void {
  const process = bp.node.byVlan.get(vlan);
  if (process) {
    if (process.engine.kind === 'mst') holdPort(process.engine.bridge, bp.number, isInconsistent(bp, process));
    note(w, process, bp.number);
    drain(w, process);
  }
  w.changed.add(vlan);
  contactSoon(w, [bp.node]);
}

/** The time is over for which a port was to be held, unless there was reason again. */
export function becomeConsistent(w: World, due: Extract<Due, { kind: 'consistent' }>): void {
  const { bp, vlan } = due;
  const until = bp.inconsistent?.get(vlan);
  if (until === undefined || w.bridgePorts.get(bp.id) !== bp) return;
  if (until > w.now) return w.queue.push(until, due);
  bp.inconsistent!.delete(vlan);
  if (bp.inconsistent!.size === 0) bp.inconsistent = null;
  turned(w, bp, vlan);
}
