/** Procedures of 802.1Q-2018 clause 13.29 (802.1D-2004 17.21) that several machines call. */
import { FLAG, flagRole } from '../frames';
import type { FlagRole } from '../frames';
import { UNMOVED } from './timers';
import { sameTimes } from '../times';
import { OCTET_SECONDS, compareVectors, isSuperior } from '../../standard';
import type { BridgeTimers } from './settings';
import type { Vector } from '../../standard';
import type { Times } from '../times';
import type { MstBridge, Port, RcvdInfo, TreePort } from './variables';

/** Hello time and forward delay in force at a port. */
export const helloTime = (tp: TreePort): number => tp.port.trees[0]!.designatedTimes.helloTime;
export const fwdDelay = (tp: TreePort): number => tp.port.trees[0]!.designatedTimes.forwardDelay;
/** The shorter one where the neighbour speaks the rapid protocol (forwardDelay of 13.28). */
export const forwardDelay = (tp: TreePort): number => (tp.port.sendRSTP ? helloTime(tp) : fwdDelay(tp));
export const edgeDelay = (p: Port): number => (p.operPointToPointMAC ? 3 : p.trees[0]!.designatedTimes.maxAge);

/** Role that the message tells; a configuration BPDU comes from a designated port. */
const toldRole = (tp: TreePort): FlagRole => (tp.port.bpdu!.type === 'config' ? 'designated' : flagRole(tp.msgFlags));

/** rcvInfo: what a message is against what the port holds. */
export function rcvInfo(tp: TreePort): RcvdInfo {
  const role = toldRole(tp);
  const order = compareVectors(tp.msgPriority, tp.portPriority);
  if (role === 'designated') {
    const { infoIs, port } = tp;
    // The same vector from another region than before leads to the root at another cost: it is accepted again.
    const sameSide = tp.tree > 0 || infoIs !== 'Received' || port.infoInternal === port.rcvdInternal;
    if (order === 0 && sameSide && sameTimes(tp.msgTimes, tp.portTimes))
      // One's own message, come back over a cable or hub that loops, says nothing.
      return infoIs === 'Received' ? 'RepeatedDesignated' : 'Other';
    if (isSuperior(tp.msgPriority, tp.portPriority)) return 'SuperiorDesignated';
    return 'InferiorDesignated';
  }
  if ((role === 'root' || role === 'alternate') && order >= 0) return 'InferiorRootAlternate';
  return 'Other';
}

/** recordProposal */
export function recordProposal(b: MstBridge, tp: TreePort): void {
  if (tp.port.bpdu!.type === 'config' || toldRole(tp) !== 'designated' || !(tp.msgFlags & FLAG.proposal)) return;
  tp.proposed = true;
  if (tp.tree === 0 && !tp.port.rcvdInternal)
    for (let t = 1; t < b.trees.length; t++) tp.port.trees[t]!.proposed = true;
}

/** recordAgreement; the CIST's agreement from outside the region is one for every instance. */
export function recordAgreement(b: MstBridge, tp: TreePort): void {
  const { port } = tp;
  const given = port.operPointToPointMAC && port.bpdu!.type !== 'config' && (tp.msgFlags & FLAG.agreement) !== 0;
  const counts = tp.tree === 0 ? given : given && sameCist(tp);
  tp.agreed = counts;
  if (counts) tp.proposing = false;
  if (tp.tree !== 0 || port.rcvdInternal) return;
  for (let t = 1; t < b.trees.length; t++) {
    const other = port.trees[t]!;
    other.agreed = counts;
    if (counts) other.proposing = false;
  }
}

/** An instance's agreement counts only while both ends hold the same CIST root, cost and regional root (13.29.12). */
const sameCist = ({ port }: TreePort): boolean => sameWay(port.trees[0]!.msgPriority, port.trees[0]!.portPriority);

/** Whether two vectors of the CIST name the same root, external cost and regional root. */
export const sameWay = (a: Vector, b: Vector): boolean =>
  a.rootPriority === b.rootPriority &&
  a.rootMac === b.rootMac &&
  a.externalCost === b.externalCost &&
  a.regionalPriority === b.regionalPriority &&
  a.regionalMac === b.regionalMac;

/** recordDispute: a worse designated bridge that forwards or learns does not receive this one; from outside the region it disputes every tree. */
export function recordDispute(tp: TreePort): void {
  const { port } = tp;
  if (port.bpdu!.type === 'config' || !(tp.msgFlags & FLAG.learning)) return;
  for (const each of tp.tree === 0 && !port.rcvdInternal ? port.trees : [tp]) {
    each.disputed = true;
    each.agreed = false;
  }
}

/** recordMastered */
export const recordMastered = (tp: TreePort): void =>
  void (tp.mastered = tp.tree > 0 && tp.port.operPointToPointMAC && (tp.msgFlags & FLAG.acknowledgement) !== 0);

/** setTcFlags: the CIST's flag from outside the region is one for every tree. */
export function setTcFlags(b: MstBridge, tp: TreePort): void {
  const { port } = tp;
  const set = tp.msgFlags;
  if (tp.tree === 0 && port.bpdu!.type === 'config' && set & FLAG.acknowledgement) port.rcvdTcAck = true;
  if (!(set & FLAG.topologyChange)) return;
  tp.rcvdTc = true;
  if (tp.tree === 0 && !port.rcvdInternal) for (let t = 1; t < b.trees.length; t++) port.trees[t]!.rcvdTc = true;
}

/** Message age behind one more bridge: a second more, rounded to the nearest whole second; or 1/256 s more, where the bridge is set so. */
export const ageOver = ({ messageAge }: Times, { finelyAged }: BridgeTimers): number =>
  finelyAged ? messageAge + 1 / OCTET_SECONDS : Math.round(messageAge + 1);

/** updtRcvdInfoWhile: three hellos, unless the message is too old or came over too many bridges. */
export function updtRcvdInfoWhile(b: MstBridge, tp: TreePort): void {
  const cist = tp.port.trees[0]!;
  const t = tp.portTimes;
  const fresh = tp.tree > 0 || tp.port.rcvdInternal ? t.hops > 1 : ageOver(t, b.settings.timers) <= t.maxAge;
  tp.rcvdInfoWhile = fresh ? 3 * cist.portTimes.helloTime : 0;
}

/** betterorsameInfo */
export function betterOrSame(tp: TreePort, received: boolean): boolean {
  if (received) return tp.infoIs === 'Received' && compareVectors(tp.msgPriority, tp.portPriority) <= 0;
  return tp.infoIs === 'Mine' && compareVectors(tp.designatedPriority, tp.portPriority) <= 0;
}

/** Has the machines of a port run again, since something that they look at has changed: what it heard is no measure now. */
export function wake(b: MstBridge, p: Port): void {
  p.unmoved = 0;
  b.awake.add(p.index);
}

/** The same where only a timer ran out, or a topology change is signalled: a BPDU received again would still bring nothing new. */
export function stir(b: MstBridge, p: Port): void {
  p.unmoved &= UNMOVED.heard;
  b.awake.add(p.index);
}

export function setSyncTree(b: MstBridge, tree: number): void {
  for (const p of b.ports) {
    const tp = p.trees[tree]!;
    if (tp.sync) continue;
    tp.sync = true;
    wake(b, p);
  }
}
export function setReRootTree(b: MstBridge, tree: number): void {
  for (const p of b.ports) {
    const tp = p.trees[tree]!;
    if (tp.reRoot) continue;
    tp.reRoot = true;
    wake(b, p);
  }
}
/**
 * setTcPropTree: tells every other port of the tree of a topology change. One that is telling of a change already would
 * go through PROPAGATING and do nothing there but flush; it is spared the way.
 */
export function setTcPropTree(b: MstBridge, from: TreePort): void {
  if (from.port.restrictedTcn) return;
  const flushed: number[] = [];
  for (const p of b.ports) {
    if (p === from.port) continue;
    const tp = p.trees[from.tree]!;
    if (tp.tcProp) continue;
    if (isTelling(tp)) {
      flushed.push(p.number);
      continue;
    }
    tp.tcProp = true;
    stir(b, p);
  }
  if (flushed.length > 0) b.effects.push({ kind: 'flush', ports: flushed, tree: from.tree });
}

/** Whether the topology change machine stands in ACTIVE, with nothing else to do, while the port tells of a change. */
const isTelling = (tp: TreePort): boolean =>
  tp.tcm === 'ACTIVE' && tp.tcWhile !== 0 && carries(tp) && !tp.port.operEdge && !tp.rcvdTc && !tp.port.rcvdTcn;

/** Whether frames pass the port by its role. */
export const carries = (tp: TreePort): boolean =>
  tp.role === 'Root' || tp.role === 'Designated' || tp.role === 'Master';

/** newTcWhile */
export function newTcWhile(b: MstBridge, tp: TreePort): void {
  if (tp.tcWhile !== 0) return;
  const { port } = tp;
  if (port.sendRSTP) {
    tp.tcWhile = helloTime(tp) + 1;
    if (tp.tree === 0) port.newInfo = true;
    else port.newInfoMsti = true;
  } else {
    const { maxAge, forwardDelay: delay } = b.trees[0]!.rootTimes;
    tp.tcWhile = maxAge + delay;
  }
}

/** reRooted: no other port of the tree was root port a short while ago. */
export const reRooted = (b: MstBridge, tp: TreePort): boolean => {
  for (const p of b.ports) if (p !== tp.port && p.trees[tp.tree]!.rrWhile !== 0) return false;
  return true;
};

/** allSynced: every port other than this one and the root port is synced. */
export function allSynced(b: MstBridge, tp: TreePort): boolean {
  for (const p of b.ports) {
    const other = p.trees[tp.tree]!;
    if (!other.selected || other.role !== other.selectedRole || other.updtInfo) return false;
    if (other === tp) continue;
    const exempt = tp.role === 'Root' || tp.role === 'Alternate' ? other.role === 'Root' : false;
    if (!exempt && !other.synced) return false;
  }
  return true;
}

export const setNewInfo = (tp: TreePort): void => {
  if (tp.tree === 0) tp.port.newInfo = true;
  else tp.port.newInfoMsti = true;
};

const sameVector = (a: Vector, b: Vector) => compareVectors(a, b) === 0;
/** Whether what a port says is no longer what the bridge would say. */
export const infoDiffers = (tp: TreePort): boolean =>
  !sameVector(tp.portPriority, tp.designatedPriority) || !sameTimes(tp.portTimes, tp.designatedTimes);
