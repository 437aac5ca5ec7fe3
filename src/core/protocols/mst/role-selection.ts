/** Port role selection machine (802.1Q-2018 13.36; 802.1D-2004 17.28). */
import { ageOver, infoDiffers, wake } from './procedures';
import { sameTimes } from '../times';
import { compareVectors } from '../../standard';
import type { Times } from '../times';
import type { Vector } from '../../standard';
import type { BridgeTimers } from './settings';
import type { BridgeTree, MachineRole, MstBridge, TreePort } from './variables';

/** The bridge's own vector for a tree. */
export function bridgeVector(b: MstBridge, tree: number): Vector {
  const { bridgePriority } = b.trees[tree]!;
  const { mac } = b.settings;
  return {
    rootPriority: tree === 0 ? bridgePriority : 0,
    rootMac: tree === 0 ? mac : 0,
    externalCost: 0,
    regionalPriority: bridgePriority,
    regionalMac: mac,
    internalCost: 0,
    bridgePriority,
    bridgeMac: mac,
    port: 0,
  };
}

/** The vector of a way to the root over this port: what it holds, with the cost of receiving it added (13.10, 13.11). */
function rootPathVector(b: MstBridge, tp: TreePort): Vector {
  const v = tp.portPriority;
  if (tp.tree > 0 || tp.port.infoInternal) return { ...v, internalCost: v.internalCost + tp.internalPathCost };
  return {
    ...v,
    externalCost: v.externalCost + tp.externalPathCost,
    regionalPriority: b.trees[0]!.bridgePriority,
    regionalMac: b.settings.mac,
    internalCost: 0,
  };
}

/** Whether a port leads to a worse root than the best so far, or at a higher external cost: most do, and are not looked at further. */
function isFarWorse(tp: TreePort, best: Vector): boolean {
  const v = tp.portPriority;
  if (tp.tree > 0) return false;
  const order = v.rootPriority - best.rootPriority || v.rootMac - best.rootMac;
  return order > 0 || (order === 0 && v.externalCost > best.externalCost);
}

function timesOver(tp: TreePort, own: Times, timers: BridgeTimers): Times {
  const t = tp.portTimes;
  if (tp.tree > 0) return { ...own, hops: t.hops - 1 };
  return tp.port.infoInternal
    ? { ...t, helloTime: t.helloTime, hops: t.hops - 1 }
    : { ...t, messageAge: ageOver(t, timers), hops: own.hops };
}

/** Whether the CIST hears another region, or none, at the port: instances follow it there. */
function atBorder({ port }: TreePort): boolean {
  return port.trees[0]!.infoIs === 'Received' && !port.infoInternal;
}

/** Whether what a port holds may make it root port. */
const mayBeRoot = (b: MstBridge, tp: TreePort): boolean =>
  tp.infoIs === 'Received' &&
  !tp.port.restrictedRole &&
  tp.portPriority.bridgeMac !== b.settings.mac &&
  // An instance has no way to its regional root over the border of the region.
  (tp.tree === 0 || !atBorder(tp));

function chooseRoot(b: MstBridge, tree: BridgeTree, index: number): void {
  const own = bridgeVector(b, index);
  let best = own;
  let port: TreePort | null = null;
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    if (!mayBeRoot(b, tp) || isFarWorse(tp, best)) continue;
    const vector = rootPathVector(b, tp);
    const order = compareVectors(vector, best);
    if (order < 0 || (order === 0 && port !== null && tp.portId < port.portId)) {
      best = vector;
      port = tp;
    }
  }
  tree.rootPort = port;
  tree.rootPriority = best;
  tree.rootTimes = port ? timesOver(port, b.ownTimes, b.settings.timers) : b.ownTimes;
}

/** What the bridge would say through a port; the vector before where that is the same, as it is for most. */
function designatedVector(b: MstBridge, tree: BridgeTree, tp: TreePort): Vector {
  const v = tree.rootPriority;
  const bridgePriority = tree.bridgePriority;
  const { mac: bridgeMac, version } = b.settings;
  // Where the neighbour knows no regions, and in a bridge without them, the bridge speaks for itself.
  const alone = tp.tree === 0 && (version < 3 || !tp.port.sendRSTP);
  const regionalPriority = alone ? bridgePriority : v.regionalPriority;
  const regionalMac = alone ? bridgeMac : v.regionalMac;
  const internalCost = alone ? 0 : v.internalCost;
  const { rootPriority, rootMac, externalCost } = v;
  const { portId: port, designatedPriority: before } = tp;
  if (
    before.rootMac === rootMac &&
    before.rootPriority === rootPriority &&
    before.externalCost === externalCost &&
    before.regionalPriority === regionalPriority &&
    before.regionalMac === regionalMac &&
    before.internalCost === internalCost &&
    before.bridgePriority === bridgePriority &&
    before.bridgeMac === bridgeMac &&
    before.port === port
  )
    return before;
  return {
    rootPriority,
    rootMac,
    externalCost,
    regionalPriority,
    regionalMac,
    internalCost,
    bridgePriority,
    bridgeMac,
    port,
  };
}

function roleOf(b: MstBridge, tree: BridgeTree, tp: TreePort): MachineRole {
  const cist = tp.port.trees[0]!;
  // On the border of the region an instance follows the CIST.
  if (tp.tree > 0 && atBorder(tp)) {
    if (cist.selectedRole === 'Root') return 'Master';
    if (cist.selectedRole === 'Alternate' || cist.selectedRole === 'Backup') return cist.selectedRole;
  }
  switch (tp.infoIs) {
    case 'Disabled':
      return 'Disabled';
    case 'Aged':
    case 'Mine':
      return tp.port.loopInconsistent ? 'Alternate' : 'Designated';
    case 'Received':
      if (tree.rootPort === tp) return 'Root';
      if (compareVectors(tp.designatedPriority, tp.portPriority) < 0) return 'Designated';
      return tp.portPriority.bridgeMac === b.settings.mac ? 'Backup' : 'Alternate';
  }
}

/** updtRolesTree; wakes the ports for which it says something new. */
function updtRolesTree(b: MstBridge, index: number): void {
  const tree = b.trees[index]!;
  chooseRoot(b, tree, index);
  const hello = b.settings.timers.helloTime;
  const times = { ...tree.rootTimes, helloTime: tree.rootPort ? tree.rootTimes.helloTime : hello };
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    const { designatedPriority, designatedTimes } = tp;
    tp.designatedPriority = designatedVector(b, tree, tp);
    const said = p.ownHello === null ? times : { ...times, helloTime: p.ownHello };
    tp.designatedTimes = sameTimes(said, designatedTimes) ? designatedTimes : said;
    tp.selectedRole = roleOf(b, tree, tp);
    const mine = tp.infoIs === 'Aged' || (tp.infoIs === 'Mine' && infoDiffers(tp));
    const follows = tp.tree > 0 && atBorder(tp) && tp.selectedRole !== 'Designated';
    tp.updtInfo =
      tp.infoIs === 'Received' ? tp.selectedRole === 'Designated' && !follows : tp.infoIs === 'Disabled' ? false : mine;
    const news = tp.designatedPriority !== designatedPriority || tp.designatedTimes !== designatedTimes;
    if (news || tp.updtInfo || !tp.selected || tp.selectedRole !== tp.role) wake(b, p);
  }
}

/**
 * syncMaster: another bridge leads the region to the root now. In every instance the ways inside the region are cut and
 * agreed on again, so that its master port waits for the one before it.
 */
function syncMaster(b: MstBridge): void {
  for (const p of b.ports) {
    if (!p.infoInternal) continue;
    for (let t = 1; t < p.trees.length; t++) {
      const tp = p.trees[t]!;
      tp.agree = tp.agreed = tp.synced = false;
      tp.sync = true;
    }
    wake(b, p);
  }
}

/** Whether the port of a tree is the master port or leads to one: what instances say on inside the region (13.27). */
function updateMaster(b: MstBridge, index: number): void {
  const anyMastered = b.ports.some((p) => p.trees[index]!.mastered && p.trees[index]!.selectedRole === 'Designated');
  const anyMaster = b.ports.some((p) => p.trees[index]!.selectedRole === 'Master');
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    tp.master = (anyMaster && tp.selectedRole === 'Root') || (anyMastered && tp.selectedRole === 'Root');
  }
}

/** A designated port waits for the others to be in sync only where it agrees. */
const waitsForOthers = ({ settings: { version } }: MstBridge, { selectedRole }: TreePort): boolean =>
  selectedRole === 'Designated' ? version >= 3 : selectedRole !== 'Disabled';

/** One transition of a tree's machine; false when nothing moves it. */
export function roleSelectionStep(b: MstBridge, index: number): boolean {
  const tree = b.trees[index]!;
  if (!tree.asked) return false;
  tree.asked = false;
  tree.followers = [];
  for (const p of b.ports) p.trees[index]!.reselect = false;
  const { regionalMac, regionalPriority } = tree.rootPriority;
  updtRolesTree(b, index);
  const now = tree.rootPriority;
  if (index === 0 && now.externalCost > 0)
    if (now.regionalMac !== regionalMac || now.regionalPriority !== regionalPriority) syncMaster(b);
  if (index > 0) updateMaster(b, index);
  for (const p of b.ports) {
    const tp = p.trees[index]!;
    tp.selected = true;
    if (waitsForOthers(b, tp)) tree.followers.push(tp);
  }
  // Instances follow the CIST at the border: what moved there moves them.
  if (index === 0)
    for (let t = 1; t < b.trees.length; t++) {
      b.trees[t]!.asked = true;
      for (const p of b.ports) {
        p.trees[t]!.reselect = true;
        p.trees[t]!.selected = false;
      }
    }
  return true;
}
