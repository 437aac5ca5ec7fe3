/** Machines that a port has once for all trees: receive, protocol migration, edge detection, transmit, timers. */
import { decodeBpdu } from '../../frames';
import { fromSameRegion, rcvMsgs, txConfig, txRstp, txTcn } from './procedures';
import { MIGRATE_TIME } from './variables';
import type { MstBridge, Port, TreePort } from './variables';

/** Port receive machine (802.1Q-2018 13.31; 802.1D-2004 17.23): a BPDU as octets. */
export function portReceive(b: MstBridge, p: Port, octets: Uint8Array): void {
  const bpdu = decodeBpdu(octets);
  if (!bpdu || !p.portEnabled || !p.enableBPDUrx) return;
  p.bpdu = bpdu;
  // updtBPDUVersion
  if (bpdu.type === 'config' || bpdu.type === 'notification') p.rcvdSTP = true;
  else p.rcvdRSTP = true;
  p.rcvdInternal = fromSameRegion(b, bpdu);
  rcvMsgs(b, p, bpdu);
  p.operEdge = false;
  p.edgeDelayWhile = MIGRATE_TIME;
}

/** Port protocol migration machine (13.32; 17.24). */
export function migrationStep(p: Port): boolean {
  switch (p.ppm) {
    case 'CHECKING_RSTP':
      if (p.mdelayWhile !== MIGRATE_TIME && !p.portEnabled) {
        check(p);
        return true;
      }
      if (p.mdelayWhile !== 0) return false;
      break;
    case 'SELECTING_STP':
      if (p.mdelayWhile !== 0 && p.portEnabled && !p.mcheck) return false;
      break;
    case 'SENSING':
      if (!p.portEnabled || p.mcheck || (!p.sendRSTP && p.rcvdRSTP)) {
        check(p);
        return true;
      }
      if (!p.sendRSTP || !p.rcvdSTP) return false;
      p.sendRSTP = false;
      p.mdelayWhile = MIGRATE_TIME;
      p.ppm = 'SELECTING_STP';
      for (const tp of p.trees) tp.reselect = true;
      return true;
  }
  p.rcvdRSTP = p.rcvdSTP = false;
  p.ppm = 'SENSING';
  return true;
}

function check(p: Port): void {
  p.mcheck = false;
  if (!p.sendRSTP) for (const tp of p.trees) tp.reselect = true;
  p.sendRSTP = true;
  p.mdelayWhile = MIGRATE_TIME;
  p.rcvdRSTP = p.rcvdSTP = false;
  p.ppm = 'CHECKING_RSTP';
}

/** Bridge detection machine (13.33; 17.25): whether nobody but end devices is there. */
export function edgeStep(p: Port): boolean {
  if (p.bdm === 'EDGE') {
    if (((p.portEnabled && p.autoEdge) || p.adminEdge) && p.operEdge) return false;
    p.operEdge = false;
    p.bdm = 'NOT_EDGE';
    return true;
  }
  const quiet = p.edgeDelayWhile === 0 && p.autoEdge && p.sendRSTP && p.trees[0]!.proposing;
  if (!(!p.portEnabled && p.adminEdge) && !quiet) return false;
  p.operEdge = true;
  p.bdm = 'EDGE';
  return true;
}

/** Port transmit machine (13.34; 17.26). */
export function transmitStep(b: MstBridge, p: Port): boolean {
  if (!p.portEnabled || !p.enableBPDUtx) {
    if (p.txCount === 0 && p.helloWhen === 0 && p.newInfo) return false;
    p.txCount = 0;
    p.helloWhen = 0;
    p.newInfo = true;
    return true;
  }
  const cist = p.trees[0]!;
  for (const tp of p.trees) if (!tp.selected || tp.updtInfo) return false;
  if (p.helloWhen === 0) {
    // TRANSMIT_PERIODIC
    p.newInfo ||= cist.role === 'Designated' || (cist.role === 'Root' && cist.tcWhile !== 0);
    for (let t = 1; t < p.trees.length; t++) {
      const tp = p.trees[t]!;
      p.newInfoMsti ||= tp.role === 'Designated' || (tp.role === 'Root' && tp.tcWhile !== 0);
    }
    p.helloWhen = cist.designatedTimes.helloTime;
    return true;
  }
  if (p.txCount >= b.settings.timers.holdCount) return false;
  if (p.sendRSTP) {
    if (!p.newInfo && !(p.newInfoMsti && !p.trees.some((tp) => tp.role === 'Master'))) return false;
    p.newInfo = p.newInfoMsti = false;
    txRstp(b, p);
  } else {
    if (!p.newInfo) return false;
    p.newInfo = p.newInfoMsti = false;
    if (cist.role === 'Designated') txConfig(b, p);
    else if (cist.role === 'Root' && cist.tcWhile !== 0) txTcn(b, p);
    else return true;
  }
  p.txCount++;
  p.tcAck = false;
  return true;
}

/**
 * Port timers machine (13.30; 17.22): one second passes. Whether a timer ran out, or no more than a BPDU is due or may
 * go that was held back: every condition of the machines asks of a timer only whether it is zero.
 */
export function tickPort(p: Port): 'timer' | 'hello' | null {
  let timer = p.mdelayWhile === 1 || p.edgeDelayWhile === 1;
  let hello = p.helloWhen === 1;
  if (p.helloWhen > 0) p.helloWhen--;
  if (p.mdelayWhile > 0) p.mdelayWhile--;
  if (p.edgeDelayWhile > 0) p.edgeDelayWhile--;
  if (p.txCount > 0) {
    p.txCount--;
    hello ||= p.newInfo || p.newInfoMsti;
  }
  for (let t = 0; t < p.trees.length; t++) if (tickTree(p.trees[t]!)) timer = true;
  return timer ? 'timer' : hello ? 'hello' : null;
}

function tickTree(tp: TreePort): boolean {
  const due = tp.tcWhile === 1 || tp.fdWhile === 1 || tp.rcvdInfoWhile === 1 || tp.rrWhile === 1 || tp.rbWhile === 1;
  if (tp.tcWhile > 0) {
    tp.tcWhile--;
    // The flag that it sets goes with its last second.
    if (tp.tcWhile === 0) tp.port.sentBefore = null;
  }
  if (tp.rcvdInfoWhile > 0) tp.rcvdInfoWhile--;
  // What a role starts again at once while it lasts (ROOT_PORT, ALTERNATE_PORT, BACKUP_PORT) stands still.
  const { role } = tp;
  const blocked = role === 'Alternate' || role === 'Backup';
  if (tp.rrWhile > 0 && role !== 'Root') tp.rrWhile--;
  if (tp.fdWhile > 0 && !blocked) tp.fdWhile--;
  if (tp.rbWhile > 0 && role !== 'Backup') tp.rbWhile--;
  return due;
}
