/** Port information machine (802.1Q-2018 13.35; 802.1D-2004 17.27): what the port holds, and what it makes of a message. */
import {
  betterOrSame,
  rcvInfo,
  recordAgreement,
  recordDispute,
  recordMastered,
  recordProposal,
  setNewInfo,
  sameWay,
  setTcFlags,
  updtRcvdInfoWhile,
} from './procedures';
import { receivedEffect } from './repeated-messages';
import { compareVectors } from '../../standard';
import type { Vector } from '../../standard';
import type { MstBridge, TreePort } from './variables';

function reselect(tp: TreePort): void {
  tp.reselect = true;
  tp.selected = false;
}

function disable(tp: TreePort): void {
  tp.rcvdMsg = tp.proposing = tp.proposed = tp.agree = tp.agreed = false;
  tp.rcvdInfoWhile = 0;
  tp.infoIs = 'Disabled';
  reselect(tp);
  tp.pim = 'DISABLED';
}

function age(tp: TreePort): void {
  tp.infoIs = 'Aged';
  reselect(tp);
  tp.pim = 'AGED';
}

/**
 * Where the CIST comes to hold a worse root, cost or regional root at a port, what its instances agreed on there no longer
 * counts: they agreed on the way over the outside that was (13.29.12).
 */
function revokeAgreements({ port }: TreePort, next: Vector): void {
  const { portPriority: held } = port.trees[0]!;
  if (sameWay(held, next) || compareVectors(next, held) <= 0) return;
  for (let t = 1; t < port.trees.length; t++) {
    const tp = port.trees[t]!;
    tp.agree = tp.agreed = tp.synced = false;
  }
}

/** Where the CIST heard another region and speaks for itself now, the instances have a border no longer, and choose again. */
function leaveBorder({ tree, infoIs, port }: TreePort): void {
  if (tree > 0 || infoIs !== 'Received' || port.infoInternal) return;
  for (let t = 1; t < port.trees.length; t++) reselect(port.trees[t]!);
}

function update(tp: TreePort): void {
  if (tp.tree === 0) revokeAgreements(tp, tp.designatedPriority);
  leaveBorder(tp);
  tp.proposing = tp.proposed = false;
  tp.agreed = tp.agreed && betterOrSame(tp, false);
  tp.synced = tp.synced && tp.agreed;
  tp.portPriority = tp.designatedPriority;
  tp.portTimes = tp.designatedTimes;
  tp.updtInfo = false;
  tp.infoIs = 'Mine';
  setNewInfo(tp);
  tp.pim = 'CURRENT';
}

/** SUPERIOR_DESIGNATED */
function superior(b: MstBridge, tp: TreePort): void {
  if (tp.tree === 0) tp.port.infoInternal = tp.port.rcvdInternal;
  tp.agreed = tp.proposing = false;
  recordProposal(b, tp);
  setTcFlags(b, tp);
  if (tp.tree === 0) revokeAgreements(tp, tp.msgPriority);
  tp.agree = tp.agree && betterOrSame(tp, true);
  recordAgreement(b, tp);
  tp.synced = tp.synced && tp.agreed;
  tp.portPriority = tp.msgPriority;
  tp.portTimes = tp.msgTimes;
  updtRcvdInfoWhile(b, tp);
  tp.infoIs = 'Received';
  tp.port.loopInconsistent = false;
  reselect(tp);
}

function receive(b: MstBridge, tp: TreePort): void {
  const { infoIs: whose, portPriority: vector } = tp;
  if (tp.port.loopInconsistent) {
    // Whatever arrives shows that the neighbour can be heard again.
    tp.port.loopInconsistent = false;
    for (const each of tp.port.trees) reselect(each);
  }
  tp.rcvdInfo = rcvInfo(tp);
  recordMastered(tp);
  switch (tp.rcvdInfo) {
    case 'SuperiorDesignated':
      superior(b, tp);
      break;
    case 'RepeatedDesignated':
      if (tp.tree === 0) tp.port.infoInternal = tp.port.rcvdInternal;
      recordProposal(b, tp);
      setTcFlags(b, tp);
      recordAgreement(b, tp);
      updtRcvdInfoWhile(b, tp);
      break;
    case 'InferiorDesignated':
      recordDispute(tp);
      break;
    case 'InferiorRootAlternate':
      recordAgreement(b, tp);
      setTcFlags(b, tp);
      break;
    case 'Other':
      break;
  }
  tp.rcvdMsg = false;
  b.effects.push(receivedEffect(tp, whose, vector));
}

/** One transition; false when nothing moves the machine. */
export function informationStep(b: MstBridge, tp: TreePort): boolean {
  const { port } = tp;
  if (!port.portEnabled) {
    if (tp.infoIs === 'Disabled' && !tp.rcvdMsg) return false;
    disable(tp);
    return true;
  }
  switch (tp.pim) {
    case 'DISABLED':
      age(tp);
      return true;
    case 'AGED':
      if (!tp.selected || !tp.updtInfo) return false;
      update(tp);
      return true;
    default:
      if (tp.selected && tp.updtInfo) {
        update(tp);
        return true;
      }
      if (tp.infoIs === 'Received' && tp.rcvdInfoWhile === 0 && !tp.updtInfo && !tp.rcvdMsg) {
        // What a guarded port heard last is held against it until it hears again.
        if (port.loopGuard && tp.role !== 'Designated') {
          port.loopInconsistent = true;
          b.effects.push({ kind: 'state', port: port.number, tree: tp.tree });
        }
        age(tp);
        return true;
      }
      if (!tp.rcvdMsg || tp.updtInfo) return false;
      receive(b, tp);
      return true;
  }
}
