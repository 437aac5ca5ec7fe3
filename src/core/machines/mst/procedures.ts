/** Procedures of 802.1Q-2018 clause 13.29 (802.1D-2004 17.21) that several machines call. */
import { FLAG, encodeBpdu, flagRole, roleFlags, sameOctets, NOTIFICATION } from '../../frames';
import type { Bpdu, FlagRole, MstiPart } from '../../frames';
import { compareVectors, isSuperior, sameTimes } from './vectors';
import type { Times, Vector } from './vectors';
import type { MstBridge, Port, RcvdInfo, TreePort } from './variables';

/** Hello time and forward delay in force at a port. */
export const helloTime = (tp: TreePort): number => tp.port.trees[0]!.designatedTimes.helloTime;
export const fwdDelay = (tp: TreePort): number => tp.port.trees[0]!.designatedTimes.forwardDelay;
/** The shorter one where the neighbour speaks the rapid protocol (forwardDelay of 13.28). */
export const forwardDelay = (tp: TreePort): number => (tp.port.sendRSTP ? helloTime(tp) : fwdDelay(tp));
export const edgeDelay = (p: Port): number => (p.operPointToPointMAC ? 3 : p.trees[0]!.designatedTimes.maxAge);

const OCTET_SECONDS = 256;

/** The flags of a tree at a port: what it is and what it wants (14.4.1). */
function flagsOf(tp: TreePort, role: FlagRole): number {
  return (
    (tp.tcWhile !== 0 ? FLAG.topologyChange : 0) |
    (tp.proposing ? FLAG.proposal : 0) |
    roleFlags(role) |
    (tp.learning ? FLAG.learning : 0) |
    (tp.forwarding ? FLAG.forwarding : 0) |
    (tp.agree ? FLAG.agreement : 0)
  );
}
const SPOKEN: Record<TreePort['role'], FlagRole> = {
  Disabled: 'unknown',
  Root: 'root',
  Designated: 'designated',
  Alternate: 'alternate',
  Backup: 'alternate',
  Master: 'unknown',
};

const timesOut = (t: Times) => ({
  messageAge: Math.round(t.messageAge * OCTET_SECONDS),
  maxAge: t.maxAge * OCTET_SECONDS,
  helloTime: t.helloTime * OCTET_SECONDS,
  forwardDelay: t.forwardDelay * OCTET_SECONDS,
});

function mstiParts(b: MstBridge, p: Port): MstiPart[] {
  const parts: MstiPart[] = [];
  for (let t = 1; t < b.trees.length; t++) {
    const tp = p.trees[t]!;
    const v = tp.designatedPriority;
    parts.push({
      flags: flagsOf(tp, SPOKEN[tp.role]) | (tp.master ? FLAG.acknowledgement : 0),
      regionalPriority: v.regionalPriority,
      regionalMac: v.regionalMac,
      internalCost: v.internalCost,
      bridgePriority: (b.trees[t]!.bridgePriority >> 8) & 0xf0,
      portPriority: (tp.portId >> 8) & 0xf0,
      hops: tp.designatedTimes.hops,
    });
  }
  return parts;
}

/** txRstp: an RST BPDU, or with instances an MST BPDU; the octets before where nothing that they tell has moved. */
export function txRstp(b: MstBridge, p: Port): void {
  if (p.sentBefore?.moves !== b.moves) p.sentBefore = { octets: encodeBpdu(rstBpdu(b, p)), moves: b.moves };
  b.effects.push({ kind: 'send', port: p.number, octets: p.sentBefore.octets });
}

/** What a port says in the rapid protocol: a function of what only transitions move, and of whether tcWhile runs. */
function rstBpdu(b: MstBridge, p: Port): Bpdu {
  const tp = p.trees[0]!;
  const v = tp.designatedPriority;
  const { configuration, version } = b.settings;
  const common = {
    flags: flagsOf(tp, SPOKEN[tp.role]),
    rootPriority: v.rootPriority,
    rootMac: v.rootMac,
    rootPathCost: v.externalCost,
    port: tp.portId,
    ...timesOut(tp.designatedTimes),
  };
  return version === 3 && configuration
    ? {
        type: 'mst',
        ...common,
        bridgePriority: v.regionalPriority,
        bridgeMac: v.regionalMac,
        mst: {
          configuration,
          internalCost: v.internalCost,
          bridgePriority: v.bridgePriority,
          bridgeMac: v.bridgeMac,
          hops: tp.designatedTimes.hops,
          instances: mstiParts(b, p),
        },
      }
    : { type: 'rst', ...common, bridgePriority: v.bridgePriority, bridgeMac: v.bridgeMac };
}

/** txConfig: a configuration BPDU for a neighbour of classic spanning tree. */
export function txConfig(b: MstBridge, p: Port): void {
  const tp = p.trees[0]!;
  const v = tp.designatedPriority;
  const octets = encodeBpdu({
    type: 'config',
    flags: (tp.tcWhile !== 0 ? FLAG.topologyChange : 0) | (p.tcAck ? FLAG.acknowledgement : 0),
    rootPriority: v.rootPriority,
    rootMac: v.rootMac,
    rootPathCost: v.externalCost,
    bridgePriority: v.bridgePriority,
    bridgeMac: v.bridgeMac,
    port: tp.portId,
    ...timesOut(tp.designatedTimes),
  });
  b.effects.push({ kind: 'send', port: p.number, octets });
}

export const txTcn = (b: MstBridge, p: Port): void =>
  void b.effects.push({ kind: 'send', port: p.number, octets: encodeBpdu(NOTIFICATION) });

/** fromSameRegion: an MST BPDU with the very configuration of this bridge. */
export function fromSameRegion(b: MstBridge, bpdu: Bpdu): boolean {
  const own = b.settings.configuration;
  return bpdu.mst !== undefined && own !== null && sameOctets(own, bpdu.mst.configuration);
}

/** rcvMsgs: unpacks a BPDU into the message of every tree it is about. */
export function rcvMsgs(b: MstBridge, p: Port, bpdu: Bpdu): void {
  const cist = p.trees[0]!;
  if (bpdu.type === 'notification') return void (p.rcvdTcn = true);
  // A rapid bridge reads no further than an RST BPDU goes: the regional root is the bridge to it (802.1Q-2018 14.5).
  const mst = b.settings.version >= 3 ? bpdu.mst : undefined;
  const { rootPriority, rootMac, rootPathCost, port } = bpdu;
  const hello = Math.max(1, bpdu.helloTime / OCTET_SECONDS);
  cist.rcvdMsg = true;
  cist.msgPriority = sameOr(cist.msgPriority, {
    rootPriority,
    rootMac,
    externalCost: rootPathCost,
    regionalPriority: bpdu.bridgePriority,
    regionalMac: bpdu.bridgeMac,
    internalCost: mst?.internalCost ?? 0,
    bridgePriority: mst?.bridgePriority ?? bpdu.bridgePriority,
    bridgeMac: mst?.bridgeMac ?? bpdu.bridgeMac,
    port,
  });
  cist.msgTimes = sameTimesOr(cist.msgTimes, {
    messageAge: bpdu.messageAge / OCTET_SECONDS,
    maxAge: bpdu.maxAge / OCTET_SECONDS,
    forwardDelay: bpdu.forwardDelay / OCTET_SECONDS,
    helloTime: hello,
    hops: mst && p.rcvdInternal ? mst.hops : b.settings.timers.maxHops,
  });
  if (!p.rcvdInternal || !mst) return;
  for (const part of mst.instances) {
    const tree = b.trees.findIndex((t, i) => i > 0 && t.instance === (part.regionalPriority & 0xfff));
    if (tree < 0) continue;
    const tp = p.trees[tree]!;
    tp.rcvdMsg = true;
    tp.msti = part;
    tp.msgPriority = sameOr(tp.msgPriority, {
      rootPriority: 0,
      rootMac: 0,
      externalCost: 0,
      regionalPriority: part.regionalPriority,
      regionalMac: part.regionalMac,
      internalCost: part.internalCost,
      bridgePriority: (part.bridgePriority << 8) | (part.regionalPriority & 0xfff),
      bridgeMac: mst.bridgeMac,
      port: (part.portPriority << 8) | (port & 0xfff),
    });
    const { maxAge, forwardDelay: delay, helloTime: hellos } = cist.msgTimes;
    tp.msgTimes = sameTimesOr(tp.msgTimes, {
      messageAge: 0,
      maxAge,
      forwardDelay: delay,
      helloTime: hellos,
      hops: part.hops,
    });
  }
}

/** The one before where the new one is no other: what compares it later sees so at once. */
const sameOr = (before: Vector, now: Vector): Vector => (compareVectors(before, now) === 0 ? before : now);
const sameTimesOr = (before: Times, now: Times): Times => (sameTimes(before, now) ? before : now);

const flags = (tp: TreePort): number => (tp.tree === 0 ? tp.port.bpdu!.flags : tp.msti!.flags);
/** Role that the message tells; a configuration BPDU comes from a designated port. */
const toldRole = (tp: TreePort): FlagRole => (tp.port.bpdu!.type === 'config' ? 'designated' : flagRole(flags(tp)));

/** rcvInfo: what a message is against what the port holds. */
export function rcvInfo(tp: TreePort): RcvdInfo {
  const role = toldRole(tp);
  const order = compareVectors(tp.msgPriority, tp.portPriority);
  if (role === 'designated') {
    if (order === 0 && sameTimes(tp.msgTimes, tp.portTimes))
      // One's own message, come back over a cable or hub that loops, says nothing.
      return tp.infoIs === 'Received' ? 'RepeatedDesignated' : 'Other';
    if (isSuperior(tp.msgPriority, tp.portPriority)) return 'SuperiorDesignated';
    return 'InferiorDesignated';
  }
  if ((role === 'root' || role === 'alternate') && order >= 0) return 'InferiorRootAlternate';
  return 'Other';
}

/** recordProposal */
export function recordProposal(b: MstBridge, tp: TreePort): void {
  if (tp.port.bpdu!.type === 'config' || toldRole(tp) !== 'designated' || !(flags(tp) & FLAG.proposal)) return;
  tp.proposed = true;
  if (tp.tree === 0 && !tp.port.rcvdInternal)
    for (let t = 1; t < b.trees.length; t++) tp.port.trees[t]!.proposed = true;
}

/** recordAgreement; the CIST's agreement from outside the region is one for every instance. */
export function recordAgreement(b: MstBridge, tp: TreePort): void {
  const { port } = tp;
  const given = port.operPointToPointMAC && port.bpdu!.type !== 'config' && (flags(tp) & FLAG.agreement) !== 0;
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
function sameCist({ port }: TreePort): boolean {
  const told = port.trees[0]!.msgPriority;
  const held = port.trees[0]!.portPriority;
  return (
    told.rootPriority === held.rootPriority &&
    told.rootMac === held.rootMac &&
    told.externalCost === held.externalCost &&
    told.regionalPriority === held.regionalPriority &&
    told.regionalMac === held.regionalMac
  );
}

/** recordDispute: a worse designated bridge that forwards or learns does not hear this one. */
export function recordDispute(tp: TreePort): void {
  if (tp.port.bpdu!.type === 'config' || !(flags(tp) & FLAG.learning)) return;
  tp.disputed = true;
  tp.agreed = false;
}

/** recordMastered */
export const recordMastered = (tp: TreePort): void =>
  void (tp.mastered = tp.tree > 0 && tp.port.operPointToPointMAC && (flags(tp) & FLAG.acknowledgement) !== 0);

/** setTcFlags: the CIST's flag from outside the region is one for every tree. */
export function setTcFlags(b: MstBridge, tp: TreePort): void {
  const { port } = tp;
  const set = flags(tp);
  if (tp.tree === 0 && port.bpdu!.type === 'config' && set & FLAG.acknowledgement) port.rcvdTcAck = true;
  if (!(set & FLAG.topologyChange)) return;
  tp.rcvdTc = true;
  if (tp.tree === 0 && !port.rcvdInternal) for (let t = 1; t < b.trees.length; t++) port.trees[t]!.rcvdTc = true;
}

/** updtRcvdInfoWhile: three hellos, unless the message is too old or came over too many bridges. */
export function updtRcvdInfoWhile(tp: TreePort): void {
  const cist = tp.port.trees[0]!;
  const t = tp.portTimes;
  const fresh = tp.tree > 0 || tp.port.rcvdInternal ? t.hops > 1 : t.messageAge + 1 <= t.maxAge;
  tp.rcvdInfoWhile = fresh ? 3 * cist.portTimes.helloTime : 0;
}

/** betterorsameInfo */
export function betterOrSame(tp: TreePort, received: boolean): boolean {
  if (received) return tp.infoIs === 'Received' && compareVectors(tp.msgPriority, tp.portPriority) <= 0;
  return tp.infoIs === 'Mine' && compareVectors(tp.designatedPriority, tp.portPriority) <= 0;
}

/** Has the machines of a port run again. */
export function wake(b: MstBridge, p: Port): void {
  b.awake[p.index] = true;
  b.anyAwake = true;
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
export function setTcPropTree(b: MstBridge, from: TreePort): void {
  if (from.port.restrictedTcn) return;
  for (const p of b.ports) {
    if (p === from.port) continue;
    const tp = p.trees[from.tree]!;
    if (tp.tcProp) continue;
    tp.tcProp = true;
    wake(b, p);
  }
}

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
